// Records of a table: a list in sight, a list that opens, or searched by typing. Which there are comes with the state.
import { useContext } from "react";
import type { RecordChoiceFace, RecordFace, RecordsState } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import { CheckSet, RadioSet } from "../choice_set";
import { type InputProps, listOf, SurroundingsContext, textOf, useTools } from "../input";
import { late } from "../late";
import { smallPicture } from "../small_picture";
import type { ShownOption } from "../shown_options";

const RecordSearch = late(() => import("./RecordSearch"));

/** Fetches the search before somebody opens a page that needs it. */
export const prefetchRecordSearch = RecordSearch.prefetch;

const NONE: RecordsState = { listed: [] };
const optionOf = ({ id, label, picture }: RecordFace): ShownOption => ({
  id,
  label,
  barred: false,
  ...(picture && { picture: smallPicture(picture) }),
});

export function RecordChoiceInput(props: InputProps<RecordChoiceFace>) {
  const { block, controlId, answer, facts, required, locked, invalid, describedBy, onChange } = props;
  const { offers } = useTools();
  const prefix = useContext(SurroundingsContext)?.prefix ?? "";
  const records = facts.records ?? NONE;
  const chosen = block.several ? listOf(answer).map(textOf) : [textOf(answer)].filter(Boolean);
  const toggle = (id: string, on: boolean) => {
    const kept = chosen.filter((each) => each !== id);
    const next = on ? [...kept, id] : kept;
    onChange(next.length > 0 ? next : null);
  };
  const choose = (id: string) => onChange(id === "" ? null : id);
  const known = new Map([...records.listed, ...(records.chosen ?? [])].map((each) => [each.id, optionOf(each)]));
  const searched = block.look === "search" || records.more || (block.look === "dropdown" && block.several);
  if (searched)
    return (
      <RecordSearch
        {...props}
        known={known}
        chosen={chosen}
        onPick={(id) => (block.several ? id && toggle(id, true) : choose(id))}
        onRemove={(id) => toggle(id, false)}
        onSearch={offers && ((words) => offers(prefix + block.id, { words }).then((found) => found.records ?? NONE))}
        meanwhile={<input id={controlId} className="cx-input" readOnly placeholder={say("waiting")} />}
      />
    );
  const none = records.none && (
    <p className="cx-help" role="status">
      {records.none}
    </p>
  );
  const options = [...known.values()];
  if (block.look === "list") {
    const set = { ...props, options, arrangement: "column" as const };
    return block.several ? (
      <CheckSet {...set} chosen={chosen} onToggle={toggle}>
        {none}
      </CheckSet>
    ) : (
      <RadioSet {...set} chosen={chosen[0] ?? null} onChoose={onChange}>
        {none}
      </RadioSet>
    );
  }
  return (
    <>
      <select
        id={controlId}
        className="cx-input"
        value={known.has(chosen[0] ?? "") ? chosen[0] : ""}
        disabled={locked}
        aria-required={required || undefined}
        aria-invalid={invalid || undefined}
        aria-describedby={describedBy}
        onChange={(event) => choose(event.target.value)}
      >
        <option value="">{block.placeholder || say("choose")}</option>
        {options.map(({ id, label }) => (
          <option key={id} value={id}>
            {label}
          </option>
        ))}
      </select>
      {none}
    </>
  );
}
