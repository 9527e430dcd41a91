// Where each box of the map stands: a band for each page, in it what its rules read and act on, confirmations and follow-ups last.
// The map grows downward and is never wider than its columns. No React.
import type { MapBox, RuleMap } from "./rule_map";

export interface Cell {
  /** 0 is the first row; rows are counted through all bands. */
  row: number;
  /** 0 is the column of the pages. */
  column: number;
}

export interface Grid {
  cells: Map<string, Cell>;
  rows: number;
  columns: number;
  /** The first and the last row of each page, by its id, of the early end, by its id, and of what follows, as ENDS. */
  bands: Map<string, { first: number; last: number }>;
}

/** What has the same key, by that key, in the order in which it came. */
export function groupedBy<Item, Key>(items: Iterable<Item>, key: (item: Item) => Key): Map<Key, Item[]> {
  const groups = new Map<Key, Item[]>();
  for (const item of items) groups.set(key(item), [...(groups.get(key(item)) ?? []), item]);
  return groups;
}

const ENDS = "ends";

const IN_SPINE: ReadonlySet<MapBox["what"]> = new Set(["page", "end"]);

/** The same map and the same number of columns beside that of the pages give the same grid. */
export function gridOf(map: RuleMap, columns: number): Grid {
  const bandOf = bandsOf(map);
  const depthOf = depthsOf(map, bandOf);
  const grid: Grid = { cells: new Map(), rows: 0, columns: columns + 1, bands: new Map() };
  const last = Math.max(0, ...bandOf.values());
  for (let band = 0; band <= last; band += 1) {
    const inside = map.boxes.filter((box) => bandOf.get(box.id) === band);
    addBand(grid, map, inside, depthOf);
  }
  return grid;
}

function addBand(grid: Grid, map: RuleMap, boxes: readonly MapBox[], depthOf: ReadonlyMap<string, number>): void {
  const first = grid.rows;
  const spine = boxes.filter((box) => IN_SPINE.has(box.what));
  const others = boxes.filter((box) => !IN_SPINE.has(box.what));
  // Confirmations have no page beside them, so they may stand in the column of the pages too.
  const left = spine.length > 0 ? 1 : 0;
  const room = grid.columns - left;
  spine.forEach((box, at) => grid.cells.set(box.id, { row: first + at, column: 0 }));
  const depths = [...new Set(others.map(({ id }) => depthOf.get(id)!))].sort((one, other) => one - other);
  let row = first;
  for (const depth of depths) {
    const layer = others.filter(({ id }) => depthOf.get(id) === depth);
    for (let from = 0; from < layer.length; from += room) {
      placeRow(grid, map, layer.slice(from, from + room), row, left);
      row += 1;
    }
  }
  grid.rows = Math.max(row, first + spine.length);
  if (grid.rows > first) grid.bands.set(spine[0]?.id ?? ENDS, { first, last: grid.rows - 1 });
}

/** Each box as near as may be below what it reads, no two in one cell. */
function placeRow(grid: Grid, map: RuleMap, boxes: readonly MapBox[], row: number, left: number): void {
  const wanted = new Map(boxes.map((box) => [box.id, wantedColumn(grid, map, box.id, row) ?? left]));
  const ordered = [...boxes].sort((one, other) => wanted.get(one.id)! - wanted.get(other.id)!);
  let next = left;
  ordered.forEach((box, at) => {
    const furthest = grid.columns - (ordered.length - at);
    const column = Math.min(furthest, Math.max(next, Math.round(wanted.get(box.id)!)));
    grid.cells.set(box.id, { row, column });
    next = column + 1;
  });
}

/** The mean column of what it reads just above; nothing where that is further up. */
function wantedColumn(grid: Grid, map: RuleMap, id: string, row: number): number | null {
  const above = map.arrows.flatMap((arrow) => {
    const cell = arrow.to === id && arrow.kind === "rule" ? grid.cells.get(arrow.from) : undefined;
    return cell && row - cell.row <= 2 ? [cell.column] : [];
  });
  return above.length > 0 ? above.reduce((sum, column) => sum + column, 0) / above.length : null;
}

/** The band of each box: a page and what stands on it, a figure with the last page that it reads, ends after all. */
function bandsOf(map: RuleMap): Map<string, number> {
  const pages = map.boxes.filter(({ what }) => what === "page").map(({ id }) => id);
  const hasEnd = map.boxes.some(({ what }) => what === "end");
  const bands = new Map<string, number>();
  for (const box of map.boxes) {
    if (box.what === "page" || box.what === "block") bands.set(box.id, Math.max(0, pages.indexOf(box.page)));
    else if (box.what === "end") bands.set(box.id, pages.length);
    else if (box.what === "confirmation" || box.what === "follow_up")
      bands.set(box.id, pages.length + (hasEnd ? 1 : 0));
  }
  for (const box of map.boxes) if (box.what === "figure") bands.set(box.id, bandOfFigure(map, box.id, bands));
  return bands;
}

/** The last band of what a figure reads, by way of other figures too; the first where it reads nothing on the map. */
function bandOfFigure(map: RuleMap, figure: string, bands: ReadonlyMap<string, number>): number {
  const figures = new Set(map.boxes.flatMap(({ id, what }) => (what === "figure" ? [id] : [])));
  const seen = new Set([figure]);
  let last = 0;
  // What is read is added while going through it.
  for (const reader of seen)
    for (const { from, to, kind } of map.arrows) {
      if (to !== reader || kind !== "rule") continue;
      if (figures.has(from)) seen.add(from);
      else last = Math.max(last, bands.get(from) ?? 0);
    }
  return last;
}

/** How many boxes of its own band stand between each box and the top of the band. */
function depthsOf(map: RuleMap, bandOf: ReadonlyMap<string, number>): Map<string, number> {
  const depths = new Map<string, number>();
  const depthOf = (id: string, on: ReadonlySet<string>): number => {
    const known = depths.get(id);
    if (known !== undefined) return known;
    const above = map.arrows.filter(
      ({ from, to, kind }) =>
        to === id && (kind === "rule" || kind === "holds") && bandOf.get(from) === bandOf.get(id) && !on.has(from),
    );
    const depth = Math.max(-1, ...above.map(({ from }) => depthOf(from, new Set([...on, id])))) + 1;
    depths.set(id, depth);
    return depth;
  };
  for (const box of map.boxes) depthOf(box.id, new Set([box.id]));
  return depths;
}
