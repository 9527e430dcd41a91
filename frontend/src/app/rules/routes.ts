// How the arrows of the map run: out of a box's bottom, along the channel between two rows, down a gutter between two
// columns where they go further, along the channel above their target and into its top. No React.
import { type Cell, type Grid, groupedBy } from "./grid";
import type { MapArrow, RuleMap } from "./rule_map";

export const BOX = { width: 152, height: 46 };
const TRACK = 7;
const LABEL = { height: 17, spill: 10 };
const GUTTER = 24;
const CHANNEL = { above: 10, below: 16 };

export interface Point {
  x: number;
  y: number;
}

export interface Route {
  points: Point[];
  /** Where its words stand: the middle of their line, and how wide they may be. */
  label: Point & { width: number };
}

export interface Band extends Point {
  width: number;
  height: number;
}

export interface Layout {
  places: Map<string, Point>;
  routes: Map<string, Route>;
  /** What each band of the grid takes up with its words. */
  bands: Map<string, Band>;
  width: number;
}

/** One arrow's way through the grid, before anything has a size. */
interface Way {
  arrow: MapArrow;
  from: Cell;
  to: Cell;
  /** The channel that it leaves into and the one that it comes from; channel n is above row n. */
  leaves: number;
  enters: number;
  /** Straight down the column of the pages, whatever stands beside. */
  straight: boolean;
}

const middleOf = (x: number): number => x + BOX.width / 2;
const keyOf = (place: number | string, source: string): string => `${place} ${source}`;

/** Sizes and lines for a grid; arrows between boxes that are not on it have no route. */
export function laidOut(map: RuleMap, grid: Grid): Layout {
  const ways = waysOf(map, grid);
  const trunks = trunksOf(ways, grid);
  const lefts = columnsOf(trunks, grid);
  const xOf = (cell: Cell): number => lefts[cell.column]!;
  const entries = entriesOf(ways, xOf);
  const trunkX = (way: Way): number | undefined => {
    const trunk = trunks.get(way.arrow.from);
    return needsTrunk(way) && trunk ? lefts[trunk.gutter]! - GUTTER / 2 - trunk.track * TRACK : undefined;
  };
  const tracks = tracksOf(ways, xOf, entries, trunkX);
  const tops = rowsOf(ways, grid, tracks);
  const places = new Map([...grid.cells].map(([id, cell]) => [id, { x: xOf(cell), y: tops.rows[cell.row]! }]));
  const routes = new Map<string, Route>();
  const told = new Map<string, number>();
  for (const way of ways) routes.set(way.arrow.id, routeOf(way));
  const width = lefts[grid.columns - 1]! + BOX.width + GUTTER;
  const bands = new Map<string, Band>();
  for (const [id, { first, last }] of grid.bands) {
    const [x, y] = [lefts[0]! - GUTTER / 2, tops.words[first]!];
    bands.set(id, { x, y, width: width - x, height: tops.rows[last]! + BOX.height + CHANNEL.above - y });
  }
  return { places, routes, bands, width };

  function routeOf(way: Way): Route {
    const { arrow, from, to } = way;
    const start = { x: way.straight ? middleOf(xOf(from)) : exitX(way, xOf), y: tops.rows[from.row]! + BOX.height };
    const end = { x: entries.get(keyOf(arrow.to, arrow.from))!, y: tops.rows[to.row]! };
    const along = (channel: number) =>
      tops.channels[channel]! + CHANNEL.above + (tracks.get(keyOf(channel, arrow.from)) ?? 0) * TRACK;
    const trunk = trunkX(way);
    const between = way.straight
      ? []
      : trunk === undefined
        ? [start.x, end.x].map((x) => ({ x, y: along(way.enters) }))
        : [
            { x: start.x, y: along(way.leaves) },
            { x: trunk, y: along(way.leaves) },
            { x: trunk, y: along(way.enters) },
            { x: end.x, y: along(way.enters) },
          ];
    return { points: withoutRepeats([start, ...between, end]), label: labelAt(way, end) };
  }

  function labelAt({ arrow, to }: Way, end: Point): Route["label"] {
    const above = told.get(arrow.to) ?? 0;
    if (arrow.label) told.set(arrow.to, above + 1);
    const [left, right] = [xOf(to) - LABEL.spill, xOf(to) + BOX.width + LABEL.spill];
    const half = Math.min(BOX.width / 2 + LABEL.spill, (arrow.label.length * 6.4 + 10) / 2);
    const x = Math.min(right - half, Math.max(left + half, end.x));
    return { x, y: end.y - CHANNEL.below - LABEL.height * (above + 0.5) + 2, width: 2 * half };
  }
}

