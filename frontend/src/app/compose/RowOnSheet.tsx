// A row of the sheet with its notes beside it, drawn again only when something in it or said of it changes.
import { memo, type MouseEvent, type ReactNode } from "react";
import type { AnalysisReply, BlockState, Brand, FormState, Note } from "../../api/generated/wire";
import { brandClasses } from "../../form/brand";
import { typeOf } from "../../model/blocks";
import type { Entry, Parts } from "../../model/parts";
import { same } from "../../model/same";
import { type Answers, Selectable, StillBlock } from "./BlockOnSheet";
import { ConfirmationOnSheet } from "./ConfirmationOnSheet";
import { Margin } from "./Margin";
import { PageOnSheet } from "./PageOnSheet";
import type { SheetRow } from "./sheet_rows";
import type { ComposeActions } from "./actions";

/** What rows are drawn with, all alike. */
export interface AroundRows {
  parts: Parts;
  state: FormState;
  /** The answers that the state is of. */
  answers: Answers;
  /** What is said of what is hidden with them. */
  hidden: string;
  notes: Record<string, Note[]>;
  links: AnalysisReply["links"];
  chosen: ReadonlySet<string>;
  part: string | null;
  setting: string | null;
  actions: ComposeActions;
  insert: (anchor: HTMLElement, row: Extract<SheetRow, { is: "insert" }>) => void;
  brand: Brand;
  select: (id: string, event: MouseEvent) => void;
  openLabel: (id: string) => void;
  openNote: (id: string, setting: string) => void;
  goTo: (id: string) => void;
  mayEdit: boolean;
}

type RowProps = AroundRows & { row: SheetRow };

function entriesOf(row: SheetRow): Entry[] {
  return row.is === "line" ? row.entries : row.is === "insert" ? [] : [row.entry];
}

export const RowOnSheet = memo(
  function RowOnSheet(props: RowProps) {
    const { row } = props;
    if (row.is === "insert")
      return (
        <InRow inside={row.inside}>
          {props.mayEdit && (
            <div className="sh-insert">
              <button type="button" aria-label={row.label} onClick={(event) => props.insert(event.currentTarget, row)}>
                <span aria-hidden="true">+</span>
              </button>
            </div>
          )}
          {row.empty && (
            <p className="sh-empty">
              Nothing here yet.
              {props.mayEdit &&
                row.inside === 0 &&
                " Press A to add a block, or paste lines of text: each becomes a field."}
            </p>
          )}
        </InRow>
      );
    const entries = entriesOf(row);
    const margin = entries.map((entry) => (
      <Margin
        key={entry.id}
        entry={entry}
        parts={props.parts}
        notes={props.notes[entry.id] ?? NONE}
        readBy={props.links[entry.id]?.read_by ?? NOBODY}
        chosen={props.part === entry.id}
        setting={props.part === entry.id ? props.setting : null}
        actions={props.actions}
        mayEdit={props.mayEdit}
        shared={entries.length > 1}
        onOpen={props.openNote}
        goTo={props.goTo}
      />
    ));
    return (
      <InRow
        inside={row.inside}
        above={roomAbove(row)}
        margin={margin}
        section={row.is === "page" ? row.entry.number : undefined}
      >
        <RowBody {...props} />
      </InRow>
    );
  },
  (before, after) => isSameRow(before, before.row, after, after.row),
);

/** Whether a row would be drawn just as it was. */
export const isSameRow = (before: AroundRows, old: SheetRow, after: AroundRows, now: SheetRow): boolean =>
  before.mayEdit === after.mayEdit &&
  before.brand === after.brand &&
  before.hidden === after.hidden &&
  old.inside === now.inside &&
  sameParts(old, now) &&
  (now.is !== "insert" || (old.is === "insert" && old.label === now.label && old.empty === now.empty)) &&
  entriesOf(now).every(
    (entry) =>
      before.chosen.has(entry.id) === after.chosen.has(entry.id) &&
      (before.part === entry.id) === (after.part === entry.id) &&
      (after.part !== entry.id || before.setting === after.setting) &&
      same(before.notes[entry.id], after.notes[entry.id]) &&
      same(before.links[entry.id]?.read_by, after.links[entry.id]?.read_by) &&
      sameNames(before.parts, after.parts, after.notes[entry.id] ?? NONE, after.links[entry.id]?.read_by ?? NOBODY) &&
      same(factsOf(before, entry), factsOf(after, entry)) &&
      same(before.answers[entry.id], after.answers[entry.id]),
  );

