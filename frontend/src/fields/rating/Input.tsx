import type { RatingFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import { ChoiceFrame, ChooseNone } from "../choice_set";
import { type InputProps, textOf } from "../input";

const PATHS: Record<RatingFace["icon"], string> = {
  star: "M12 2.6l2.9 6 6.5.9-4.7 4.6 1.1 6.5-5.8-3.1-5.8 3.1 1.1-6.5L2.600 9.500l6.500-.9z",
  heart:
    "M12 20.500C6.500 16.200 3 13.100 3 9.300 3 6.500 5.100 4.500 7.600 4.500c1.800 0 3.400 1 4.400 2.500 1-1.500 2.600-2.500 4.400-2.500 2.500 0 4.600 2 4.600 4.800 0 3.800-3.500 6.900-9 11.200z",
  moon: "M15.500 3.200a9 9 0 1 0 5.300 13.400A8.200 8.200 0 0 1 15.500 3.200z",
  dot: "M12 5a7 7 0 1 0 .001 0z",
};

export function RatingInput(props: InputProps<RatingFace>) {
  const { block, controlId, answer, required, locked, onChange } = props;
  const chosen = Number(textOf(answer)) || 0;
  return (
    <ChoiceFrame {...props} className="cx-rating" role="radiogroup">
      {Array.from({ length: block.count }, (_each, index) => index + 1).map((value) => (
        <label key={value} data-on={value <= chosen || undefined}>
          <input
            type="radio"
            name={controlId}
            checked={chosen === value}
            disabled={locked && chosen !== value}
            aria-label={say("rated", { value: value, count: block.count })}
            onChange={() => onChange(String(value))}
          />
          <svg viewBox="0 0 24 24" aria-hidden="true">
            <path d={PATHS[block.icon]} />
          </svg>
        </label>
      ))}
      <ChooseNone off={chosen === 0 || required || locked} onPress={() => onChange(null)} />
    </ChoiceFrame>
  );
}
