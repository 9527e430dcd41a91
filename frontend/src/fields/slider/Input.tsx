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
  const at = text === "" ? Math.round(steps / 2) : indexOf(text, written, values, steps);
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
        onPointerUp={() => text === "" && onChange(written(values(at)))}
      />
      <output htmlFor={controlId}>{shown}</output>
    </div>
  );
}

function indexOf(text: string, written: (value: number) => string, values: (at: number) => number, steps: number) {
  for (let at = 0; at <= steps; at += 1) if (written(values(at)) === text) return at;
  return 0;
}