const NONE: Note[] = [];
const NOBODY: string[] = [];

const factsOf = (props: AroundRows, entry: Entry): BlockState | undefined =>
  entry.kind ? props.state.fresh?.[entry.kind]?.[entry.id] : props.state.blocks[entry.id];

/** Whether what notes name, and what reads a part, is called as it was. */
function sameNames(before: Parts, after: Parts, notes: readonly Note[], readBy: readonly string[]): boolean {
  if (before === after) return true;
  const isCalledAlike = (id: string): boolean => {
    const [old, now] = [before.get(id), after.get(id)];
    return old?.number === now?.number && old?.title === now?.title;
  };
  return (
    readBy.every(isCalledAlike) &&
    notes.every((note) => note.words.every(({ block }) => block === null || isCalledAlike(block)))
  );
}

function sameParts(before: SheetRow, after: SheetRow): boolean {
  const [old, now] = [entriesOf(before), entriesOf(after)];
  return (
    before.is === after.is &&
    old.length === now.length &&
    now.every((entry, at) => entry.part === old[at]!.part && entry.number === old[at]!.number)
  );
}

/** The room above a row in pixels; it is the whole row's, so that its notes begin where it does. */
const roomAbove = (row: SheetRow): number =>
  row.is === "page" ? 20 : row.is === "confirmation" ? (row.entry.index === 0 ? 40 : 12) : 0;

interface InRowProps {
  inside: number;
  above?: number;
  margin?: ReactNode;
  section?: string | undefined;
  children: ReactNode;
}

function InRow({ inside, above = 0, margin, section, children }: InRowProps) {
  const body = Array.from({ length: inside }).reduce<ReactNode>(
    (inner) => <div className="sh-inside">{inner}</div>,
    children,
  );
  const name = section ? { role: "group", "aria-label": `Page ${section}` } : {};
  return (
    <div className="sh-row" style={{ paddingTop: above }} {...name}>
      <div>{inside > 0 ? <div className="sh-body">{body}</div> : body}</div>
      <div>{margin}</div>
    </div>
  );
}

function RowBody(props: RowProps) {
  const { row, brand } = props;
  switch (row.is) {
    case "insert":
      return null;
    case "page":
      return (
        <PageOnSheet
          entry={row.entry}
          actions={props.actions}
          chosen={props.chosen.has(row.id)}
          select={props.select}
          mayEdit={props.mayEdit}
        />
      );
    case "confirmation":
      return (
        <ConfirmationOnSheet entry={row.entry} brand={brand} chosen={props.chosen.has(row.id)} select={props.select} />
      );
    case "holder":
    case "kind":
      return <Holder {...props} entry={row.entry} />;
    case "line":
      return (
        <div className={`${brandClasses(brand)} sh-body`}>
          <div className="cx-lines">
            {row.entries.map((entry) => (
              <div key={entry.id} className={`cx-block cx-${entry.part.width}`}>
                <Selectable
                  {...props}
                  entry={entry}
                  name={typeOf(entry.part.type).title}
                  hidden={hiddenWords(props, entry)}
                >
                  <div className="sh-still" inert>
                    <StillBlock
                      block={entry.part}
                      facts={factsOf(props, entry)}
                      state={props.state}
                      answers={props.answers}
                      kind={entry.kind}
                    />
                  </div>
                </Selectable>
              </div>
            ))}
          </div>
        </div>
      );
  }
}

const hiddenWords = (props: RowProps, entry: Entry): string | null =>
  factsOf(props, entry)?.shown === false ? props.hidden : null;

function Holder(props: RowProps & { entry: Extract<Entry, { what: "block" | "kind" }> }) {
  const { entry } = props;
  const name = entry.what === "kind" ? "Row kind" : typeOf(entry.part.type).title;
  const help = "help" in entry.part ? entry.part.help : "";
  return (
    <div className={`${brandClasses(props.brand)} sh-body`}>
      <Selectable
        {...props}
        entry={entry}
        name={name}
        hidden={entry.what === "block" ? hiddenWords(props, entry) : null}
      >
        <div className="sh-holder">
          {entry.title}
          <small>{help || name}</small>
        </div>
      </Selectable>
    </div>
  );
}
