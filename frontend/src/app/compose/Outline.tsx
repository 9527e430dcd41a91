// The outline: pages, blocks and confirmations by number, searched, folded, moved by drag or by keys.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import InputBase from "@mui/material/InputBase";
import { type DragEvent, type KeyboardEvent, memo, type MouseEvent, useMemo, useRef, useState } from "react";
import type { Note, PresentReply } from "../../api/generated/wire";
import type { Entry, Parts } from "../../model/parts";
import { says } from "../../model/replacing";
import { NOTE_KINDS, REQUIRED_SIGN } from "../../text/words";
import { useBench } from "../workbench/bench";
import { Key } from "../../ui/Key";
import { useIntoSight } from "../../ui/useIntoSight";
import { useStable } from "../../ui/useStable";
import { inPieces } from "../../ui/pieces";
import { ByFigure } from "./ByFigure";
import { FindAndReplace } from "./FindAndReplace";
import { dropTarget, type Side, sideOf } from "./drop_target";
import type { ComposeActions } from "./actions";

interface Props {
  actions: ComposeActions;
  onAdd: (anchor: HTMLElement) => void;
}

/** From so many letters on all that a block says is looked through: options, texts, formulas. */
const FEWEST_LETTERS = 2;
const LISTED = new Set(["page", "block", "kind", "confirmation"]);

const keyOf = (entry: Entry): string => ("key" in entry.part ? entry.part.key : "");

/** The rows to show: what a search finds with the pages it stands on, or all that is not folded away. */
function rowsOf(parts: Parts, search: string, folded: ReadonlySet<string>): Entry[] {
  const listed = [...parts.values()].filter((entry) => LISTED.has(entry.what));
  const wanted = search.trim().toLowerCase();
  if (wanted) {
    const fits = (entry: Entry) =>
      `${entry.number} ${entry.title} ${keyOf(entry)}`.toLowerCase().includes(wanted) ||
      (wanted.length >= FEWEST_LETTERS && says(entry, wanted));
    const pages = new Set(listed.filter((entry) => entry.what !== "page" && fits(entry)).map(({ page }) => page));
    return listed.filter((entry) => fits(entry) || (entry.what === "page" && pages.has(entry.id)));
  }
  const hidden = new Set<string>();
  return listed.filter((entry) => {
    const away = hidden.has(entry.into.holder) || folded.has(entry.into.holder);
    if (away) hidden.add(entry.id);
    return !away;
  });
}