function waysOf(map: RuleMap, grid: Grid): Way[] {
  return map.arrows.flatMap((arrow) => {
    const [from, to] = [grid.cells.get(arrow.from), grid.cells.get(arrow.to)];
    if (!from || !to) return [];
    const straight = arrow.kind === "following" && from.column === 0 && to.column === 0 && to.row > from.row;
    return [{ arrow, from, to, leaves: from.row + 1, enters: to.row, straight }];
  });
}

const needsTrunk = (way: Way): boolean => !way.straight && way.leaves !== way.enters;

interface Trunk {
  gutter: number;
  track: number;
}

/** One line down a gutter for each box that is read further away; gutter n is left of column n. */
function trunksOf(ways: readonly Way[], grid: Grid): Map<string, Trunk> {
  const bySource = groupedBy(ways.filter(needsTrunk), (way) => way.arrow.from);
  const spans = [...bySource].map(([source, all]) => {
    const channels = all.flatMap((way) => [way.leaves, way.enters]);
    const column = all[0]!.from.column;
    const targets = all.reduce((sum, way) => sum + way.to.column, 0) / all.length;
    const right = Math.min(column + 1, grid.columns - 1);
    // What leads on from a page runs left of the pages, where nothing else does.
    const gutter = all.some(({ arrow }) => arrow.kind === "leads") ? 0 : targets > column ? right : column;
    return { source, gutter, start: Math.min(...channels), end: Math.max(...channels) };
  });
  const found = new Map<string, Trunk>();
  for (const [gutter, inside] of groupedBy(spans, (span) => span.gutter))
    for (const [source, track] of packed(inside)) found.set(source, { gutter, track });
  return found;
}

/** The left edge of each column, with room in the gutters for their trunks. */
function columnsOf(trunks: ReadonlyMap<string, Trunk>, grid: Grid): number[] {
  const lefts: number[] = [];
  let x = 0;
  for (let column = 0; column < grid.columns; column += 1) {
    const tracks = [...trunks.values()].filter(({ gutter }) => gutter === column).map(({ track }) => track + 1);
    x += GUTTER + Math.max(0, ...tracks) * TRACK;
    lefts.push(x);
    x += BOX.width;
  }
  return lefts;
}

/** Which part of a box its arrows leave at: the middle; of a page beside the line that leads straight to the next. */
const exitShare = (column: number): number => (column === 0 ? 0.25 : 0.5);

const exitX = ({ from }: Way, xOf: (cell: Cell) => number): number => xOf(from) + exitShare(from.column) * BOX.width;

/** Where each source enters each box, by both: side by side, and off where another line may come down from above. */
function entriesOf(ways: readonly Way[], xOf: (cell: Cell) => number): Map<string, number> {
  const entries = new Map<string, number>();
  for (const [target, all] of groupedBy(ways, (way) => way.arrow.to)) {
    const bent = all.filter((way) => !way.straight);
    const sources = [...new Map(bent.map((way) => [way.arrow.from, way])).values()].sort(
      (one, other) => xOf(one.from) - xOf(other.from),
    );
    const left = xOf(all[0]!.to);
    sources.forEach((way, at) => {
      const isAbove = way.from.column === way.to.column && way.leaves === way.enters;
      const share = (at + 1) / (sources.length + 1);
      const off = share === 0.5 || share === exitShare(way.to.column) ? 10 : 0;
      const x = isAbove && sources.length === 1 ? middleOf(left) : left + share * BOX.width - off;
      entries.set(keyOf(target, way.arrow.from), x);
    });
    for (const way of all) if (way.straight) entries.set(keyOf(target, way.arrow.from), middleOf(left));
  }
  return entries;
}

