// The worksheet's grid: only the rows in sight are there. Cells are walked and typed into by keyboard as in a spreadsheet.
import Box from "@mui/material/Box";
import { useTheme } from "@mui/material/styles";
import { useEffect, useRef, useState } from "react";
import type { RecordReply, TableColumnReply } from "../../api/generated/wire";
import { SERIF } from "../../theme/theme";
import { CellEditor, isPicked } from "./CellEditor";
import { columnType } from "./column_types";
import { asCopied, cellsOf } from "./pasted";
import { cellName, type Refused, type TypedRow } from "./useRecords";

export interface Place {
  row: number;
  column: number;
}

interface Props {
  name: string;
  columns: readonly TableColumnReply[];
  count: number;
  at: (row: number) => RecordReply | undefined;
  refused: ReadonlyMap<string, Refused>;
  sort: string;
  /** What is looked at, in which order: where that changes, it is looked at from its beginning. */
  order: string;
  chosen: string;
  /** Whether anybody may read some of them: those that wait are told apart. */
  tellsWaiting: boolean;
  mayEdit: boolean;
  place: Place;
  anchor: Place;
  onPlace: (place: Place, anchor: Place) => void;
  onShown: (first: number, last: number) => void;
  onSort: (sort: string) => void;
  onColumn: (id: string) => void;
  /** Files are put in and taken out beside the grid. */
  onFiles: () => void;
  onChange: (typed: readonly TypedRow[]) => Promise<boolean>;
  onFetch: (first: number, last: number) => Promise<RecordReply[]>;
  onForget: (name: string) => void;
  onUndo: () => void;
}

const ROW = 32;
const HEAD = 40;
const NUMBER = 64;
const WIDTH = 168;
const MORE = 8; // rows beyond those in sight
const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

