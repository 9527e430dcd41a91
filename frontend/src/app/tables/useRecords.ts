// The records of a table, fetched in pages as they come into sight; what is typed goes to the server in its order.
import { useQueries, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, ApiError, reasonOf } from "../../api/client";
import type { RecordReply, RecordsReply, TableReply, TypedRecord, WrongCellReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";

const PAGE = 100;
const MOST_UNDONE = 50;
const MOST_AT_ONCE = 2_000; // records that are typed, copied or removed
const FRESH = Infinity; // what was fetched is as it is until something changes it

/** What was typed into a cell and not kept, and why. */
export interface Refused {
  text: string;
  message: string;
}

/** Cells that were typed into the row at a place in the order; beyond the last record it is a new one. */
export interface TypedRow {
  row: number;
  cells: Record<string, string>;
}

/** A line of several that became no record, as it was pasted, and why. */
export interface TurnedBack {
  cells: readonly string[];
  message: string;
}

export const cellName = (number: number | null, column: string): string => `${number ?? "new"} ${column}`;

interface Edit {
  record: RecordReply | null;
  cells: Record<string, string>;
}

export function useRecords(
  table: TableReply,
  asked: Readonly<Record<string, string>>,
  shown: readonly [number, number],
) {
  const queryClient = useQueryClient();
  const [count, setCount] = useState<number | null>(null);
  const [refused, setRefused] = useState<ReadonlyMap<string, Refused>>(new Map());
  const [turnedBack, setTurnedBack] = useState<readonly TurnedBack[]>([]);
  const [problem, setProblem] = useState("");
  const [undo, setUndo] = useState<readonly (readonly TypedRecord[])[]>([]);
  // One change after the other: what is typed next is about what the last one has made.
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const page = (at: number) => queries.records(table.id, { ...asked, first: `${at * PAGE}`, limit: `${PAGE}` });
  const firstPage = Math.floor(shown[0] / PAGE);
  const pages = Array.from({ length: Math.floor(shown[1] / PAGE) - firstPage + 1 }, (_, at) => firstPage + at);
  const found = useQueries({ queries: pages.map(page) });
  const now = found.find((each) => each.data)?.data?.count;
  if (now !== undefined && now !== count) setCount(now);
  const at = (row: number): RecordReply | undefined =>
    found[Math.floor(row / PAGE) - firstPage]?.data?.records[row % PAGE];

  /** The record at a place, wherever that is; null beyond the last. */
  const fetched = async (row: number): Promise<RecordReply | null> => {
    const there = await queryClient.fetchQuery({ ...page(Math.floor(row / PAGE)), staleTime: FRESH });
    return there.records[row % PAGE] ?? null;
  };
  /** The records from one place to another; none, and a word about it, where they are too many at once. */
  const fetchedAll = async (first: number, last: number): Promise<RecordReply[]> => {
    if (last - first >= MOST_AT_ONCE) {
      setProblem(`These are more than ${MOST_AT_ONCE.toLocaleString("en")} records. Choose fewer at once.`);
      return [];
    }
    try {
      const there = await Promise.all(Array.from({ length: last - first + 1 }, (_, down) => fetched(first + down)));
      return there.flatMap((each) => each ?? []);
    } catch (error) {
      setProblem(reasonOf(error));
      return [];
    }
  };

  const put = (records: readonly RecordReply[]) => {
    const byNumber = new Map(records.map((each) => [each.number, each]));
    queryClient.setQueriesData<RecordsReply>(
      { queryKey: ["records", table.id] },
      (known) => known && { ...known, records: known.records.map((each) => byNumber.get(each.number) ?? each) },
    );
  };
  const again = () => queryClient.invalidateQueries({ queryKey: ["records", table.id] });
  const labelOf = (column: string) => table.columns.find((each) => each.id === column)?.label ?? "";

  const note = (edits: readonly Edit[], wrong: readonly WrongCellReply[]) => {
    const isBlock = edits.length > 1;
    setRefused((before) => {
      const after = new Map(before);
      for (const [place, { record, cells }] of edits.entries()) {
        if (record === null && isBlock) continue;
        const own = wrong.filter((each) => each.at === place);
        for (const [column, text] of Object.entries(cells)) {
          const name = cellName(record?.number ?? null, column);
          if (own.length > 0) after.set(name, { text, message: reasonFor(column, own, labelOf) });
          else after.delete(name);
        }
      }
      return after;
    });
    const lost = edits.flatMap(({ record, cells }, place) => {
      const own = wrong.filter((each) => each.at === place);
      const message = own.map((each) => withLabel(each, labelOf)).join(" ");
      return record === null && isBlock && message ? [{ cells: Object.values(cells), message }] : [];
    });
    setTurnedBack((before) => (isBlock ? lost : before));
  };

  const keep = async (typed: readonly TypedRow[]): Promise<boolean> => {
    let edits: Edit[] = typed.map(({ row, cells }) => ({ record: at(row) ?? null, cells }));
    if (typed.length > MOST_AT_ONCE) {
      setProblem(`These are more than ${MOST_AT_ONCE.toLocaleString("en")} lines. Bring them in from a file (More …).`);
      return false;
    }
    try {
      edits = await Promise.all(typed.map(async ({ row, cells }) => ({ record: await fetched(row), cells })));
      // A new record is kept once all is there that it must have: what was typed of it before goes along.
      if (edits.length === 1 && !edits[0]!.record)
        edits = [{ record: null, cells: { ...unkept(), ...edits[0]!.cells } }];
      const changes = edits.map(({ record, cells }) => ({
        number: record?.number ?? null,
        revision: record?.revision ?? null,
        cells,
      }));
      const outcome = await api.changeRecords(table.id, changes);
      put(outcome.records.flatMap((each) => each ?? []));
      note(edits, outcome.wrong);
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
      const message = reasonOf(error);
      note(
        edits,
        edits.map((_edit, place) => ({ at: place, column: "", message })),
      );
      setProblem(message);
      return false;
    }
  };
  const refusedNow = useRef(refused);
  const unkept = (): Record<string, string> =>
    Object.fromEntries(
      table.columns.flatMap(({ id }) => {
        const text = refusedNow.current.get(cellName(null, id))?.text;
        return text === undefined ? [] : [[id, text]];
      }),
    );
  refusedNow.current = refused;

  const inTurn = <Result>(act: () => Promise<Result>): Promise<Result> => {
    const next = queue.current.then(act);
    queue.current = next.catch(() => undefined);
    return next;
  };

  const undoLast = () =>
    inTurn(async () => {
      const last = undo.at(-1);
      if (!last) return;
      setUndo(undo.slice(0, -1));
      try {
        const outcome = await api.changeRecords(table.id, last);
        put(outcome.records.flatMap((each) => each ?? []));
        setProblem(outcome.wrong[0]?.message ?? "");
        await again();
      } catch (error) {
        setProblem(reasonOf(error));
      }
    });

  /** Removes records, and returns which are gone; of those that others name, `way` says what becomes of them. */
  const remove = (numbers: readonly number[], way: Way) =>
    inTurn(async (): Promise<Removal> => {
      try {
        const { removed } = await api.removeRecords(table.id, numbers, way);
        setProblem("");
        await again();
        return { removed, named: "" };
      } catch (error) {
        if (error instanceof ApiError && error.code === "named_elsewhere") return { removed: [], named: error.message };
        setProblem(reasonOf(error));
        return { removed: [], named: "" };
      }
    });
  /** Does something to records by number, and shows them as they are then. */
  const done = (act: () => Promise<unknown>) =>
    inTurn(async () => {
      try {
        await act();
        setProblem("");
        await again();
      } catch (error) {
        setProblem(reasonOf(error));
      }
    });

  return {
    count: count ?? 0,
    failure: found.find((each) => each.error)?.error ?? null,
    at,
    fetchedAll,
    /** Keeps what was typed; what is refused stays with the reason. Returns whether all of it is kept. */
    change: (typed: readonly TypedRow[]) => inTurn(() => keep(typed)),
    refused,
    forget: (name: string) => setRefused((before) => new Map([...before].filter(([each]) => each !== name))),
    turnedBack,
    forgetTurnedBack: () => setTurnedBack([]),
    problem,
    mayUndo: undo.length > 0,
    undoLast,
    remove,
    bringBack: (numbers: readonly number[]) => done(() => api.bringBackRecords(table.id, numbers)),
    /** Shows a record as it is by now. */
    show: (record: RecordReply) => put([record]),
    publish: (numbers: readonly number[], published: boolean) =>
      done(() => api.publishRecords(table.id, numbers, published)),
    offer: (number: number, offered: boolean) => done(() => api.offerRecords(table.id, [number], offered)),
  };
}

export type Way = "ask" | "empty" | "keep";

/** Which records are gone, or, where others name some, which do. */
interface Removal {
  removed: readonly number[];
  named: string;
}

const restored = (record: RecordReply, columns: readonly string[]): Record<string, string> =>
  Object.fromEntries(columns.map((column) => [column, record.typed[column] ?? ""]));

const withLabel = (wrong: WrongCellReply, labelOf: (column: string) => string): string =>
  [labelOf(wrong.column), wrong.message].filter(Boolean).join(": ");

/** Why a cell was not kept: what is wrong with it, else with another cell of its record. */
function reasonFor(column: string, wrong: readonly WrongCellReply[], labelOf: (column: string) => string): string {
  const own = wrong.find((each) => each.column === column) ?? wrong.find((each) => each.column === "");
  return own?.message ?? withLabel(wrong[0]!, labelOf);
}
