// The table: pages from the server, sorted by one or several columns, columns resized and kept in sight, by keyboard.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Fragment, type KeyboardEvent, useState } from "react";
import type { AskedColumnReply, AskingReply, RowReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { SERIF } from "../../theme/theme";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { BulkBar, type Gone } from "./BulkBar";
import { cellText, shownColumns, turnedSorts, usualWidth } from "./columns";
import { HeadCell } from "./HeadCell";
import { askedOf, isFiltered } from "../filter/asked";
import type { Look } from "./look";
import { Pager } from "./Pager";
import { RemovedNotice } from "./Removing";
import { RowCell } from "./RowCell";

interface Props {
  formId: string;
  asking: AskingReply;
  look: Look;
  selected: number | null;
  onLook: (changes: Partial<Look>) => void;
  onOpen: (number: number) => void;
}

export function TableView({ formId, asking, look, selected, onLook, onOpen }: Props) {
  const columns = shownColumns(asking, look);
  const asked = { ...askedOf(look), sort: look.sorts.join(","), columns: columns.map(({ id }) => id).join(",") };
  const key = JSON.stringify({ ...asked, columns: "" });
  const [size, setSize] = useState(25);
  // Where each page begins that was reached; another filter or order begins anew.
  const [begins, setBegins] = useState<{ key: string; places: readonly string[]; at: number }>({
    key,
    places: [""],
    at: 0,
  });
  const pages = begins.key === key ? begins : { key, places: [""], at: 0 };
  const after = pages.places[pages.at] ?? "";
  const found = useQuery({
    ...queries.responses(formId, { ...asked, limit: `${size}`, after }),
    placeholderData: keepPreviousData,
  });
  const [marked, setMarked] = useState<ReadonlySet<number>>(new Set());
  // All that is filtered, on other pages too, while nothing of it is marked otherwise.
  const [whole, setWhole] = useState(false);
  const mark = (numbers: ReadonlySet<number>) => {
    setMarked(numbers);
    setWhole(false);
  };
  const [gone, setGone] = useState<Gone | null>(null);
  const rows = found.data?.rows ?? [];
  const turn = (at: number) => {
    const next = found.data?.next;
    const places = at < pages.places.length ? pages.places : next ? [...pages.places, next] : pages.places;
    setBegins({ key, places, at: Math.min(at, places.length - 1) });
  };
  const notice = gone && <RemovedNotice formId={formId} {...gone} onClose={() => setGone(null)} />;
  if (found.data?.count === 0)
    return (
      <>
        {notice}
        <Nothing look={look} onLook={onLook} />
      </>
    );
  return (
    <>
      {notice}
      {marked.size > 0 && (
        <BulkBar
          formId={formId}
          asking={asking}
          numbers={[...marked]}
          whole={whole ? askedOf(look) : null}
          all={found.data && rows.every((row) => marked.has(row.number)) && found.data.next ? found.data : null}
          onWhole={() => setWhole(true)}
          removed={rows.some((row) => marked.has(row.number) && row.stage === "removed")}
          onRemoved={(what) => {
            mark(new Set());
            setGone(what.numbers.length > 0 || what.stayed > 0 ? what : null);
          }}
          onDone={() => mark(new Set())}
        />
      )}
      <Box
        sx={{
          flex: 1,
          minHeight: 0,
          overflow: "auto",
          bgcolor: "background.paper",
          border: 1,
          borderColor: "divider",
          borderRadius: 1,
        }}
      >
        <Grid
          {...{ columns, rows, look, selected, marked, asking, formId, onOpen }}
          loading={found.isFetching}
          onMark={mark}
          onWidth={(id, width) => onLook({ widths: { ...look.widths, [id]: width } })}
          onSort={(id, added) => onLook({ sorts: turnedSorts(look.sorts, id, added) })}
        />
      </Box>
      {found.data && (
        <Pager
          page={pages.at}
          size={size}
          data={found.data}
          onPage={turn}
          onSize={(to) => {
            setSize(to);
            setBegins({ key, places: [""], at: 0 });
          }}
        />
      )}
    </>
  );
}

interface GridProps extends Pick<Props, "formId" | "asking" | "look" | "selected" | "onOpen"> {
  columns: readonly AskedColumnReply[];
  rows: readonly RowReply[];
  marked: ReadonlySet<number>;
  loading: boolean;
  onMark: (marked: ReadonlySet<number>) => void;
  onWidth: (id: string, width: number) => void;
  onSort: (id: string, added: boolean) => void;
}

const MARK_WIDTH = 40;

function Grid(props: GridProps) {
  const { formId, columns, rows, look, selected, marked, loading, onMark, onWidth, onSort, onOpen } = props;
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const widthOf = (column: AskedColumnReply) => look.widths[column.id] ?? usualWidth(column);
  // The first so many stay where they are while the others pass below them.
  const lefts = columns.map((_, at) => MARK_WIDTH + columns.slice(0, at).reduce((sum, each) => sum + widthOf(each), 0));
  const leftOf = (at: number) => (at < look.fixed ? lefts[at] : undefined);
  const all = rows.length > 0 && rows.every((row) => marked.has(row.number));
  return (
    <Box
      component="table"
      role="grid"
      aria-label="Responses"
      aria-busy={loading}
      onKeyDown={stepThroughRows}
      sx={{
        borderCollapse: "separate",
        borderSpacing: 0,
        tableLayout: "fixed",
        width: MARK_WIDTH + columns.reduce((sum, column) => sum + widthOf(column), 0),
        minWidth: "100%",
        cursor: loading ? "progress" : undefined,
        "& th, & td": { borderBottom: 1, borderColor: "divider", p: 0, textAlign: "left", fontWeight: "inherit" },
        "& .numeric": { fontFamily: SERIF, textAlign: "right", fontVariantNumeric: "tabular-nums lining-nums" },
        "& tbody tr": { cursor: "pointer" },
        "& tbody tr:hover td, & tbody tr[aria-selected=true] td, & tbody tr[aria-selected=true] th": {
          bgcolor: "noteTint.calculation",
        },
      }}
    >
      <colgroup>
        <col style={{ width: MARK_WIDTH }} />
        {columns.map((column) => (
          <col key={column.id} style={{ width: widthOf(column) }} />
        ))}
      </colgroup>
      <thead>
        <tr>
          <Box
            component="th"
            sx={{
              position: "sticky",
              top: 0,
              left: look.fixed > 0 ? 0 : undefined,
              zIndex: 3,
              bgcolor: "background.paper",
            }}
          >
            <Checkbox
              size="small"
              sx={{ p: 0.75 }}
              checked={all}
              indeterminate={!all && marked.size > 0}
              onChange={() => onMark(all ? new Set() : new Set(rows.map((row) => row.number)))}
              slotProps={{ input: { "aria-label": "Mark all of this page" } }}
            />
          </Box>
          {columns.map((column, at) => (
            <HeadCell
              key={column.id}
              column={column}
              sorts={look.sorts}
              width={widthOf(column)}
              left={leftOf(at)}
              onSort={onSort}
              onWidth={onWidth}
            />
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <Row
            key={row.number}
            {...{ columns, row, leftOf, opened, onOpen }}
            selected={row.number === selected}
            marked={marked.has(row.number)}
            fixed={look.fixed}
            onMark={() => onMark(toggled(marked, row.number))}
            onOpenRows={(id) => setOpened(toggled(opened, `${row.number} ${id}`))}
          />
        ))}
      </tbody>
      <Totals formId={formId} columns={columns} look={look} />
    </Box>
  );
}

function toggled<Item>(set: ReadonlySet<Item>, item: Item): ReadonlySet<Item> {
  const next = new Set(set);
  if (!next.delete(item)) next.add(item);
  return next;
}

/** Up and down go from row to row, Home and End to the first and the last. */
function stepThroughRows(event: KeyboardEvent<HTMLElement>) {
  const row = (event.target as HTMLElement).closest<HTMLElement>("tr[data-row]");
  if (!row || event.target !== row) return;
  const rows = [...event.currentTarget.querySelectorAll<HTMLElement>("tr[data-row]")];
  const at = rows.indexOf(row);
  const next = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: rows.length - 1 }[event.key];
  if (next === undefined || !rows[next]) return;
  event.preventDefault();
  rows[next].focus();
}