export function Grid(props: Props) {
  const { name, columns, count, at, refused, sort, order, chosen, tellsWaiting, mayEdit, place, anchor } = props;
  const { onPlace, onShown, onSort, onColumn, onFiles, onChange, onFetch, onForget, onUndo } = props;
  const [scrolled, setScrolled] = useState(0);
  const [height, setHeight] = useState(600);
  const [typing, setTyping] = useState<string | null>(null);
  const grid = useRef<HTMLDivElement>(null);
  const { palette } = useTheme();
  // A new record stands below the last; while that is on its way, one more.
  const rows = Math.max(count + (mayEdit ? 1 : 0), Math.min(place.row + 1, count + 2));
  // Where there are fewer records by now, it can't be scrolled as far as it was.
  const above = Math.min(scrolled, Math.max(0, HEAD + rows * ROW - height));
  const first = Math.max(0, Math.floor(above / ROW) - MORE);
  const last = Math.min(rows - 1, Math.ceil((above + height - HEAD) / ROW) + MORE);
  useEffect(() => onShown(first, Math.max(first, last)), [first, last, onShown]);
  useEffect(() => {
    grid.current!.scrollTop = 0;
  }, [order]);
  useEffect(() => {
    const watched = grid.current!;
    const observer = new ResizeObserver(() => setHeight(watched.clientHeight));
    observer.observe(watched);
    return () => observer.disconnect();
  }, []);

  const block = {
    top: Math.min(place.row, anchor.row),
    bottom: Math.max(place.row, anchor.row),
    left: Math.min(place.column, anchor.column),
    right: Math.max(place.column, anchor.column),
  };
  const textOf = (row: number, column: TableColumnReply): string => {
    const record = at(row);
    return record?.typed[column.id] ?? (column.computed ? (record?.cells[column.id] ?? "") : "");
  };
  const inSight = ({ row, column }: Place) => {
    const pane = grid.current!;
    const top = row * ROW;
    const left = column * WIDTH;
    if (top < pane.scrollTop) pane.scrollTop = top;
    if (top + ROW > pane.scrollTop + pane.clientHeight - HEAD) pane.scrollTop = top + ROW - pane.clientHeight + HEAD;
    if (left < pane.scrollLeft) pane.scrollLeft = left;
    if (left + WIDTH > pane.scrollLeft + pane.clientWidth - NUMBER)
      pane.scrollLeft = left + WIDTH - pane.clientWidth + NUMBER;
  };
  const go = (row: number, column: number, extends_ = false, lowest = rows - 1) => {
    const to = {
      row: Math.max(0, Math.min(lowest, row)),
      column: Math.max(0, Math.min(columns.length - 1, column)),
    };
    onPlace(to, extends_ ? anchor : to);
    inSight(to);
  };
  const begin = (text: string) => {
    const column = columns[place.column];
    if (!mayEdit || !column || column.computed || (place.row < count && !at(place.row))) return;
    // One of some options is picked, not typed.
    setTyping(isPicked(column) ? textOf(place.row, column) : text);
  };
  const beginHere = () => {
    const column = columns[place.column];
    if (!column) return;
    if (column.files) {
      onFiles();
      return;
    }
    const known = refused.get(cellName(at(place.row)?.number ?? null, column.id));
    begin(known?.text ?? textOf(place.row, column));
  };
  const stop = () => {
    setTyping(null);
    grid.current?.focus();
  };
  const keep = (text: string, next: readonly [number, number]) => {
    const column = columns[place.column]!;
    const record = at(place.row);
    stop();
    const is = cellName(record?.number ?? null, column.id);
    if (text === textOf(place.row, column)) onForget(is);
    else void onChange([{ row: place.row, cells: { [column.id]: text } }]);
    // Below a new record comes the next one, which is not counted yet.
    if (next[0] === 1 && !record && text) go(place.row + 1, 0, false, rows);
    else go(place.row + next[0], place.column + next[1]);
  };
  /** Leaving a cell by mouse keeps what was typed into it, before another is meant: it loses the focus first. */
  const leave = () => {
    if (typing !== null) grid.current?.focus();
  };
  /** What is typed over a block from its upper left cell on. */
  const over = (top: number, left: number, cells: readonly (readonly string[])[]): TypedRow[] =>
    cells.flatMap((line, down) => {
      const typed = line.flatMap((text, right): [string, string][] => {
        const column = columns[left + right];
        return column && !column.computed ? [[column.id, text]] : [];
      });
      return typed.length > 0 ? [{ row: top + down, cells: Object.fromEntries(typed) }] : [];
    });
  const empty = () => {
    const height_ = Math.min(block.bottom, count - 1) - block.top + 1;
    const blank = Array.from({ length: Math.max(0, height_) }, () =>
      Array.from({ length: block.right - block.left + 1 }, () => ""),
    );
    const typed = over(block.top, block.left, blank);
    if (mayEdit && typed.length > 0) void onChange(typed);
  };
  const copy = async () => {
    const records = await onFetch(block.top, Math.min(block.bottom, count - 1));
    if (records.length === 0) return;
    const columnsIn = columns.slice(block.left, block.right + 1);
    await navigator.clipboard.writeText(
      asCopied(
        records.map((record) =>
          columnsIn.map((each) => record.typed[each.id] ?? (each.computed ? (record.cells[each.id] ?? "") : "")),
        ),
      ),
    );
  };
  const press = (event: React.KeyboardEvent) => {
    if (typing !== null || event.target !== grid.current) return;
    const commands = event.ctrlKey || event.metaKey;
    const page = Math.max(1, Math.floor((height - HEAD) / ROW) - 1);
    const step = STEPS[event.key];
    if (step) go(place.row + step[0], place.column + step[1], event.shiftKey);
    else if (event.key === "PageDown") go(place.row + page, place.column, event.shiftKey);
    else if (event.key === "PageUp") go(place.row - page, place.column, event.shiftKey);
    else if (event.key === "Home") go(commands ? 0 : place.row, 0, event.shiftKey);
    else if (event.key === "End") go(commands ? rows - 1 : place.row, columns.length - 1, event.shiftKey);
    else if (event.key === "Enter" || event.key === "F2") beginHere();
    else if (event.key === "Delete" || event.key === "Backspace") empty();
    else if (commands && event.key === "z") onUndo();
    else if (!commands && !event.altKey && event.key.length === 1) begin(event.key === " " ? "" : event.key);
    else return;
    event.preventDefault();
  };
  return (
    <Box
      ref={grid}
      role="grid"
      aria-label={name}
      aria-rowcount={rows + 1}
      aria-colcount={columns.length + 1}
      aria-multiselectable
      aria-activedescendant={`cell-${place.row}-${place.column}`}
      tabIndex={0}
      onKeyDown={press}
      onScroll={(event) => setScrolled(event.currentTarget.scrollTop)}
      onCopy={(event) => {
        if (typing !== null) return;
        event.preventDefault();
        void copy();
      }}
      onPaste={(event) => {
        if (typing !== null || !mayEdit) return;
        event.preventDefault();
        const typed = over(block.top, block.left, cellsOf(event.clipboardData.getData("text/plain")));
        if (typed.length > 0) void onChange(typed);
      }}
      sx={{
        flex: 1,
        minHeight: 0,
        overflow: "auto",
        position: "relative",
        bgcolor: "background.paper",
        border: 1,
        borderColor: "divider",
        borderRadius: 1,
        "&:focus-visible": { outline: "none" },
        "&:focus-visible [data-here]": { outline: `2px solid ${palette.primary.main}`, outlineOffset: "-2px" },
      }}
    >
      <Box sx={{ width: NUMBER + WIDTH * columns.length, height: HEAD + rows * ROW, position: "relative" }}>
        <Box
          role="row"
          aria-rowindex={1}
          sx={{ position: "sticky", top: 0, zIndex: 2, height: HEAD, display: "flex", bgcolor: "background.paper" }}
        >
          <Box
            role="columnheader"
            aria-colindex={1}
            sx={{ ...HEAD_CELL, ...STAYS, width: NUMBER, justifyContent: "flex-end" }}
          >
            No.
          </Box>
          {columns.map((column, index) => (
            <Box
              key={column.id}
              role="columnheader"
              aria-colindex={index + 2}
              aria-sort={sort === column.id ? "ascending" : sort === `-${column.id}` ? "descending" : "none"}
              sx={{ ...HEAD_CELL, width: WIDTH, bgcolor: chosen === column.id ? "action.selected" : undefined }}
            >
              <Box
                component="button"
                type="button"
                tabIndex={-1}
                onClick={() => onColumn(column.id)}
                sx={{ ...HEAD_BUTTON, flex: 1, minWidth: 0, textAlign: "left" }}
                title={`${columnType(column.type).word}. Its settings`}
              >
                <Box component="span" aria-hidden sx={{ fontFamily: SERIF, color: "text.secondary", mr: 0.75 }}>
                  {columnType(column.type).sign}
                </Box>
                {column.label}
                {column.required && " *"}
              </Box>
              <Box
                component="button"
                type="button"
                tabIndex={-1}
                aria-label={`Sort by ${column.label}`}
                onClick={() => onSort(sort === column.id ? `-${column.id}` : sort === `-${column.id}` ? "" : column.id)}
                sx={{ ...HEAD_BUTTON, color: sort.endsWith(column.id) ? "primary.main" : "text.secondary" }}
              >
                {sort === column.id ? "↑" : sort === `-${column.id}` ? "↓" : "↕"}
              </Box>
            </Box>
          ))}
        </Box>
        {Array.from({ length: Math.max(0, last - first + 1) }, (_unused, index) => first + index).map((row) => {
          const record = at(row);
          return (
            <Box
              key={row}
              role="row"
              aria-rowindex={row + 2}
              sx={{ position: "absolute", top: HEAD + row * ROW, height: ROW, display: "flex", width: "100%" }}
            >
              <Box
                role="rowheader"
                aria-colindex={1}
                onMouseDown={() => {
                  leave();
                  onPlace({ row, column: columns.length - 1 }, { row, column: 0 });
                }}
                sx={{
                  ...CELL,
                  ...STAYS,
                  width: NUMBER,
                  justifyContent: "flex-end",
                  color: "text.secondary",
                  fontFamily: SERIF,
                }}
              >
                {tellsWaiting && record && !record.published_at && (
                  <Box component="span" role="img" aria-label="waits to be published" title="Waits to be published">
                    ◌&nbsp;
                  </Box>
                )}
                {record?.number ?? (row >= count && mayEdit ? "new" : "…")}
              </Box>
              {columns.map((column, index) => {
                const isHere = place.row === row && place.column === index;
                const wrong = refused.get(cellName(record?.number ?? null, column.id));
                const isWrong = wrong !== undefined && (record !== undefined || row === count);
                const isIn = row >= block.top && row <= block.bottom && index >= block.left && index <= block.right;
                return (
                  <Box
                    key={column.id}
                    id={`cell-${row}-${index}`}
                    role="gridcell"
                    aria-colindex={index + 2}
                    aria-selected={isIn}
                    aria-readonly={!mayEdit || column.computed}
                    aria-invalid={isWrong || undefined}
                    data-here={isHere || undefined}
                    title={isWrong ? wrong.message : undefined}
                    onMouseDown={(event) => {
                      if (isHere && typing !== null) return;
                      leave();
                      go(row, index, event.shiftKey);
                    }}
                    onDoubleClick={beginHere}
                    sx={{
                      ...CELL,
                      width: WIDTH,
                      justifyContent: column.numeric ? "flex-end" : "flex-start",
                      fontFamily: column.numeric ? SERIF : undefined,
                      bgcolor: isIn ? "action.selected" : column.computed ? "background.default" : undefined,
                      ...(isWrong && { color: "error.main", boxShadow: `inset 0 -2px ${palette.error.main}` }),
                    }}
                  >
                    {isHere && typing !== null ? (
                      <CellEditor column={column} text={typing} onText={setTyping} onKeep={keep} onStop={stop} />
                    ) : (
                      <Box component="span" sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
                        {isWrong ? wrong.text : (record?.cells[column.id] ?? "")}
                      </Box>
                    )}
                  </Box>
                );
              })}
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}

const CELL = {
  display: "flex",
  alignItems: "center",
  flexShrink: 0,
  px: 1,
  fontSize: 13,
  borderBottom: 1,
  borderRight: 1,
  borderColor: "divider",
  boxSizing: "border-box",
} as const;
// Beside what moves sideways the numbers stay.
const STAYS = { position: "sticky", left: 0, zIndex: 1, bgcolor: "background.paper" } as const;
const HEAD_CELL = { ...CELL, fontWeight: 650, borderBottom: 2, borderColor: "divider" } as const;
const HEAD_BUTTON = {
  border: 0,
  p: 0.5,
  bgcolor: "transparent",
  font: "inherit",
  color: "inherit",
  cursor: "pointer",
  overflow: "hidden",
  textOverflow: "ellipsis",
  whiteSpace: "nowrap",
} as const;
