// A table as a worksheet: its records in a grid, and beside it a column's settings, or what a record is and was.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Snackbar from "@mui/material/Snackbar";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import { api, ApiError, reasonOf } from "../../api/client";
import type { TableReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { Places } from "../Places";
import { TopBar } from "../TopBar";
import { type Asked, askedIn, askedOf, isFiltered, refusedOf, whereOf } from "../filter/asked";
import { FilterBar } from "../filter/FilterBar";
import { mayEdit, useSignedIn } from "../signed_in";
import { Waiting } from "../Waiting";
import { ColumnPane, NewColumn } from "./ColumnPane";
import { type Definition, definitionOf } from "./definition";
import { Grid, type Place } from "./Grid";
import { useImports } from "./ImportRecords";
import { NamedElsewhere } from "./NamedElsewhere";
import { PublishPane } from "./PublishPane";
import { RecordPane } from "./RecordPane";
import { ShownColumns } from "./ShownColumns";
import { TableMenu } from "./TableMenu";
import { asCopied } from "./pasted";
import { cellName, type TurnedBack, useRecords, type Way } from "./useRecords";

export function Worksheet({ tableId }: { tableId: string }) {
  const table = useQuery(queries.table(tableId));
  return (
    <Box sx={{ display: "flex", flexDirection: "column", height: "100vh" }}>
      <TopBar>
        <Places />
      </TopBar>
      {table.isPending && <Waiting />}
      {table.isError && <Alert severity="error">{reasonOf(table.error)}</Alert>}
      {table.data && <Sheet table={table.data} />}
    </Box>
  );
}

type Beside = "record" | "column" | "new column" | "published" | null;

const PANES = {
  record: "Record",
  column: "Column",
  "new column": "Column",
  published: "Published records",
} as const;

function Sheet({ table }: { table: TableReply }) {
  const who = useSignedIn();
  const may = table.may_change;
  const mayShape = may && mayEdit(who);
  const queryClient = useQueryClient();
  const { asked, ask, without, hide } = useAsked();
  const columns = useMemo(() => table.columns.filter(({ id }) => !without.includes(id)), [table, without]);
  const [sort, setSort] = useState("");
  const [shown, setShown] = useState<readonly [number, number]>([0, 40]);
  const [place, setPlace] = useState<Place>({ row: 0, column: 0 });
  const [anchor, setAnchor] = useState<Place>({ row: 0, column: 0 });
  const [beside, setBeside] = useState<Beside>(null);
  const [column, setColumn] = useState("");
  const [removed, setRemoved] = useState<readonly number[]>([]);
  const [named, setNamed] = useState<{ numbers: readonly number[]; words: string } | null>(null);
  const records = useRecords(table, { ...askedOf(asked), sort }, shown);
  const onShown = useCallback((first: number, last: number) => setShown([first, last]), []);
  const coming = useImports(table.id).find((each) => each.state === "waiting");
  const save = useMutation({
    mutationFn: (definition: Definition) =>
      api.saveTable(table.id, table.revision, definition as unknown as Record<string, unknown>),
    onSuccess: (saved) => {
      queryClient.setQueryData(queries.table(table.id).queryKey, saved);
      void queryClient.invalidateQueries({ queryKey: ["records", table.id] });
    },
  });
  const top = Math.min(place.row, anchor.row);
  const bottom = Math.min(Math.max(place.row, anchor.row), records.count - 1);
  const chosen = Math.max(0, bottom - top + 1);
  const here = records.at(place.row);
  const wrong = records.refused.get(cellName(here?.number ?? null, columns[place.column]?.id ?? ""));
  const remove = async () => {
    const numbers = (await records.fetchedAll(top, bottom)).map((each) => each.number);
    if (numbers.length === 0) return;
    await take(numbers, "ask");
  };
  const roll = useQuery(queries.roll());
  const [invited, setInvited] = useState<string | null>(null);
  const invite = async () => {
    const numbers = (await records.fetchedAll(top, bottom)).map((each) => each.number);
    try {
      const { count } = await api.inviteMembers(numbers);
      setInvited(`A mail is on its way to ${counted(count, "member")}`);
      await queryClient.invalidateQueries({ queryKey: queries.roll().queryKey });
    } catch (error) {
      setInvited(reasonOf(error as Error));
    }
  };
  const publish = async (published: boolean) => {
    const numbers = (await records.fetchedAll(top, bottom)).map((each) => each.number);
    if (numbers.length > 0) await records.publish(numbers, published);
  };
  const take = async (numbers: readonly number[], way: Way) => {
    const { removed: gone, named } = await records.remove(numbers, way);
    setRemoved(gone);
    setNamed(named ? { numbers, words: named } : null);
  };
  const refused = records.failure instanceof ApiError ? refusedOf(records.failure) : null;
  return (
    <Box
      component="main"
      aria-label={definitionOf(table).name}
      sx={{
        flex: 1,
        minHeight: 0,
        display: "grid",
        gridTemplateColumns: beside ? "minmax(0,1fr) 300px" : "minmax(0,1fr)",
      }}
    >
      <Box sx={{ display: "flex", flexDirection: "column", minHeight: 0, p: 2, gap: 1.5 }}>
        <FilterBar
          of={definitionOf(table).name}
          columns={table.asked}
          asked={asked}
          refused={refused}
          onAsk={(changes) => {
            ask(changes);
            setPlace({ row: 0, column: place.column });
            setAnchor({ row: 0, column: place.column });
          }}
        />
        <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
          <Typography aria-live="polite" sx={{ flex: 1, whiteSpace: "nowrap" }}>
            <b>{records.count.toLocaleString("en")}</b> {records.count === 1 ? "record" : "records"}
            {isFiltered(asked) && " found"}
            {coming && `, ${coming.place.toLocaleString("en")} of ${counted(coming.count, "line")} gone through`}
          </Typography>
          {may && (
            <>
              <Button color="inherit" disabled={!records.mayUndo} onClick={() => void records.undoLast()}>
                Undo
              </Button>
              {table.published && (
                <Button color="inherit" disabled={chosen === 0} onClick={() => void publish(!here?.published_at)}>
                  {here?.published_at ? "Take back" : "Publish"}
                  {chosen > 1 && ` ${chosen.toLocaleString("en")} records`}
                </Button>
              )}
              {mayShape && table.id === roll.data?.table && (
                <Button color="inherit" disabled={chosen === 0} onClick={() => void invite()}>
                  {chosen > 1 ? `Invite ${chosen.toLocaleString("en")} members` : "Invite the member"}
                </Button>
              )}
              <Button color="inherit" disabled={chosen === 0} onClick={() => void remove()}>
                {chosen > 1 ? `Remove ${chosen.toLocaleString("en")} records` : "Remove the record"}
              </Button>
            </>
          )}
          <Button
            color="inherit"
            aria-pressed={beside === "record"}
            onClick={() => setBeside(beside === "record" ? null : "record")}
          >
            Record beside
          </Button>
          {mayShape && (
            <Button variant="outlined" onClick={() => setBeside("new column")}>
              Add a column
            </Button>
          )}
          <ShownColumns
            columns={table.columns}
            without={without}
            onChange={(next) => {
              hide(next);
              setPlace({ ...place, column: 0 });
              setAnchor({ ...anchor, column: 0 });
            }}
          />
          <TableMenu table={table} shown={shownOf(asked, columns, table)} onPublish={() => setBeside("published")} />
        </Box>
        {records.turnedBack.length > 0 && (
          <TurnedBackLines lines={records.turnedBack} onClose={records.forgetTurnedBack} />
        )}
        {records.failure && <Alert severity="error">{reasonOf(records.failure)}</Alert>}
        <Grid
          name={`Records of ${definitionOf(table).name}`}
          columns={columns}
          count={records.count}
          at={records.at}
          refused={records.refused}
          sort={sort}
          order={`${sort} ${asked.words} ${asked.match} ${whereOf(asked.conditions)}`}
          chosen={beside === "column" ? column : ""}
          tellsWaiting={table.published !== null}
          mayEdit={may}
          place={place}
          anchor={anchor}
          onPlace={(to, from) => {
            setPlace(to);
            setAnchor(from);
          }}
          onShown={onShown}
          onSort={setSort}
          onColumn={(id) => {
            setColumn(id);
            if (mayShape) setBeside("column");
          }}
          onFiles={() => setBeside("record")}
          onChange={records.change}
          onFetch={records.fetchedAll}
          onForget={records.forget}
          onUndo={() => void records.undoLast()}
        />
        <Box role="status" sx={{ minHeight: 20, fontSize: 13, color: "text.secondary" }}>
          {records.problem || wrong ? (
            <Box component="span" sx={{ color: "error.main" }}>
              {records.problem || `Not kept: ${wrong!.message}`}
            </Box>
          ) : records.refused.size > 0 ? (
            `${counted(records.refused.size, "cell")} not kept; they are red.`
          ) : may ? (
            "Type into a cell; Enter keeps it, Escape leaves it. Cells are copied from and pasted into spreadsheets."
          ) : (
            ""
          )}
        </Box>
      </Box>
      {beside && (
        <Box
          component="aside"
          aria-label={PANES[beside]}
          onKeyDown={(event) => event.key === "Escape" && setBeside(null)}
          sx={{ borderLeft: 1, borderColor: "divider", bgcolor: "background.paper", overflow: "auto", p: 2 }}
        >
          {beside === "record" && (
            <RecordPane
              table={table}
              record={here}
              onChanged={may ? records.show : null}
              onOffer={may ? (number, offered) => void records.offer(number, offered) : null}
              onClose={() => setBeside(null)}
            />
          )}
          {beside === "column" && (
            <ColumnPane
              key={`${column} ${table.revision}`}
              table={table}
              columnId={column}
              problem={save.isError ? save.error : null}
              saves={save.isPending}
              onSave={(definition) => save.mutate(definition)}
              onClose={() => setBeside(null)}
            />
          )}
          {beside === "published" && (
            <PublishPane
              key={table.revision}
              table={table}
              problem={save.isError ? save.error : null}
              saves={save.isPending}
              onSave={(definition) => save.mutate(definition)}
              onClose={() => setBeside(null)}
            />
          )}
          {beside === "new column" && (
            <NewColumn
              table={table}
              problem={save.isError ? save.error : null}
              onSave={(definition) =>
                save.mutate(definition, {
                  onSuccess: (saved) => {
                    setColumn(saved.columns.at(-1)!.id);
                    setBeside("column");
                  },
                })
              }
              onClose={() => setBeside(null)}
            />
          )}
        </Box>
      )}
      {named && (
        <NamedElsewhere
          words={named.words}
          onChoose={(way) => void take(named.numbers, way)}
          onClose={() => setNamed(null)}
        />
      )}
      <Snackbar
        open={invited !== null}
        autoHideDuration={8_000}
        onClose={(_event, reason) => reason !== "clickaway" && setInvited(null)}
        message={invited}
      />
      <Snackbar
        open={removed.length > 0}
        autoHideDuration={8_000}
        onClose={(_event, reason) => reason !== "clickaway" && setRemoved([])}
        message={`${counted(removed.length, "record")} removed`}
        action={
          <Button
            color="inherit"
            onClick={() => {
              void records.bringBack(removed);
              setRemoved([]);
            }}
          >
            Bring back
          </Button>
        }
      />
    </Box>
  );
}

/** What the address asks for, so that it can be sent. */
function useAsked() {
  const [query, setQuery] = useSearchParams();
  const asked = useMemo(() => askedIn(query), [query]);
  const without = useMemo(() => (query.get("without") ?? "").split(",").filter(Boolean), [query]);
  const put = (next: Asked, hidden: readonly string[]) => {
    const usual = { where: "[]", match: "all", words: "", without: "" };
    const told = Object.entries({ ...askedOf(next), without: hidden.join(",") });
    const unusual = told.filter(([name, value]) => value !== usual[name as keyof typeof usual]);
    setQuery(Object.fromEntries(unusual), { replace: true });
  };
  return {
    asked,
    ask: (changes: Partial<Asked>) => put({ ...asked, ...changes }, without),
    without,
    hide: (hidden: readonly string[]) => put(asked, hidden),
  };
}

/** What is shown, as a file of it is asked for; null where that is all of the table. */
function shownOf(asked: Asked, columns: TableReply["columns"], table: TableReply): Record<string, string> | null {
  const isWhole = columns.length === table.columns.length;
  if (isWhole && !isFiltered(asked)) return null;
  return { ...askedOf(asked), ...(isWhole ? {} : { columns: columns.map(({ id }) => id).join(",") }) };
}

/** Pasted lines that became no record: they are here to be mended and pasted again. */
function TurnedBackLines({ lines, onClose }: { lines: readonly TurnedBack[]; onClose: () => void }) {
  return (
    <Alert
      severity="warning"
      onClose={onClose}
      action={
        <>
          <Button
            color="inherit"
            onClick={() => void navigator.clipboard.writeText(asCopied(lines.map((each) => each.cells)))}
          >
            Copy them
          </Button>
          <Button color="inherit" onClick={onClose}>
            Close
          </Button>
        </>
      }
    >
      {counted(lines.length, "pasted line")} not kept:
      <Box
        component="ul"
        tabIndex={0}
        aria-label="Lines not kept"
        sx={{ m: 0, pl: 2.5, maxHeight: 120, overflow: "auto" }}
      >
        {lines.map((each, at) => (
          <li key={at}>
            {each.cells.filter(Boolean).slice(0, 3).join(", ")}: {each.message}
          </li>
        ))}
      </Box>
    </Alert>
  );
}
