// What is looked at: the view, its filter, order and columns. All of it is in the address, so that it can be sent.
import { useCallback, useMemo } from "react";
import { useSearchParams } from "react-router";
import type { Condition, ViewContent } from "../../api/generated/wire";
import { askedIn, whereOf } from "../filter/asked";

export type Shown = ViewContent["shown"];

export interface Look {
  shown: Shown;
  match: "all" | "any";
  conditions: readonly Condition[];
  words: string;
  /** Names of columns, "-" before one that goes down. */
  sorts: readonly string[];
  /** Columns in their order; null for the usual ones. The first `fixed` stay in sight. */
  columns: readonly string[] | null;
  fixed: number;
  /** Of columns that were resized, in pixels. */
  widths: Readonly<Record<string, number>>;
  by: string;
  cards: readonly string[] | null;
  /** Pairs of a column and what it is compared by. */
  charts: readonly (readonly [string, string])[] | null;
  /** By what the funnel tells visits apart, of windows of which width, and of which way of presenting. */
  apart: ViewContent["apart"];
  window: ViewContent["window"];
  presentation: ViewContent["presentation"];
  /** The saved view that it began with. */
  view: string;
}

const SHOWN: readonly Shown[] = ["table", "charts", "board", "funnel"];
const APART: readonly Look["apart"][] = ["width", "edition", "way", "page", "link"];
const PRESENTED: readonly Look["presentation"][] = ["", "whole", "paged", "single", "chat"];
const WINDOWS: readonly Look["window"][] = ["", "narrow", "medium", "wide"];
const list = (text: string | null): string[] | null => (text === null ? null : text.split(",").filter(Boolean));

/** The look that an address holds; what can't be read in it is left out, and the server tells what it refuses. */
export function lookOf(query: URLSearchParams): Look {
  const link = query.get("link");
  const filter = askedIn(query);
  return {
    shown: oneOf(SHOWN, query.get("shown")),
    ...filter,
    conditions: [
      ...filter.conditions,
      // Links from the list of sealed links.
      ...(link ? [{ column: "response.sealed_link", how: "any_of" as const, values: [link] }] : []),
    ],
    sorts: list(query.get("sort")) ?? [],
    columns: list(query.get("columns")),
    fixed: Math.max(0, Number(query.get("fixed") ?? "0") || 0),
    widths: widthsOf(query.get("widths")),
    by: query.get("by") ?? "response.status",
    cards: list(query.get("cards")),
    charts: query.get("charts") === null ? null : pairsOf(query.get("charts")),
    apart: oneOf(APART, query.get("apart")),
    window: oneOf(WINDOWS, query.get("window")),
    presentation: oneOf(PRESENTED, query.get("presentation")),
    view: query.get("view") ?? "",
  };
}

/** What is written, where it is one of these; else the first of them. */
const oneOf = <One extends string>(ones: readonly One[], written: string | null): One =>
  ones.find((each) => each === written) ?? ones[0]!;

/** "liked*talk,guests*" as pairs. */
const pairsOf = (text: string | null): [string, string][] =>
  (list(text) ?? []).map((pair) => [pair.split("*")[0]!, pair.split("*")[1] ?? ""]);

const asPairs = (pairs: readonly (readonly [string, string | number])[]): string =>
  pairs.map((pair) => pair.join("*")).join(",");

const LEAST_WIDTH = 40;

const widthsOf = (text: string | null): Record<string, number> =>
  Object.fromEntries(
    pairsOf(text)
      .map(([id, width]): [string, number] => [id, Number(width)])
      .filter(([, width]) => width >= LEAST_WIDTH),
  );

/** A look as an address has it; what is usual is left out. */
export function queryOf(look: Look): URLSearchParams {
  const query = new URLSearchParams();
  const add = (name: string, value: string | null, usual: string | null) => {
    if (value !== null && value !== usual) query.set(name, value);
  };
  add("view", look.view, "");
  add("shown", look.shown, "table");
  if (look.conditions.length > 0) query.set("where", whereOf(look.conditions));
  add("match", look.match, "all");
  add("words", look.words, "");
  add("sort", look.sorts.join(","), "");
  add("columns", look.columns && look.columns.join(","), null);
  add("fixed", String(look.fixed), "0");
  add("by", look.by, "response.status");
  add("cards", look.cards && look.cards.join(","), null);
  add("widths", asPairs(Object.entries(look.widths)), "");
  add("charts", look.charts && asPairs(look.charts), null);
  add("apart", look.apart, "width");
  add("window", look.window, "");
  add("presentation", look.presentation, "");
  return query;
}

export function useLook(): [Look, (changes: Partial<Look>) => void] {
  const [query, setQuery] = useSearchParams();
  const look = useMemo(() => lookOf(query), [query]);
  const change = useCallback(
    // A column that is dragged wider passes many widths: none of them is a step to go back to.
    (changes: Partial<Look>) =>
      setQuery((now) => queryOf({ ...lookOf(now), ...changes }), { replace: changes.widths !== undefined }),
    [setQuery],
  );
  return [look, change];
}

/** The same as a saved view keeps it. */
export const contentOf = (look: Look): ViewContent => ({
  shown: look.shown,
  filter: { match: look.match, conditions: [...look.conditions], words: look.words },
  columns: look.columns ? [...look.columns] : [],
  widths: look.widths,
  fixed: look.fixed,
  sorts: [...look.sorts] as ViewContent["sorts"],
  board_by: look.by,
  cards: [...(look.cards ?? [])] as ViewContent["cards"],
  charts: look.charts ? look.charts.map(([column, by]) => [column, by]) : [],
  apart: look.apart,
  window: look.window,
  presentation: look.presentation,
});

export const lookOfContent = (content: ViewContent, view: string): Look => ({
  shown: content.shown,
  match: content.filter.match ?? "all",
  conditions: content.filter.conditions ?? [],
  words: content.filter.words ?? "",
  sorts: content.sorts,
  columns: content.columns.length > 0 ? content.columns : null,
  fixed: content.fixed,
  widths: content.widths,
  by: content.board_by || "response.status",
  cards: content.cards.length > 0 ? content.cards : null,
  charts: content.charts.length > 0 ? (content.charts as [string, string][]) : null,
  apart: content.apart,
  window: content.window,
  presentation: content.presentation,
  view,
});