export function Outline({ actions, onAdd }: Props) {
  const { parts, mayEdit, selected, select, analysis, people } = useBench();
  const here = useMemo(() => namesByPart(people), [people]);
  const [search, setSearch] = useState("");
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const [byFigure, setByFigure] = useState(false);
  const [over, setOver] = useState<{ id: string; side: Side } | null>(null);
  const dragged = useRef<string | null>(null);
  const rows = useMemo(() => rowsOf(parts, search, folded), [parts, search, folded]);
  const pieces = useMemo(() => inPieces(rows, (entry) => (entry.what === "page" ? true : null)), [rows]);
  const chosen = new Set(selected);
  const holders = useMemo(() => new Set([...parts.values()].map((entry) => entry.into.holder)), [parts]);
  const on = useRowEvents({
    open: (id, event) => {
      const how = event.shiftKey ? "through" : event.ctrlKey || event.metaKey ? "also" : "only";
      // Enter on what is selected already: its label.
      const again = event.detail === 0 && how === "only" && selected.length === 1 && selected[0] === id;
      select(id, again && mayEdit ? "label" : null, how);
    },
    fold: (id) => setFolded((before) => toggled(before, id)),
    drag: (id) => {
      dragged.current = id;
    },
    over: (id, half) => setOver(id ? { id, side: sideOf(parts, dragged.current, id, half) } : null),
    drop: (id, half) => {
      const moving = dragged.current;
      dragged.current = null;
      setOver(null);
      const target = moving ? dropTarget(parts, moving, id, half) : null;
      if (target) actions.move(chosen.has(moving!) ? selected : [moving!], target);
    },
  });
  return (
    <Box
      component="nav"
      aria-label="Outline"
      sx={{
        contain: "strict",
        display: "flex",
        flexDirection: "column",
        minHeight: 0,
        borderRight: 1,
        borderColor: "divider",
        bgcolor: "background.paper",
      }}
    >
      <Box sx={{ p: 1.25 }}>
        <InputBase
          id="find-block"
          fullWidth
          placeholder="Find a block"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
          onKeyDown={(event: KeyboardEvent) => {
            if (event.key === "Escape") setSearch("");
            const found = rows.find((entry) => entry.what !== "page") ?? rows[0];
            if (event.key === "Enter" && found) select(found.id);
          }}
          inputProps={{ "aria-label": "Find a block" }}
          endAdornment={<Key>/</Key>}
          sx={{ px: 1.25, height: 32, border: 1, borderColor: "divider", borderRadius: 1 }}
        />
      </Box>
      {search.trim() && mayEdit && (
        <Box sx={{ px: 1.25, pb: 0.5 }}>
          <FindAndReplace search={search.trim()} />
        </Box>
      )}
      <div className="ol-list">
        {pieces.map((piece) => (
          <OutlinePiece
            key={piece.id}
            entries={piece.rows}
            chosen={chosen}
            last={selected.at(-1)}
            folded={folded}
            holders={holders}
            over={over}
            movable={mayEdit && !search}
            notes={analysis.notes}
            here={here}
            on={on}
          />
        ))}
        {rows.every((entry) => entry.what === "page") && (
          <Box component="p" sx={{ m: 0, px: 2, py: 1, color: "text.secondary" }}>
            {search ? "No block says that." : "Every block you add gets a number here."}
          </Box>
        )}
      </div>
      {mayEdit && (
        <Box sx={{ p: 1.25, display: "grid", gap: 0.25 }}>
          <Button
            variant="outlined"
            color="inherit"
            onClick={(event) => onAdd(event.currentTarget)}
            sx={{ justifyContent: "space-between", borderStyle: "dashed", borderColor: "divider" }}
            endIcon={<Key>A</Key>}
          >
            Add a block
          </Button>
          <Box
            sx={{
              display: "flex",
              justifyContent: "space-between",
              "& .MuiButton-root": { minWidth: 0, px: 1, whiteSpace: "nowrap" },
            }}
          >
            <Button color="inherit" onClick={actions.addPage} aria-label="Add a page" sx={{ color: "text.secondary" }}>
              + Page
            </Button>
            <Button
              color="inherit"
              onClick={actions.addConfirmation}
              aria-label="Add a confirmation"
              sx={{ color: "text.secondary" }}
            >
              + Confirmation
            </Button>
          </Box>
          <Button
            color="inherit"
            onClick={() => setByFigure(true)}
            sx={{ px: 1, color: "text.secondary", justifyContent: "start" }}
          >
            + Confirmations by a result …
          </Button>
          {byFigure && <ByFigure onClose={() => setByFigure(false)} />}
        </Box>
      )}
    </Box>
  );
}

/** Which half of a row the pointer is over. */
function halfOf({ clientY, currentTarget }: DragEvent): Side {
  const { top, height } = currentTarget.getBoundingClientRect();
  return clientY >= top + height / 2 ? "after" : "before";
}

const toggled = (before: ReadonlySet<string>, id: string): ReadonlySet<string> => {
  const next = new Set(before);
  if (!next.delete(id)) next.add(id);
  return next;
};

interface RowEvents {
  open: (id: string, event: MouseEvent) => void;
  fold: (id: string) => void;
  drag: (id: string) => void;
  over: (id: string | null, half: Side) => void;
  drop: (id: string, half: Side) => void;
}

/** The same object at every drawing, so that rows that did not change are not drawn again. */
function useRowEvents(events: RowEvents): RowEvents {
  const open = useStable(events.open);
  const fold = useStable(events.fold);
  const drag = useStable(events.drag);
  const over = useStable(events.over);
  const drop = useStable(events.drop);
  return useMemo(() => ({ open, fold, drag, over, drop }), [open, fold, drag, over, drop]);
}

interface RowProps {
  entry: Entry;
  chosen: boolean;
  last: boolean;
  /** Null where there is nothing to fold. */
  folded: boolean | null;
  /** On which side of it the line shows where what is dragged would land. */
  dropped: Side | null;
  movable: boolean;
  notes: Note[] | undefined;
  /** Who else has selected it, or "". */
  here: string;
  on: RowEvents;
}

interface PieceProps {
  entries: readonly Entry[];
  chosen: ReadonlySet<string>;
  last: string | undefined;
  folded: ReadonlySet<string>;
  /** What has something in it to fold. */
  holders: ReadonlySet<string>;
  over: { id: string; side: Side } | null;
  movable: boolean;
  notes: Readonly<Record<string, Note[]>>;
  /** Who else has selected what, by part. */
  here: ReadonlyMap<string, string>;
  on: RowEvents;
}

function namesByPart(people: readonly PresentReply[]): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  for (const { part, name } of people) if (part) found.set(part, [found.get(part), name].filter(Boolean).join(", "));
  return found;
}