interface RowProps {
  columns: readonly AskedColumnReply[];
  row: RowReply;
  selected: boolean;
  marked: boolean;
  fixed: number;
  opened: ReadonlySet<string>;
  leftOf: (at: number) => number | undefined;
  onMark: () => void;
  onOpen: (number: number) => void;
  onOpenRows: (id: string) => void;
}

function Row({ columns, row, selected, marked, fixed, opened, leftOf, onMark, onOpen, onOpenRows }: RowProps) {
  const dayAndTime = useDayAndTime();
  const rowsOf = columns.filter((column) => column.holds === "rows" && opened.has(`${row.number} ${column.id}`));
  return (
    <Fragment>
      <tr
        data-row
        tabIndex={0}
        aria-selected={selected}
        aria-label={`Response ${row.number}`}
        onClick={() => onOpen(row.number)}
        onKeyDown={(event) => event.key === "Enter" && event.target === event.currentTarget && onOpen(row.number)}
      >
        <Box
          component="td"
          onClick={(event) => event.stopPropagation()}
          sx={{ position: fixed > 0 ? "sticky" : undefined, left: 0, zIndex: 1, bgcolor: "background.paper" }}
        >
          <Checkbox
            size="small"
            sx={{ p: 0.75 }}
            checked={marked}
            onChange={onMark}
            slotProps={{ input: { "aria-label": `Mark response ${row.number}` } }}
          />
        </Box>
        {columns.map((column, at) => (
          <RowCell
            key={column.id}
            column={column}
            row={row}
            text={cellText(column, row, dayAndTime)}
            left={leftOf(at)}
            open={opened.has(`${row.number} ${column.id}`)}
            onOpenRows={onOpenRows}
          />
        ))}
      </tr>
      {rowsOf.flatMap((column) =>
        (row.cells[column.id] ?? "").split("\n").map((line, at) => (
          <Box component="tr" key={`${column.id} ${at}`} sx={{ "&&": { cursor: "default" } }}>
            <td />
            <Box component="td" colSpan={columns.length} sx={{ "&&": { px: 1.5, py: 0.5, color: "text.secondary" } }}>
              {line}
            </Box>
          </Box>
        )),
      )}
    </Fragment>
  );
}

