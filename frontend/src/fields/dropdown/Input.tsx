import type { DropdownFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import { OtherBox } from "../choice_set";
import { type InputProps, partsOf, textOf, useTools } from "../input";
import { late } from "../late";
import { OTHER, optionsOf } from "../shown_options";

const LONG = 12; // options; more are searched by typing
const SearchedList = late(() => import("./SearchedList"));

/** Fetches the list that is searched by typing before somebody opens a page that needs it. */
export const prefetchSearch = SearchedList.prefetch;

export function DropdownInput(props: InputProps<DropdownFace>) {
  const { block, controlId, answer, facts, required, locked, invalid, describedBy, onChange } = props;
  const { seed } = useTools();
  const own = partsOf(answer)[OTHER];
  const chosen = own !== undefined ? OTHER : textOf(answer);
  const options = optionsOf(block, facts, seed);
  if (block.other) options.push({ id: OTHER, label: block.other_label, barred: false });
  const choose = (id: string) => onChange(id === "" ? null : id === OTHER ? { [OTHER]: "" } : id);
  const plain = (
    <select
      id={controlId}
      className="cx-input"
      value={chosen}
      disabled={locked}
      aria-required={required || undefined}
      aria-invalid={invalid || undefined}
      aria-describedby={describedBy}
      onChange={(event) => choose(event.target.value)}
    >
      <option value="">{block.placeholder || say("choose")}</option>
      {options.map((option) => (
        <option key={option.id} value={option.id} disabled={option.barred && option.id !== chosen}>
          {option.label}
        </option>
      ))}
    </select>
  );
  return (
    <>
      {options.length > LONG ? (
        <SearchedList {...props} options={options} chosen={chosen} onChoose={choose} meanwhile={plain} />
      ) : (
        plain
      )}
      {own !== undefined && (
        <OtherBox
          controlId={controlId}
          label={block.other_label}
          text={textOf(own)}
          locked={locked}
          onText={(text) => onChange({ [OTHER]: text })}
        />
      )}
    </>
  );
}