/** Which track each source takes in each channel that it runs along. */
function tracksOf(
  ways: readonly Way[],
  xOf: (cell: Cell) => number,
  entries: ReadonlyMap<string, number>,
  trunkX: (way: Way) => number | undefined,
): Map<string, number> {
  const spans = new Map<number, Map<string, { source: string; start: number; end: number }>>();
  const cover = (channel: number, source: string, ...xs: number[]) => {
    const inside = spans.get(channel) ?? new Map<string, { source: string; start: number; end: number }>();
    const span = inside.get(source);
    inside.set(source, {
      source,
      start: Math.min(span?.start ?? Infinity, ...xs),
      end: Math.max(span?.end ?? -Infinity, ...xs),
    });
    spans.set(channel, inside);
  };
  for (const way of ways.filter(({ straight }) => !straight)) {
    const source = way.arrow.from;
    const [exit, entry] = [exitX(way, xOf), entries.get(keyOf(way.arrow.to, source))!];
    const trunk = trunkX(way);
    cover(way.leaves, source, exit, trunk ?? entry);
    cover(way.enters, source, entry, trunk ?? exit);
  }
  const found = new Map<string, number>();
  for (const [channel, inside] of spans)
    for (const [source, track] of packed(
      [...inside.values()].filter(({ start, end }) => end > start),
      TRACK,
    ))
      found.set(keyOf(channel, source), track);
  return found;
}

/** The top of each channel, of the words below its tracks, and of the row below them. */
function rowsOf(ways: readonly Way[], grid: Grid, tracks: ReadonlyMap<string, number>) {
  const trackCount = new Map<number, number>();
  for (const [key, track] of tracks) {
    const channel = Number(key.split(" ", 1)[0]);
    trackCount.set(channel, Math.max(trackCount.get(channel) ?? 0, track + 1));
  }
  const labels = new Map<string, number>();
  for (const { arrow } of ways) if (arrow.label) labels.set(arrow.to, (labels.get(arrow.to) ?? 0) + 1);
  const channels: number[] = [];
  const words: number[] = [];
  const rows: number[] = [];
  let y = 0;
  for (let row = 0; row <= grid.rows; row += 1) {
    channels.push(y);
    const told = [...grid.cells].filter(([, cell]) => cell.row === row).map(([id]) => labels.get(id) ?? 0);
    y += CHANNEL.above + (trackCount.get(row) ?? 0) * TRACK;
    words.push(y);
    y += Math.max(0, ...told) * LABEL.height + CHANNEL.below;
    rows.push(y);
    if (row < grid.rows) y += BOX.height;
  }
  return { channels, words, rows };
}

/** The least track for each span on which it meets no other that is nearer than `apart`. */
function packed(spans: readonly { source: string; start: number; end: number }[], apart = 0): Map<string, number> {
  const ends: number[] = [];
  const found = new Map<string, number>();
  for (const { source, start, end } of [...spans].sort((one, other) => one.start - other.start)) {
    const free = ends.findIndex((before) => before + apart < start);
    const track = free < 0 ? ends.length : free;
    ends[track] = end;
    found.set(source, track);
  }
  return found;
}

const withoutRepeats = (points: readonly Point[]): Point[] =>
  points.filter((point, at) => at === 0 || point.x !== points[at - 1]!.x || point.y !== points[at - 1]!.y);
