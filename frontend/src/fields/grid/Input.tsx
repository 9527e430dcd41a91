import type { GridFace } from "../../api/generated/wire";
import { ChooseNone } from "../choice_set";
import { type InputProps, partsOf, shownText } from "../input";

export function GridInput(props: InputProps<GridFace>) {
  const { block, controlId, answer, facts, describedBy, invalid, required, locked, onChange } = props;
  const given = partsOf(answer);
  const options = block.options.map((each, at) => shownText(facts, `options.${at}.label`, each.label));
  return (
    <div id={controlId} className="cx-grid" tabIndex={-1} data-invalid={invalid || undefined}>
      <table aria-labelledby={`${controlId}-label`} aria-describedby={describedBy}>
        <thead>
          <tr>
            <td />
            {options.map((label, at) => (
              <th key={block.options[at]!.id} scope="col">
                {label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {block.questions.map((question, row) => {
            const label = shownText(facts, `questions.${row}.label`, question.label);
            return (
              <tr key={question.id}>
                <th scope="row">{label}</th>
                {block.options.map((option, at) => (
                  <td key={option.id}>
                    <label data-chosen={given[question.id] === option.id || undefined}>
                      <input
                        type="radio"
                        name={`${controlId}-${question.id}`}
                        checked={given[question.id] === option.id}
                        disabled={locked && given[question.id] !== option.id}
                        aria-label={`${label}: ${options[at]}`}
                        onChange={() => onChange({ ...given, [question.id]: option.id })}
                      />
                      <span aria-hidden="true">{options[at]}</span>
                    </label>
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
      <ChooseNone off={Object.keys(given).length === 0 || required || locked} onPress={() => onChange(null)} />
    </div>
  );
}
