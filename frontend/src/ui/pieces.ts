// A long list in pieces, so that the browser lays out and draws only those on the screen (content-visibility).

export interface Piece<Row> {
  id: string;
  rows: Row[];
}

/**
 * The rows in pieces of about a dozen. Where one begins is told by the rows themselves, so that a row that is added or
 * moved changes the piece it stands in and no other.
 */
export function inPieces<Row extends { id: string }>(
  rows: readonly Row[],
  begins: (row: Row) => boolean | null,
): Piece<Row>[] {
  const pieces: Piece<Row>[] = [];
  for (const row of rows) {
    const last = pieces.at(-1);
    if (!last || (begins(row) ?? isOneInTwelve(row.id))) pieces.push({ id: row.id, rows: [row] });
    else last.rows.push(row);
  }
  return pieces;
}

const isOneInTwelve = (id: string): boolean => {
  let sum = 0;
  for (let at = 0; at < id.length; at++) sum = (sum * 31 + id.charCodeAt(at)) % 9973;
  return sum % 12 === 0;
};
