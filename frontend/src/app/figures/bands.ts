// A figure's bands as a line of numbers: where each begins, and what lies between and behind them.
import type { Figure } from "../../model/parts";

export type Bands = Extract<Figure, { kind: "bands" }>;

export interface Piece {
  from: number | null;
  to: number | null;
  words: string;
  /** Which band it is, in the order of their starts; null for a gap. */
  band: number | null;
}

/** The line in pieces from left to right: bands by their start, and the gaps before and behind them. */
export function piecesOf({ bands, end }: Pick<Bands, "bands" | "end">): { pieces: Piece[]; overlaps: string[] } {
  const sorted = [...bands].sort((one, other) =>
    one.start === null ? -1 : other.start === null ? 1 : Number(one.start) - Number(other.start),
  );
  const starts = sorted.map(({ start }) => (start === null ? null : Number(start)));
  const overlaps = sorted.flatMap(({ start }, at) =>
    at > 0 && starts[at] === starts[at - 1]
      ? [start === null ? "Two bands hold for everything below the next." : `Two bands begin at ${start}.`]
      : [],
  );
  const last = end === null ? null : Number(end);
  const pieces: Piece[] = sorted.map((band, at) => ({
    from: starts[at]!,
    to: at + 1 < sorted.length ? starts[at + 1]! : last,
    words: band.label || band.value,
    band: at,
  }));
  if (pieces.length > 0 && pieces[0]!.from !== null)
    pieces.unshift({ from: null, to: pieces[0]!.from, words: "blank", band: null });
  if (last !== null) pieces.push({ from: last, to: null, words: "blank", band: null });
  return { pieces, overlaps };
}

/**
 * Where a number lies on the line, from 0 to 1, when all its pieces are drawn equally wide.
 *
 * A piece that is open at one end narrows towards it: a number twice as far out is drawn nearer to the edge, never on it.
 */
export function placeOn(pieces: readonly Piece[], number: number): number | null {
  const at = pieces.findIndex(({ from, to }) => (from === null || from <= number) && (to === null || number < to));
  if (at < 0) return null;
  const { from, to } = pieces[at]!;
  const beside = widthOf(pieces[at + 1]) ?? widthOf(pieces[at - 1]) ?? (Math.abs(from ?? to ?? 0) || 1);
  const within =
    from !== null && to !== null
      ? (number - from) / (to - from)
      : from !== null
        ? (number - from) / (number - from + beside)
        : to !== null
          ? beside / (to - number + beside)
          : 0.5;
  return (at + within) / pieces.length;
}

const widthOf = (piece: Piece | undefined): number | null =>
  piece === undefined || piece.from === null || piece.to === null ? null : piece.to - piece.from;

/** A gap in words. */
export const outside = (piece: Piece): string => (piece.from === null ? `below ${piece.to}` : `from ${piece.from} on`);

/** A piece in words, for whoever hears the line. */
export const inWords = (piece: Piece): string =>
  `${piece.from === null ? "below the next" : `from ${piece.from}`}: ${piece.words}`;
