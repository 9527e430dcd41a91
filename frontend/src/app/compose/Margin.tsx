// The margin: one note per fact of a part; click a note and edit it where it stands.
import { type ReactNode, type RefObject, useLayoutEffect, useRef } from "react";
import type { Note, Words } from "../../api/generated/wire";
import { type Entry, ORDER, PAYMENT, type Parts, settingAt } from "../../model/parts";
import { NOTE_KINDS } from "../../text/words";
import { nowWords } from "../rules/rules";
import { isTried, useBench } from "../workbench/bench";
import { useOutcome } from "../workbench/useOutcome";
import { NoteEditor } from "./NoteEditor";
import { formulaSetting } from "./settings_text";
import type { ComposeActions } from "./actions";

interface Props {
  entry: Entry;
  /** What notes name. Given, not looked up: what is looked up would draw hundreds of notes again at every letter. */
  parts: Parts;
  notes: readonly Note[];
  /** What reads it, by id. */
  readBy: readonly string[];
  chosen: boolean;
  setting: string | null;
  actions: ComposeActions;
  mayEdit: boolean;
  /** Whether several blocks stand in this line, so that it must be said whose notes these are. */
  shared: boolean;
  onOpen: (part: string, setting: string) => void;
  /** Leads to a part that reads it. */
  goTo: (part: string) => void;
}

export function Margin(props: Props) {
  const { entry, parts, notes, readBy, chosen, shared, goTo } = props;
  const isEmpty = notes.length + readBy.length === 0;
  return (
    <div className="nt-place">
      {/* What is chosen lies over this, so that the sheet stays where it is while notes are opened and added. */}
      {!isEmpty && (
        <div className={shared ? "nt-list nt-shared" : "nt-list"} data-covered={chosen || undefined} inert={chosen}>
          {shared && <span className="nt-of">{entry.number}</span>}
          {notes.map((note, index) => (
            <NoteCard
              key={`${note.setting} ${index}`}
              note={note}
              parts={parts}
              onOpen={() => props.onOpen(entry.id, note.setting)}
            />
          ))}
          {readBy.length > 0 && <UsedBy ids={readBy} parts={parts} goTo={goTo} />}
        </div>
      )}
      {chosen && <ChosenNotes {...props} />}
    </div>
  );
}

/** All notes of the part that is chosen, one of them open perhaps, and what it has no notes for yet. */
function ChosenNotes({ entry, parts, notes, readBy, setting, actions, mayEdit, onOpen, goTo }: Props) {
  const editable = setting && formulaSetting(setting) && typeof settingAt(entry.part, setting) === "string";
  const editing = editable ? setting : null;
  const { trying } = useBench();
  const outcome = useOutcome(isTried(trying));
  const noteAt = notes.findIndex((note) => note.setting === editing);
  const editorAt = noteAt < 0 ? notes.length : noteAt;
  const absent = mayEdit ? absentSettings(entry, notes) : [];
  const over = useRef<HTMLDivElement>(null);
  useNotesUnder(over);
  if (notes.length + readBy.length + absent.length === 0 && !editing) return null;
  return (
    <div ref={over} className="nt-list nt-over">
      <div className="nt-line" aria-hidden="true" />
      {editing && (
        // Always at the same place in the tree, wherever its note stands: typing goes on while the note comes and goes.
        <div key={editing} style={{ order: editorAt }}>
          <NoteEditor entry={entry} setting={editing} actions={actions} />
        </div>
      )}
      {notes.map(
        (note, index) =>
          note.setting !== editing && (
            <div key={`${note.setting} ${index}`} style={{ order: index }}>
              <NoteCard note={note} parts={parts} onOpen={() => onOpen(entry.id, note.setting)}>
                {outcome && <small>{nowWords(entry.id, note, outcome)}</small>}
              </NoteCard>
            </div>
          ),
      )}
      {readBy.length > 0 && <UsedBy ids={readBy} parts={parts} goTo={goTo} />}
      {absent
        .filter((each) => each !== editing)
        .map((each) => (
          <button
            key={each}
            type="button"
            className="nt-absent"
            style={{ order: 1000 }}
            onClick={() => onOpen(entry.id, each)}
          >
            {(entry.what === "kind" && ABSENT_OF_KINDS[each]) || formulaSetting(each)!.absent}
          </button>
        ))}
    </div>
  );
}

