// A block on the sheet: the public component itself, not to be filled in here, with what selects it lying over it.
import { type MouseEvent, type ReactNode, useMemo, useState } from "react";
import type { BlockState, FormState } from "../../api/generated/wire";
import { SurroundingsContext } from "../../fields/input";
import { BlockOnPage } from "../../form/BlockOnPage";
import { type Block, typedTitle } from "../../model/blocks";
import type { Entry } from "../../model/parts";
import { useIntoSight } from "../../ui/useIntoSight";
import type { ComposeActions } from "./actions";
import { LabelOnSheet, LABELS } from "./LabelOnSheet";
import { stillSurroundings } from "./still";

interface SelectableProps {
  chosen: ReadonlySet<string>;
  part: string | null;
  select: (id: string, event: MouseEvent) => void;
  openLabel: (id: string) => void;
  actions: ComposeActions;
  mayEdit: boolean;
  entry: Entry;
  name: string;
  /** What is said of a block that visitors don't see now; null where they do. */
  hidden: string | null;
  children: ReactNode;
}

export function Selectable({
  entry,
  name,
  hidden,
  chosen,
  part,
  select,
  openLabel,
  actions,
  mayEdit,
  children,
}: SelectableProps) {
  const [typing, setTyping] = useState(false);
  const last = part === entry.id;
  const place = useIntoSight(last);
  return (
    <div
      ref={place}
      className="sh-block"
      data-chosen={chosen.has(entry.id) || undefined}
      data-hidden={hidden ?? undefined}
    >
      <button
        type="button"
        className="sh-select"
        aria-pressed={chosen.has(entry.id)}
        aria-label={`${entry.number} ${entry.title}, ${name}${hidden ? `, ${hidden}` : ""}`}
        onClick={(event) => select(entry.id, event)}
        onDoubleClick={() => {
          if (mayEdit && textOf(entry) !== null && place.current?.querySelector(LABELS)) setTyping(true);
          else openLabel(entry.id);
        }}
        onKeyDown={(event) => {
          if (event.key !== "Enter") return;
          event.preventDefault();
          openLabel(entry.id);
        }}
      />
      <span className="sh-number" aria-hidden="true">
        {entry.number}
      </span>
      {hidden && <span className="sh-hidden">{hidden}</span>}
      {children}
      {typing && (
        <LabelOnSheet
          name={entry.number}
          text={textOf(entry) ?? ""}
          block={place}
          rowKind={entry.kind}
          onChange={(label) => actions.editLabel(entry.id, label)}
          onDone={(by) => {
            if (by === "key") place.current?.querySelector<HTMLElement>(".sh-select")?.focus({ preventScroll: true });
            setTyping(false);
          }}
        />
      )}
    </div>
  );
}

/** What is typed as the label; null for what has none, or one with marks of its own. */
function textOf({ what, part }: Entry): string | null {
  if (what === "kind") return part.label;
  return what === "block" && part.type !== "text" ? typedTitle(part) : null;
}

/** Raw answers by block id, as visitors would have entered them. */
export type Answers = Readonly<Record<string, unknown>>;

const SHOWN: BlockState = { shown: true };
const ignore = () => undefined;

/** The public component itself, not to be filled in here. */
export function StillBlock({
  block,
  facts,
  state,
  answers,
  kind,
}: {
  block: Block;
  facts: BlockState | undefined;
  state: FormState;
  answers: Answers;
  kind: string | null;
}) {
  const around = useMemo(() => stillSurroundings(state, kind, answers), [state, kind, answers]);
  const shown = facts?.shown ? facts : SHOWN;
  return (
    <SurroundingsContext value={around}>
      <BlockOnPage block={block} answer={around.answerOf(block.id)} facts={shown} error={null} onChange={ignore} />
    </SurroundingsContext>
  );
}
