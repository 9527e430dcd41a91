import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { gridOf } from "./grid";
import type { MapArrow, MapBox, RuleMap } from "./rule_map";
import { BOX, laidOut, type Layout, type Point } from "./routes";

const box = (id: string, what: MapBox["what"], page = ""): MapBox => ({ id, what, number: "", title: id, page });
const arrow = (kind: MapArrow["kind"], from: string, to: string, label = ""): MapArrow => ({
  id: `${kind} ${from} ${to} ${label}`,
  from,
  to,
  kind,
  label,
});

/** Any map: pages in order, blocks on them, figures, two ends, and any rules among them, circles too. */
const anyMap = fc
  .record({
    blocks: fc.array(fc.integer({ min: 0, max: 4 }), { maxLength: 24 }),
    figures: fc.integer({ min: 0, max: 5 }),
    rules: fc.array(fc.tuple(fc.nat(), fc.nat(), fc.constantFrom("", "is more than 12", "is any of these")), {
      maxLength: 40,
    }),
    leads: fc.array(fc.tuple(fc.nat(3), fc.nat(4)), { maxLength: 3 }),
  })
  .map(({ blocks, figures, rules, leads }): RuleMap => {
    const pages = [0, 1, 2, 3, 4].map((at) => box(`p${at}`, "page", `p${at}`));
    const inside = blocks.map((page, at) => box(`b${at}`, "block", `p${page}`));
    const worked = Array.from({ length: figures }, (_each, at) => box(`f${at}`, "figure"));
    const ends = [box("c1", "confirmation"), box("c2", "confirmation")];
    const sources = [...inside, ...worked];
    const targets = [...inside, ...worked, ...ends, ...pages.slice(1)];
    const ruleArrows = sources.length
      ? rules.map(([from, to, label]) =>
          arrow("rule", sources[from % sources.length]!.id, targets[to % targets.length]!.id, label),
        )
      : [];
    const arrows = [
      ...pages.slice(1).map(({ id }, at) => arrow("following", `p${at}`, id)),
      ...ends.map(({ id }) => arrow("following", "p4", id)),
      ...leads.filter(([from, to]) => from < to).map(([from, to]) => arrow("leads", `p${from}`, `p${to}`, "is blank")),
      ...ruleArrows.filter(({ from, to }) => from !== to),
    ];
    const once = [...new Map(arrows.map((each) => [each.id, each])).values()];
    return { boxes: [...pages, ...inside, ...worked, ...ends], arrows: once };
  });

// Each run is a map of up to forty boxes, compared pair by pair.
const RUNS = { numRuns: 60 };

const anyLayout = fc
  .tuple(anyMap, fc.integer({ min: 2, max: 5 }))
  .map(([map, columns]) => ({ map, columns, layout: laidOut(map, gridOf(map, columns)) }));

const linesOf = (points: readonly Point[]): [Point, Point][] =>
  points.slice(1).map((point, at): [Point, Point] => [points[at]!, point]);

/** Whether a line runs through the inside of a box. */
const crosses = ([from, to]: [Point, Point], corner: Point): boolean =>
  Math.max(from.x, to.x) > corner.x + 1 &&
  Math.min(from.x, to.x) < corner.x + BOX.width - 1 &&
  Math.max(from.y, to.y) > corner.y + 1 &&
  Math.min(from.y, to.y) < corner.y + BOX.height - 1;

/** How far two lines in the same direction and place run on each other. */
const shared = ([a, b]: [Point, Point], [c, d]: [Point, Point]): number => {
  const along = (across: "x" | "y", by: "x" | "y"): number =>
    a[across] === b[across] && c[across] === d[across] && a[across] === c[across]
      ? Math.min(Math.max(a[by], b[by]), Math.max(c[by], d[by])) -
        Math.max(Math.min(a[by], b[by]), Math.min(c[by], d[by]))
      : 0;
  return Math.max(along("x", "y"), along("y", "x"));
};

const top = (layout: Layout, id: string): number => layout.places.get(id)!.y;

