// Options in sight, as radio buttons or boxes to tick: what several types of field show.
import type { ReactNode } from "react";
import { say } from "../text/visitor";
import type { InputProps } from "./input";
import { LengthTold } from "./LengthTold";
import type { ShownOption } from "./shown_options";

type SetProps = Pick<InputProps, "controlId" | "describedBy" | "invalid" | "required" | "locked"> & {
  options: readonly ShownOption[];
  arrangement: "row" | "column";
};

interface RadioSetProps extends SetProps {
  chosen: string | null;
  onChoose: (id: string | null) => void;
  /** What stands below the options: a box for the visitor's own words. */
  children?: ReactNode;
}

export function RadioSet({ options, arrangement, chosen, onChoose, children, ...rest }: RadioSetProps) {
  const { controlId, required, locked } = rest;
  return (
    <ChoiceFrame {...rest} className={`cx-options cx-options-${arrangement}`} role="radiogroup">
      {options.map((option) => (
        <label key={option.id} className="cx-option" data-chosen={chosen === option.id || undefined}>
          <input
            type="radio"
            name={controlId}
            value={option.id}
            checked={chosen === option.id}
            disabled={option.barred || (locked && chosen !== option.id)}
            onChange={() => onChoose(option.id)}
          />
          <OptionWords {...option} />
        </label>
      ))}
      {children}
      <ChooseNone off={chosen === null || required || locked} onPress={() => onChoose(null)} />
    </ChoiceFrame>
  );
}

/** What an option says; what its picture shows, its words say too. */
const OptionWords = ({ label, picture }: ShownOption) => (
  <>
    {picture && <img src={picture} alt="" />}
    <span>{label}</span>
  </>
);

/** Takes a choice back, where none is needed: a radio button can't be pressed off. */
export const ChooseNone = ({ off, onPress }: { off: boolean; onPress: () => void }) =>
  !off && (
    <button
      type="button"
      className="cx-clear"
      onClick={({ currentTarget }) => {
        // The button goes; what can be chosen instead gets the focus.
        currentTarget.parentElement?.querySelector<HTMLElement>("input:enabled")?.focus();
        onPress();
      }}
    >
      {say("none")}
    </button>
  );

interface CheckSetProps extends SetProps {
  chosen: readonly string[];
  onToggle: (id: string, on: boolean) => void;
  children?: ReactNode;
}

export function CheckSet({ options, arrangement, chosen, onToggle, children, ...rest }: CheckSetProps) {
  return (
    <ChoiceFrame {...rest} className={`cx-options cx-options-${arrangement}`} role="group">
      {options.map((option) => (
        <label key={option.id} className="cx-option" data-chosen={chosen.includes(option.id) || undefined}>
          <input
            type="checkbox"
            checked={chosen.includes(option.id)}
            disabled={rest.locked || (option.barred && !chosen.includes(option.id))}
            onChange={(event) => onToggle(option.id, event.target.checked)}
          />
          <OptionWords {...option} />
        </label>
      ))}
      {children}
    </ChoiceFrame>
  );
}

/** What is around choices of any look, so that they are one control with one name. */
export function ChoiceFrame({
  controlId,
  describedBy,
  invalid,
  required,
  className,
  role,
  children,
}: Pick<InputProps, "controlId" | "describedBy" | "invalid" | "required"> & {
  className: string;
  role: "radiogroup" | "group";
  children: ReactNode;
}) {
  const radios = role === "radiogroup";
  return (
    <div
      id={controlId}
      className={className}
      role={role}
      tabIndex={-1}
      data-invalid={invalid || undefined}
      aria-labelledby={`${controlId}-label`}
      aria-describedby={describedBy}
      aria-invalid={(radios && invalid) || undefined}
      aria-required={(radios && required) || undefined}
    >
      {children}
    </div>
  );
}

const MOST_OTHER = 500; // characters; what decides is the core (fields/options.py)

/** The box for the visitor's own words, beside the option that stands for them. */
export function OtherBox({
  controlId,
  label,
  text,
  locked,
  onText,
}: {
  controlId: string;
  label: string;
  text: string;
  locked: boolean;
  onText: (text: string) => void;
}) {
  return (
    <>
      <input
        id={`${controlId}-other`}
        className="cx-input cx-other"
        aria-label={label}
        placeholder={label}
        readOnly={locked}
        value={text}
        onChange={(event) => onText(event.target.value)}
      />
      <LengthTold text={text} most={MOST_OTHER} />
    </>
  );
}
