// The records of a table, fetched in pages as they come into sight; what is typed goes to the server at once.
import { useQueries, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { RecordReply, RecordsReply, TypedRecord } from "../../api/generated/wire";
import { queries } from "../../api/queries";

const PAGE = 100;
const MOST_UNDONE = 50;

/** What was typed into a cell and not kept, and why. */
export interface Refused {
  text: string;
  message: string;
}

/** A change: cells of a record that is there, or of a new one, with what stood there before. */
export interface Edit {
  record: RecordReply | null;
  cells: Record<string, string>;
}

export const cellName = (number: number | null, column: string): string => `${number ?? "new"} ${column}`;

export function useRecords(tableId: string, asked: { words: string; sort: string }, shown: readonly [number, number]) {
  const queryClient = useQueryClient();
  const [count, setCount] = useState<number | null>(null);
  const [refused, setRefused] = useState<ReadonlyMap<string, Refused>>(new Map());
  const [problem, setProblem] = useState("");
  const [undo, setUndo] = useState<readonly (readonly TypedRecord[])[]>([]);
  const firstPage = Math.floor(shown[0] / PAGE);
  const pages = Array.from({ length: Math.floor(shown[1] / PAGE) - firstPage + 1 }, (_, at) => firstPage + at);
  const found = useQueries({
    queries: pages.map((page) => queries.records(tableId, { ...asked, first: `${page * PAGE}`, limit: `${PAGE}` })),
  });
  const now = found.find((each) => each.data)?.data?.count;
  if (now !== undefined && now !== count) setCount(now);
  const at = (row: number): RecordReply | undefined =>
    found[Math.floor(row / PAGE) - firstPage]?.data?.records[row % PAGE];

  const put = (records: readonly RecordReply[]) => {
    const byNumber = new Map(records.map((each) => [each.number, each]));
    queryClient.setQueriesData<RecordsReply>(
      { queryKey: ["records", tableId] },
      (page) => page && { ...page, records: page.records.map((each) => byNumber.get(each.number) ?? each) },
    );
  };
  const again = () => queryClient.invalidateQueries({ queryKey: ["records", tableId] });

  const send = async (edits: readonly Edit[], changes: readonly TypedRecord[]) => {
    const outcome = await api.changeRecords(tableId, changes);
    put(outcome.records.flatMap((each) => each ?? []));
    setRefused((before) => {
      const after = new Map(before);
      for (const [place, edit] of edits.entries())
        for (const [column, text] of Object.entries(edit.cells)) {
          const name = cellName(edit.record?.number ?? null, column);
          const wrong = outcome.wrong.filter((each) => each.at === place);
          const own =
            wrong.find((each) => each.column === column) ?? wrong.find((each) => each.column === "") ?? wrong[0];
          if (own) after.set(name, { text, message: own.message });
          else after.delete(name);
        }
      return after;
    });
    return outcome;
  };

  /** Keeps what was typed; what is refused stays in its cell with the reason. Returns whether all of it is kept. */
  const change = async (edits: readonly Edit[]): Promise<boolean> => {
    const changes = edits.map(({ record, cells }) => ({
      number: record?.number ?? null,
      revision: record?.revision ?? null,
      cells,
    }));
    try {
      const outcome = await send(edits, changes);
      const back = edits.flatMap(({ record, cells }, place) =>
        record && outcome.records[place]
          ? [{ number: record.number, revision: null, cells: restored(record, Object.keys(cells)) }]
          : [],
      );
      if (back.length > 0) setUndo((before) => [...before.slice(1 - MOST_UNDONE), back]);
      if (edits.some((each) => each.record === null) || asked.words || asked.sort) await again();
      setProblem("");
      return outcome.wrong.length === 0;
    } catch (error) {
      setProblem(reasonOf(error));
      return false;
    }
  };

  const undoLast = async () => {
    const last = undo.at(-1);
    if (!last) return;
    setUndo(undo.slice(0, -1));
    try {
      const outcome = await api.changeRecords(tableId, last);
      put(outcome.records.flatMap((each) => each ?? []));
      setProblem(outcome.wrong[0]?.message ?? "");
      await again();
    } catch (error) {
      setProblem(reasonOf(error));
    }
  };

  const forget = (name: string) =>
    setRefused((before) => {
      const after = new Map(before);
      after.delete(name);
      return after;
    });

  const removal = async (numbers: readonly number[], back: boolean) => {
    try {
      await (back ? api.bringBackRecords(tableId, numbers) : api.removeRecords(tableId, numbers));
      setProblem("");
      await again();
      return true;
    } catch (error) {
      setProblem(reasonOf(error));
      return false;
    }
  };

  return {
    count: count ?? 0,
    isThere: count !== null,
    failure: found.find((each) => each.error)?.error ?? null,
    at,
    change,
    refused,
    forget,
    problem,
    mayUndo: undo.length > 0,
    undoLast,
    removal,
  };
}

const restored = (record: RecordReply, columns: readonly string[]): Record<string, string> =>
  Object.fromEntries(columns.map((column) => [column, record.typed[column] ?? ""]));
