// What is selected: one part or several.
import { useCallback, useMemo, useState } from "react";
import type { Parts } from "../../model/parts";
import type { SelectHow, Selection } from "./bench";

interface Selected {
  ids: readonly string[];
  setting: string | null;
}

const NOTHING: Selected = { ids: [], setting: null };

export function useSelection(parts: Parts): Selection {
  const [now, setNow] = useState(NOTHING);
  const select = useCallback(
    (part: string | null, setting: string | null = null, how: SelectHow = "only") =>
      setNow((before) => {
        if (part === null) return NOTHING;
        if (how === "also")
          return {
            ids: before.ids.includes(part) ? before.ids.filter((id) => id !== part) : [...before.ids, part],
            setting: null,
          };
        if (how === "through" && before.ids.length > 0)
          return { ids: between(parts, before.ids[0]!, part), setting: null };
        return { ids: [part], setting };
      }),
    [parts],
  );
  const selectAll = useCallback((ids: readonly string[]) => setNow({ ids, setting: null }), []);
  return useMemo(() => {
    // What is gone (undone, removed by somebody else) is no longer selected.
    const selected = now.ids.filter((id) => parts.has(id));
    return { selected, part: selected.at(-1) ?? null, setting: now.setting, select, selectAll };
  }, [now, parts, select, selectAll]);
}

/** The blocks from one part to another in the order of the outline, the first of them first. */
function between(parts: Parts, from: string, to: string): string[] {
  const order = [...parts.keys()];
  const [start, end] = [order.indexOf(from), order.indexOf(to)];
  const range = order.slice(Math.min(start, end), Math.max(start, end) + 1);
  const blocks = range.filter((id) => parts.get(id)!.what === "block");
  return blocks.length > 0 ? [from, ...blocks.filter((id) => id !== from && id !== to), to] : [to];
}