describe("any map, in any number of columns", () => {
  it("puts every box somewhere, none on another, none outside its columns", () => {
    fc.assert(
      fc.property(anyLayout, ({ map, columns, layout }) => {
        expect([...layout.places.keys()].sort()).toEqual(map.boxes.map(({ id }) => id).sort());
        const corners = [...layout.places.values()];
        for (const [at, one] of corners.entries())
          for (const other of corners.slice(at + 1))
            expect(Math.abs(one.x - other.x) < BOX.width && Math.abs(one.y - other.y) < BOX.height).toBe(false);
        expect(new Set(corners.map(({ x }) => x)).size).toBeLessThanOrEqual(columns + 1);
      }),
      RUNS,
    );
  });

  it("keeps the pages in order, and what stands on each in its band", () => {
    fc.assert(
      fc.property(anyLayout, ({ map, layout }) => {
        for (const { id, page, what } of map.boxes) {
          if (what === "confirmation") expect(top(layout, id)).toBeGreaterThan(top(layout, "p4"));
          if (what !== "block") continue;
          const band = layout.bands.get(page)!;
          expect(top(layout, id)).toBeGreaterThanOrEqual(band.y);
          expect(top(layout, id) + BOX.height).toBeLessThanOrEqual(band.y + band.height);
        }
        const tops = [0, 1, 2, 3, 4].map((at) => top(layout, `p${at}`));
        expect([...tops].sort((one, other) => one - other)).toEqual(tops);
      }),
      RUNS,
    );
  });

  it("draws every arrow from its box to its box by right angles, through no box", () => {
    fc.assert(
      fc.property(anyLayout, ({ map, layout }) => {
        for (const { id, from, to } of map.arrows) {
          const { points } = layout.routes.get(id)!;
          const [start, end] = [points[0]!, points.at(-1)!];
          const [source, target] = [layout.places.get(from)!, layout.places.get(to)!];
          expect(start.y).toBe(source.y + BOX.height);
          expect(end.y).toBe(target.y);
          for (const [{ x }, corner] of [[start, source] as const, [end, target] as const])
            expect(x >= corner.x && x <= corner.x + BOX.width).toBe(true);
          for (const line of linesOf(points)) {
            expect(line[0].x === line[1].x || line[0].y === line[1].y).toBe(true);
            for (const corner of layout.places.values()) expect(crosses(line, corner)).toBe(false);
          }
        }
      }),
      RUNS,
    );
  });

  it("runs no two boxes' arrows on one another, so that each can be followed", () => {
    fc.assert(
      fc.property(anyLayout, ({ map, layout }) => {
        const lines = map.arrows.flatMap(({ id, from, kind }) =>
          // The order of the pages is a line of its own beside what else leaves a page.
          linesOf(layout.routes.get(id)!.points).map((line) => ({
            of: kind === "following" ? `${from} on` : from,
            line,
          })),
        );
        for (const [at, one] of lines.entries())
          for (const other of lines.slice(at + 1))
            if (one.of !== other.of && one.of !== `${other.of} on` && other.of !== `${one.of} on`)
              expect(shared(one.line, other.line)).toBeLessThanOrEqual(0);
      }),
      RUNS,
    );
  });

  it("says an arrow's words just above the box that it leads to, no two on one another", () => {
    fc.assert(
      fc.property(anyLayout, ({ map, layout }) => {
        const labels = map.arrows.flatMap(({ id, to, label }) =>
          label ? [{ to, ...layout.routes.get(id)!.label }] : [],
        );
        for (const { to, x, y, width } of labels) {
          const target = layout.places.get(to)!;
          expect(y).toBeLessThan(target.y);
          expect(x - width / 2).toBeGreaterThanOrEqual(target.x - 12);
          expect(x + width / 2).toBeLessThanOrEqual(target.x + BOX.width + 12);
          for (const corner of layout.places.values())
            expect(
              crosses(
                [
                  { x: x - width / 2, y },
                  { x: x + width / 2, y },
                ],
                corner,
              ),
            ).toBe(false);
        }
        for (const [at, one] of labels.entries())
          for (const other of labels.slice(at + 1))
            expect(Math.abs(one.y - other.y) >= 16 || Math.abs(one.x - other.x) >= (one.width + other.width) / 2).toBe(
              true,
            );
      }),
      RUNS,
    );
  });
});

describe("a map as people read it", () => {
  const map: RuleMap = {
    boxes: [
      box("p1", "page", "p1"),
      box("size", "block", "p1"),
      box("school", "block", "p1"),
      box("p2", "page", "p2"),
      box("shows", "block", "p2"),
      box("points", "figure"),
      box("price", "figure"),
      box("end", "end"),
      box("festival", "confirmation"),
    ],
    arrows: [
      arrow("following", "p1", "p2"),
      arrow("following", "p2", "end"),
      arrow("following", "end", "festival"),
      arrow("rule", "size", "school", "is more than 12"),
      arrow("rule", "size", "points"),
      arrow("rule", "shows", "points"),
      arrow("rule", "points", "price"),
      arrow("rule", "price", "festival", "is more than 500"),
      arrow("leads", "p1", "end", "size is blank"),
    ],
  };
  const { cells, bands } = gridOf(map, 3);

  it("has what is read above what reads it, figures with the last page that they read", () => {
    expect([...cells].map(([id, { row, column }]) => `${id} ${row},${column}`).sort()).toEqual(
      [
        "p1 0,0",
        "size 0,1",
        "school 1,1",
        "p2 2,0",
        "shows 2,1",
        "points 3,1",
        "price 4,1",
        "end 5,0",
        "festival 6,1",
      ].sort(),
    );
    expect([...bands]).toEqual([
      ["p1", { first: 0, last: 1 }],
      ["p2", { first: 2, last: 4 }],
      ["end", { first: 5, last: 5 }],
      ["ends", { first: 6, last: 6 }],
    ]);
  });

  it("leads on from a page left of the pages", () => {
    const layout = laidOut(map, gridOf(map, 3));
    const leads = layout.routes.get("leads p1 end size is blank")!.points;
    expect(Math.min(...leads.map(({ x }) => x))).toBeLessThan(layout.places.get("p1")!.x);
  });

  it("gives arrows of boxes that are not on it no route", () => {
    const stray = { ...map, arrows: [arrow("rule", "gone", "school")] };
    expect(laidOut(stray, gridOf(stray, 2)).routes.size).toBe(0);
  });
});
