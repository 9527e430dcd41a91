// Lines of right angles as an SVG path with rounded corners.
import type { Point } from "./routes";

const RADIUS = 6;

/** An SVG path through all points, which lie level or upright to the next. */
export function rounded(points: readonly Point[]): string {
  const [first, ...rest] = points;
  if (!first) return "";
  const pieces = [`M ${first.x} ${first.y}`];
  rest.forEach((point, at) => {
    const next = rest[at + 1];
    const before = points[at]!;
    if (!next) return pieces.push(`L ${point.x} ${point.y}`);
    const near = towards(point, before);
    const after = towards(point, next);
    return pieces.push(`L ${near.x} ${near.y} Q ${point.x} ${point.y} ${after.x} ${after.y}`);
  });
  return pieces.join(" ");
}

/** A point on the way to the next, as far as the corner may be round: never past the middle. */
function towards(from: Point, to: Point): Point {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  const share = length === 0 ? 0 : Math.min(RADIUS, length / 2) / length;
  return { x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share };
}