/** Hides the notes that it lies over: halves of words can neither be read nor clicked. */
function useNotesUnder(over: RefObject<HTMLElement | null>): void {
  useLayoutEffect(() => {
    const box = over.current;
    if (!box) return;
    const mark = () => {
      unmarkNotes();
      const { bottom } = box.getBoundingClientRect();
      const places = [...document.querySelectorAll<HTMLElement>(".nt-place")];
      for (const place of places.slice(places.indexOf(box.parentElement!) + 1)) {
        if (place.getBoundingClientRect().top >= bottom) break;
        place.dataset.under = "";
      }
    };
    const grows = new ResizeObserver(mark);
    grows.observe(box);
    return () => {
      grows.disconnect();
      unmarkNotes();
    };
  }, [over]);
}

const unmarkNotes = (): void =>
  document.querySelectorAll<HTMLElement>(".nt-place[data-under]").forEach((place) => delete place.dataset.under);

const MOST_NAMED = 5;
const OWNERS: Record<string, string> = { [ORDER]: "the order", [PAYMENT]: "the payment" };

/** Which rules, formulas and figures read it; each leads there. */
function UsedBy({ ids, parts, goTo }: { ids: readonly string[] } & Pick<Props, "parts" | "goTo">) {
  const more = ids.length - MOST_NAMED;
  return (
    <div className="nt-used" style={{ order: 999 }}>
      used by
      {ids.slice(0, MOST_NAMED).map((id) => {
        const { number = "", title = OWNERS[id] ?? "something deleted" } = parts.get(id) ?? {};
        return (
          <button
            key={id}
            type="button"
            title={title}
            aria-label={`Go to ${`${number} ${title}`.trim()}`}
            onClick={() => goTo(id)}
          >
            {number || title}
          </button>
        );
      })}
      {more > 0 && ` and ${more} more`}
    </div>
  );
}

const OFFERED = ["shown", "required", "formula", "when"] as const;

/** What a row kind lacks: it is rows that may be added, not an answer that may be blank. */
const ABSENT_OF_KINDS: Readonly<Record<string, string>> = {
  required: "! there may be no such row; require one",
  locked: "◇ such rows can be changed; lock them",
};

/** The facts that a part could have and has not, of those that are wanted most. */
function absentSettings(entry: Entry, notes: readonly Note[]): string[] {
  return OFFERED.filter((setting) => setting in entry.part && !notes.some((note) => note.setting === setting));
}

interface CardProps {
  note: Note;
  parts: Parts;
  onOpen: () => void;
  children?: ReactNode;
}

function NoteCard({ note, parts, onOpen, children }: CardProps) {
  const { sign, word } = NOTE_KINDS[note.kind];
  const colour = `var(--mui-palette-note-${note.kind})`;
  return (
    <button type="button" className="nt-note" style={{ borderLeftColor: colour }} onClick={onOpen}>
      <span role="img" aria-label={word} className="nt-sign" style={{ color: colour }}>
        {sign}
      </span>
      <Sentence words={note.words} parts={parts} />
      {children}
    </button>
  );
}

/** A sentence of the core, in which parts are named by number and label. */
export function Sentence({ words, parts }: { words: readonly Words[]; parts: Parts }) {
  return words.map((piece, index) => {
    if (piece.block) {
      const named = parts.get(piece.block);
      return (
        <b key={index}>
          <span className="nt-number">{named?.number}</span> {named?.title ?? "something deleted"}
        </b>
      );
    }
    if (piece.code)
      return (
        <code key={index} className="nt-code">
          {piece.text}
        </code>
      );
    return piece.strong ? <b key={index}>{piece.text}</b> : <span key={index}>{piece.text}</span>;
  });
}