const SHORTENED = { overflow: "hidden", textOverflow: "ellipsis" };

/** What the numbers come to over all that is filtered, below their columns. */
function Totals({ formId, columns, look }: { formId: string; columns: readonly AskedColumnReply[]; look: Look }) {
  const hasNumbers = columns.some((column) => column.holds === "number" && !column.facet);
  const found = useQuery({
    ...queries.totals(formId, askedOf(look)),
    placeholderData: keepPreviousData,
    enabled: hasNumbers,
  });
  const totals = found.data?.totals ?? {};
  if (!hasNumbers || Object.keys(totals).length === 0) return null;
  return (
    <tfoot>
      <tr>
        <Foot />
        {columns.map((column, at) => {
          const total = totals[column.id];
          return (
            <Foot key={column.id} numeric>
              {total ? (
                <>
                  <Box sx={SHORTENED} title={`Sum of all that are filtered: ${total.sum_shown}`}>
                    Σ <b>{total.sum_shown}</b>
                  </Box>
                  <Box sx={SHORTENED} title={`Average of all that are filtered: ${total.average_shown}`}>
                    ⌀ {total.average_shown}
                  </Box>
                </>
              ) : (
                at === 0 && "All"
              )}
            </Foot>
          );
        })}
      </tr>
    </tfoot>
  );
}

const Foot = ({ numeric, children }: { numeric?: boolean; children?: React.ReactNode }) => (
  <Box
    component="td"
    className={numeric ? "numeric" : ""}
    sx={{
      "&&": { px: 1, py: 0.5, borderTop: 1, borderColor: "divider" },
      position: "sticky",
      bottom: 0,
      bgcolor: "background.default",
      fontSize: 13,
      lineHeight: "17px",
    }}
  >
    {children}
  </Box>
);

function Nothing({ look, onLook }: Pick<Props, "look" | "onLook">) {
  const filtered = isFiltered(look);
  return (
    <Box sx={{ p: 4 }}>
      <Box component="h2" sx={{ typography: "h2", m: 0 }}>
        {filtered ? "No response is so" : "No response yet"}
      </Box>
      <Box component="p" sx={{ color: "text.secondary", mt: 0.5 }}>
        {filtered
          ? "Change a condition, or look at all responses again."
          : "What visitors send stands here, newest first, with everything that was worked out. Publish the form and share its link."}
      </Box>
      {filtered && (
        <Button variant="outlined" onClick={() => onLook({ conditions: [], words: "" })}>
          Show all
        </Button>
      )}
    </Box>
  );
}
