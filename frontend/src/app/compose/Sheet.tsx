// The sheet: the pages as visitors will see them, each block with its number, and its notes beside it.
import Box from "@mui/material/Box";
import { memo, type MouseEvent, useEffect, useMemo, useState } from "react";
import { brandClasses } from "../../form/brand";
import { inPieces } from "../../ui/pieces";
import { useStable } from "../../ui/useStable";
import { isTried, useBench } from "../workbench/bench";
import { useOpenPart } from "../workbench/useOpenPart";
import { useOutcome } from "../workbench/useOutcome";
import type { AddAt } from "./AddBlock";
import { type AroundRows, isSameRow, RowOnSheet } from "./RowOnSheet";
import { SheetTitle } from "./SheetTitle";
import { type SheetRow, sheetRows } from "./sheet_rows";
import { StillForm } from "./StillForm";
import type { ComposeActions } from "./actions";

interface Props {
  actions: ComposeActions;
  onAdd: (at: AddAt) => void;
}

const NO_ANSWERS = {};
const AT_FIRST = 40;
const MORE_AT_ONCE = 30;
const PAUSE_MS = 30;

export function Sheet({ actions, onAdd }: Props) {
  const bench = useBench();
  const { form, parts, select, selected, part, setting, analysis, mayEdit, trying } = bench;
  const outcome = useOutcome(isTried(trying));
  const rows = useMemo(() => sheetRows(form, parts), [form, parts]);
  const wanted = part ? rows.findIndex((row) => row.id === part || isInLine(row, part)) : -1;
  const drawn = useDrawnRows(rows.length, wanted);
  const pieces = useMemo(() => inPieces(rows.slice(0, drawn), beginsPiece), [rows, drawn]);
  const chosen = new Set(selected);
  const selectPart = useStable((id: string, event: MouseEvent) =>
    select(id, null, event.shiftKey ? "through" : event.ctrlKey || event.metaKey ? "also" : "only"),
  );
  const openLabel = useStable((id: string) => select(id, "label"));
  const openNote = useStable((id: string, path: string) => select(id, path));
  const goTo = useStable(useOpenPart());
  const insert = useStable((anchor: HTMLElement, row: Extract<SheetRow, { is: "insert" }>) =>
    onAdd({ anchor, place: row.target }),
  );
  return (
    <Box
      aria-label="Sheet and margin"
      role="region"
      sx={{ contain: "strict", overflow: "auto", p: 2.5, pb: 8 }}
      onClick={(event) => event.target === event.currentTarget && select(null)}
    >
      <StillForm className="sh-form">
        <div aria-hidden="true" className="sh-paper" />
        <div className="sh-row">
          <Box className={brandClasses(form.brand)} sx={{ m: "1px", borderRadius: "6px 6px 0 0 !important" }}>
            <SheetTitle />
          </Box>
        </div>
        {pieces.map((piece) => (
          <PieceOnSheet
            key={piece.id}
            rows={piece.rows}
            parts={parts}
            state={outcome?.state ?? analysis.state}
            answers={outcome ? trying.answers : NO_ANSWERS}
            hidden={outcome ? "hidden with these answers" : "hidden at first"}
            notes={analysis.notes}
            links={analysis.links}
            chosen={chosen}
            part={part}
            setting={setting}
            actions={actions}
            insert={insert}
            brand={form.brand}
            select={selectPart}
            openLabel={openLabel}
            openNote={openNote}
            goTo={goTo}
            mayEdit={mayEdit}
          />
        ))}
      </StillForm>
    </Box>
  );
}

/** Rows that are drawn again together or, mostly, not at all. */
const PieceOnSheet = memo(
  function PieceOnSheet({ rows, ...around }: AroundRows & { rows: readonly SheetRow[] }) {
    return (
      <div className="sh-piece" style={{ containIntrinsicHeight: `auto ${rows.length * 55}px` }}>
        {rows.map((row) => (
          <RowOnSheet key={`${row.is} ${row.id}`} row={row} {...around} />
        ))}
      </div>
    );
  },
  (before, after) =>
    before.rows.length === after.rows.length &&
    after.rows.every((row, at) => isSameRow(before, before.rows[at]!, after, row)),
);

// Pages begin anew; a place to insert stays with the block before it.
const beginsPiece = (row: SheetRow): boolean | null => (row.is === "page" ? true : row.is === "insert" ? false : null);

const isInLine = (row: SheetRow, id: string): boolean =>
  row.is === "line" && row.entries.some((entry) => entry.id === id);

/** How many rows are drawn: the first at once, the rest a batch at a time; all up to one that is wanted. */
function useDrawnRows(count: number, wanted: number): number {
  const [drawn, setDrawn] = useState(AT_FIRST);
  const needed = Math.max(drawn, wanted + 10);
  useEffect(() => {
    if (needed >= count) return;
    // Between two batches the browser answers to keys and clicks.
    const timer = setTimeout(() => setDrawn(needed + MORE_AT_ONCE), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [needed, count]);
  return needed;
}
