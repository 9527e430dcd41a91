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
      setNow(({ ids }) =>
        part === null
          ? NOTHING
          : { ids: selectedAfter(parts, ids, part, how), setting: how === "only" ? setting : null },
      ),
    [parts],
  );
  const selectAll = useCallback((ids: readonly string[]) => setNow({ ids, setting: null }), []);
  return useMemo(() => {
    // What is gone (undone, removed by somebody else) is no longer selected.
    const selected = now.ids.filter((id) => parts.has(id));
    return { selected, part: selected.at(-1) ?? null, setting: now.setting, select, selectAll };
  }, [now, parts, select, selectAll]);
}

/** What is selected once a part is, too, in that way. */
export function selectedAfter(parts: Parts, before: readonly string[], part: string, how: SelectHow): string[] {
  if (how === "also") return before.includes(part) ? before.filter((id) => id !== part) : [...before, part];
  return how === "through" && before.length > 0 ? between(parts, before[0]!, part) : [part];
}

/** The blocks from one part to another in the order of the outline, the first of them first. */
function between(parts: Parts, from: string, to: string): string[] {
  const order = [...parts.keys()];
  const [start, end] = [order.indexOf(from), order.indexOf(to)];
  const range = order.slice(Math.min(start, end), Math.max(start, end) + 1);
  const blocks = range.filter((id) => parts.get(id)!.what === "block");
  return blocks.length > 0 ? [...new Set([from, ...blocks.filter((id) => id !== to), to])] : [to];
}
