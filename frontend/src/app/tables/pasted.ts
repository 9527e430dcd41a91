// A block of cells as spreadsheets copy it: lines of cells with tabs between, quoted where a cell has either in it.

/** The cells of a copied block, row by row. */
export function cellsOf(text: string): string[][] {
  const rows: string[][] = [[]];
  let cell = "";
  let quoted = false;
  const end = () => {
    rows.at(-1)!.push(cell);
    cell = "";
  };
  const signs = text.replace(/\r\n?/g, "\n").replace(/\n$/, "");
  for (let at = 0; at < signs.length; at += 1) {
    const sign = signs[at]!;
    if (quoted && sign === '"' && signs[at + 1] === '"') {
      cell += '"';
      at += 1;
    } else if (quoted && sign === '"') quoted = false;
    else if (quoted) cell += sign;
    else if (sign === '"' && cell === "") quoted = true;
    else if (sign === "\t") end();
    else if (sign === "\n") {
      end();
      rows.push([]);
    } else cell += sign;
  }
  end();
  return rows;
}

/** A block of cells as spreadsheets take it. */
export const asCopied = (rows: readonly (readonly string[])[]): string =>
  rows
    .map((row) => row.map((cell) => (/["\t\n]/.test(cell) ? `"${cell.replace(/"/g, '""')}"` : cell)).join("\t"))
    .join("\n");
