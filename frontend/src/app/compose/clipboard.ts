// Blocks on the clipboard: copied within and between forms as text that only Codexa reads; other text makes fields.
import { useEffect } from "react";
import { api } from "../../api/client";
import type { KnownTable } from "../../api/generated/wire";
import type { Block, Page } from "../../model/blocks";
import { isInside } from "../../model/draft";
import type { Parts, RowKind } from "../../model/parts";
import { coming, tablesNamedIn } from "../tables/tables_along";
import { useBench } from "../workbench/bench";
import { isBusyElsewhere } from "./keys";
import type { ComposeActions } from "./actions";

const MARK = "codexa blocks 1";
const KINDS = "codexa row kinds 1";
const PAGES = "codexa pages 1";
const TABLES = "codexa tables 1";

/** The selected blocks in the order of the outline; what stands in another one goes with that one. */
export function blocksToCopy(parts: Parts, selected: readonly string[]): Block[] {
  const chosen = new Set(selected);
  return [...parts.values()].flatMap((entry) =>
    entry.what === "block" && chosen.has(entry.id) && !isInside(parts, entry.id, chosen) ? [entry.part] : [],
  );
}

/** Blocks as text for the clipboard, with the tables that they name. */
export const written = (blocks: readonly Block[], tables: readonly KnownTable[] = []): string =>
  JSON.stringify({ [MARK]: blocks, [TABLES]: tablesNamedIn(blocks, tables) });

/** The row kinds that are selected by themselves, in order. */
const kindsToCopy = (parts: Parts, selected: readonly string[]): RowKind[] =>
  [...parts.values()].flatMap((entry) => (entry.what === "kind" && selected.includes(entry.id) ? [entry.part] : []));

/** The pages that are selected by themselves, in order. */
const pagesToCopy = (parts: Parts, selected: readonly string[]): Page[] =>
  [...parts.values()].flatMap((entry) => (entry.what === "page" && selected.includes(entry.id) ? [entry.part] : []));

/** The blocks that were copied, or null for any other text. */
export const readBlocks = (text: string): Block[] | null => readMarked(text, MARK) as Block[] | null;

function readMarked(text: string, mark: string): unknown[] | null {
  try {
    const found: unknown = JSON.parse(text);
    const marked = found && typeof found === "object" ? (found as Record<string, unknown>)[mark] : null;
    return Array.isArray(marked) ? marked : null;
  } catch {
    return null;
  }
}

/** Whether words on the page are marked; what is marked in a field that was left does not count. */
const isTextSelected = (): boolean => {
  const selection = getSelection();
  return selection !== null && selection.rangeCount > 0 && selection.getRangeAt(0).toString() !== "";
};

/** Copy, cut and paste wherever nothing is being typed. */
export function useBlockClipboard(actions: ComposeActions, onProblem: (problem: string | null) => void): void {
  const { form, act, parts, selected, mayEdit } = useBench();
  useEffect(() => {
    const take = (event: ClipboardEvent, cut: boolean) => {
      const blocks = blocksToCopy(parts, selected);
      const kinds = blocks.length > 0 ? [] : kindsToCopy(parts, selected);
      const pages = blocks.length + kinds.length > 0 ? [] : pagesToCopy(parts, selected);
      const count = blocks.length + kinds.length + pages.length;
      if (isBusyElsewhere(event) || count === 0 || isTextSelected()) return;
      event.preventDefault();
      const marked = (mark: string, what: readonly (RowKind | Page)[]) =>
        JSON.stringify({ [mark]: what, [TABLES]: tablesNamedIn(what, form.tables) });
      const text =
        pages.length > 0
          ? marked(PAGES, pages)
          : kinds.length > 0
            ? marked(KINDS, kinds)
            : written(blocks, form.tables);
      event.clipboardData?.setData("text/plain", text);
      if (cut && mayEdit) actions.remove();
    };
    const copy = (event: ClipboardEvent) => take(event, false);
    const cut = (event: ClipboardEvent) => take(event, true);
    const paste = (event: ClipboardEvent) => {
      const text = event.clipboardData?.getData("text/plain") ?? "";
      if (isBusyElsewhere(event) || !mayEdit || !text.trim()) return;
      event.preventDefault();
      const along = coming(form.tables, (readMarked(text, TABLES) ?? []) as KnownTable[]);
      if (along) act(along);
      const kinds = readMarked(text, KINDS) as RowKind[] | null;
      if (kinds) return actions.addRowKinds(kinds);
      const copies = readMarked(text, PAGES) as Page[] | null;
      if (copies) return actions.addPages(copies);
      const blocks = readBlocks(text);
      const target = actions.afterSelection();
      if (blocks) return actions.addBlocks(blocks, target);
      api.outline(text).then(
        ({ pages, lines }) => {
          actions.addBlocks(
            pages.flatMap((page) => page.blocks),
            target,
          );
          const lost = lines.filter((line) => line.problem);
          onProblem(lost.length > 0 ? lost.map((line) => `“${line.text}”: ${line.problem}`).join(" ") : null);
        },
        (error: unknown) => onProblem(error instanceof Error ? error.message : String(error)),
      );
    };
    addEventListener("copy", copy);
    addEventListener("cut", cut);
    addEventListener("paste", paste);
    return () => {
      removeEventListener("copy", copy);
      removeEventListener("cut", cut);
      removeEventListener("paste", paste);
    };
  });
}
