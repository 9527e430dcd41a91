import type { SliderFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import { type InputProps, textOf, useTools } from "../input";

export function SliderInput(props: InputProps<SliderFace>) {
  const { block, controlId, answer, describedBy, invalid, locked, required, onChange } = props;
  const { locale } = useTools();
  const decimals = block.step.split(".")[1]?.length ?? 0;
  const written = (value: number) =>
    value.toLocaleString(locale.replace("_", "-"), {
      minimumFractionDigits: decimals,
      maximumFractionDigits: decimals,
    });
  // A slider's own number is a step count: the browser's binary floats never reach the answer.
  const steps = Math.round((Number(block.most) - Number(block.least)) / Number(block.step));
  const values = (at: number) => Number(block.least) + at * Number(block.step);
  const text = textOf(answer);
  const at =
    text === "" ? Math.round(steps / 2) : Math.round((numberIn(text, locale) - values(0)) / Number(block.step));
  const shown = text === "" ? say("notMoved") : `${text} ${block.unit}`.trim();
  return (
    <div className="cx-slider" data-blank={text === "" || undefined}>
      <input
        id={controlId}
        type="range"
        min={0}
        max={steps}
        step={1}
        value={at}
        disabled={locked}
        aria-valuetext={shown}
        aria-invalid={invalid || undefined}
        aria-required={required || undefined}
        aria-describedby={describedBy}
        onChange={(event) => onChange(written(values(Number(event.target.value))))}
        // A click where it stands already is a choice too.
        onPointerUp={() => text === "" && !locked && onChange(written(values(at)))}
      />
      <output htmlFor={controlId}>{shown}</output>
    </div>
  );
}

/** The number that a text of that language means, whether it was written here or by the core. */
function numberIn(text: string, locale: string): number {
  const parts = new Intl.NumberFormat(locale.replace("_", "-")).formatToParts(0.5);
  const point = parts.find((part) => part.type === "decimal")?.value ?? ".";
  const digits = text
    .replaceAll("\u2212", "-")
    .replaceAll(point, ";")
    .replaceAll(/[^\d;-]/g, "");
  return Number(digits.replace(";", "."));
}