const initials = (name: string): string => [...name.matchAll(/(?<!\p{L})\p{L}/gu)].slice(0, 2).join("").toUpperCase();

const rowOf = (piece: PieceProps, entry: Entry): RowProps => ({
  entry,
  chosen: piece.chosen.has(entry.id),
  last: piece.last === entry.id,
  folded: piece.holders.has(entry.id) ? piece.folded.has(entry.id) : null,
  dropped: piece.over?.id === entry.id ? piece.over.side : null,
  movable: piece.movable,
  notes: piece.notes[entry.id],
  here: piece.here.get(entry.id) ?? "",
  on: piece.on,
});

const isSameRow = (before: RowProps, after: RowProps): boolean =>
  before.entry.part === after.entry.part &&
  before.entry.number === after.entry.number &&
  before.entry.depth === after.entry.depth &&
  before.chosen === after.chosen &&
  before.last === after.last &&
  before.folded === after.folded &&
  before.dropped === after.dropped &&
  before.movable === after.movable &&
  before.here === after.here &&
  (before.notes === after.notes || signsOf(before.notes ?? []).join() === signsOf(after.notes ?? []).join());

/** Rows that are drawn again together or, mostly, not at all. */
const OutlinePiece = memo(
  function OutlinePiece(props: PieceProps) {
    return (
      <ol className="ol-piece" style={{ containIntrinsicHeight: `auto ${props.entries.length * 28}px` }}>
        {props.entries.map((entry) => (
          <OutlineRow key={entry.id} {...rowOf(props, entry)} />
        ))}
      </ol>
    );
  },
  (before, after) =>
    before.entries.length === after.entries.length &&
    after.entries.every((entry, at) => isSameRow(rowOf(before, before.entries[at]!), rowOf(after, entry))),
);

const OutlineRow = memo(function OutlineRow(props: RowProps) {
  const { entry, chosen, last, folded, dropped, movable, notes, here, on } = props;
  const place = useIntoSight<HTMLLIElement>(last);
  return (
    <li
      ref={place}
      className={`ol-row${entry.what === "page" ? " ol-page" : ""}${entry.number === "C.1" ? " ol-first-confirmation" : ""}`}
      data-chosen={chosen || undefined}
      data-last={last || undefined}
      data-drop={dropped || undefined}
      draggable={movable}
      onDragStart={() => on.drag(entry.id)}
      onDragOver={(event: DragEvent) => {
        event.preventDefault();
        on.over(entry.id, halfOf(event));
      }}
      onDragEnd={() => on.over(null, "before")}
      onDrop={(event: DragEvent) => on.drop(entry.id, halfOf(event))}
    >
      {folded !== null && (
        <button
          type="button"
          className="ol-fold"
          aria-expanded={!folded}
          aria-label={`${folded ? "Unfold" : "Fold"} ${entry.number} ${entry.title}`}
          onClick={() => on.fold(entry.id)}
        >
          {folded ? "▸" : "▾"}
        </button>
      )}
      <button
        type="button"
        className="ol-name"
        aria-keyshortcuts="Alt+ArrowUp Alt+ArrowDown"
        aria-current={chosen || undefined}
        style={{ paddingLeft: 12 + Math.max(0, entry.depth - 1) * 10 }}
        onClick={(event) => on.open(entry.id, event)}
      >
        <span className="ol-number">{entry.number}</span>
        <span className="ol-title">{entry.title}</span>
        <Signs notes={notes ?? []} />
        {here && (
          <span className="ol-here" title={`${here} is here`} role="img" aria-label={`${here} is here`}>
            {here.split(", ").map(initials).join(" ")}
          </span>
        )}
      </button>
    </li>
  );
}, isSameRow);

const signsOf = (notes: readonly Note[]): string[] => [
  ...new Set(notes.map((note) => (note.setting === "required" ? REQUIRED_SIGN : NOTE_KINDS[note.kind].sign))),
];

/** What kinds of notes the part has, at a glance; in words for those who can't see the signs. */
function Signs({ notes }: { notes: readonly Note[] }) {
  const signs = new Map(
    notes.map((note) =>
      note.setting === "required"
        ? [REQUIRED_SIGN, { kind: note.kind, word: "Required" }]
        : [NOTE_KINDS[note.kind].sign, { kind: note.kind, word: NOTE_KINDS[note.kind].word }],
    ),
  );
  return [...signs].map(([sign, { kind, word }]) => (
    <span
      key={sign}
      className="ol-sign"
      title={word}
      role="img"
      aria-label={word}
      style={{ color: `var(--mui-palette-note-${kind})` }}
    >
      {sign}
    </span>
  ));
}
