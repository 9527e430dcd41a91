// The sheet as a list of rows, top to bottom: what stands in groups and rows has rows of its own, set in.
import type { Form } from "../../api/generated/wire";
import { linesOf } from "../../model/lines";
import type { Block } from "../../model/blocks";
import { type Entry, FORM, type Into, type Parts } from "../../model/parts";
import type { Target } from "./actions";

type BlockEntry = Extract<Entry, { what: "block" }>;

export type SheetRow =
  | { is: "page"; id: string; entry: Extract<Entry, { what: "page" }>; inside: number }
  | { is: "line"; id: string; entries: BlockEntry[]; inside: number }
  | { is: "holder"; id: string; entry: BlockEntry; inside: number }
  | { is: "kind"; id: string; entry: Extract<Entry, { what: "kind" }>; inside: number }
  | { is: "confirmation"; id: string; entry: Extract<Entry, { what: "confirmation" }>; inside: number }
  | { is: "insert"; id: string; target: Target; label: string; empty: boolean; inside: number };

const entryOf = (parts: Parts, block: Block): BlockEntry => parts.get(block.id) as BlockEntry;

const isHolder = (block: Block): block is Extract<Block, { type: "group" | "repeat" }> =>
  block.type === "group" || block.type === "repeat";

/** The rows of a form; the same parts give the same rows. */
export function sheetRows(form: Form, parts: Parts): SheetRow[] {
  const rows: SheetRow[] = [];
  for (const page of form.pages) {
    const entry = parts.get(page.id) as Extract<Entry, { what: "page" }>;
    rows.push({ is: "page", id: page.id, entry, inside: 0 });
    addBlocks(rows, parts, page.blocks, { holder: page.id, list: "blocks" }, 0);
  }
  for (const confirmation of form.confirmations) {
    const entry = parts.get(confirmation.id) as Extract<Entry, { what: "confirmation" }>;
    rows.push({ is: "confirmation", id: confirmation.id, entry, inside: 0 });
  }
  return rows;
}

function addBlocks(rows: SheetRow[], parts: Parts, blocks: readonly Block[], into: Into, inside: number): void {
  const insert = (at: number) => rows.push(insertRow(parts, into, at, inside, blocks.length === 0));
  insert(0);
  let at = 0;
  for (const line of linesOf(blocks)) {
    // A group takes a line of its own: what stands in it has rows of its own.
    for (const piece of pieces(line)) {
      at += piece.length;
      const first = piece[0]!;
      if (piece.length === 1 && isHolder(first)) {
        rows.push({ is: "holder", id: first.id, entry: entryOf(parts, first), inside });
        if (first.type === "group")
          addBlocks(rows, parts, first.blocks, { holder: first.id, list: "blocks" }, inside + 1);
        else
          for (const kind of first.kinds) {
            const entry = parts.get(kind.id) as Extract<Entry, { what: "kind" }>;
            rows.push({ is: "kind", id: kind.id, entry, inside: inside + 1 });
            addBlocks(rows, parts, kind.blocks, { holder: kind.id, list: "blocks" }, inside + 2);
          }
      } else rows.push({ is: "line", id: first.id, entries: piece.map((block) => entryOf(parts, block)), inside });
      insert(at);
    }
  }
}

function pieces(line: Block[]): Block[][] {
  return line.reduce<Block[][]>((found, block) => {
    const last = found.at(-1);
    if (last && !isHolder(block) && !isHolder(last[0]!)) last.push(block);
    else found.push([block]);
    return found;
  }, []);
}

function insertRow(parts: Parts, into: Into, at: number, inside: number, empty: boolean): SheetRow {
  const holder = parts.get(into.holder);
  const number = holder?.number ?? "";
  const what = holder?.what === "page" ? `page ${number}` : number;
  const label = at === 0 ? `Insert at the start of ${what}` : `Insert after ${number}.${at}`;
  return { is: "insert", id: `${into.holder || FORM} ${at}`, target: { into, at }, label, empty, inside };
}
