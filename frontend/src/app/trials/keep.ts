// Keeping answers as a trial: all that comes out of them now is what is expected from now on.
import type { Expected, Trial } from "../../api/generated/wire";
import { newId } from "../../model/new_block";
import { FORM } from "../../model/parts";
import type { Bench, Trying } from "../workbench/bench";

const today = (): string => new Date().toLocaleDateString("sv-SE");

export function keepAsTrial(
  { form, act }: Pick<Bench, "form" | "act">,
  trying: Pick<Trying, "answers" | "link" | "day" | "visitor">,
  outcome: Expected,
  name = `Trial ${form.trials.length + 1}`,
): Trial {
  const trial: Trial = {
    id: newId(),
    name,
    answers: { ...trying.answers },
    link: { ...trying.link },
    day: trying.day ?? today(),
    visitor: trying.visitor,
    expected: outcome,
  };
  act({ do: "add", parts: [trial], into: { holder: FORM, list: "trials" }, at: form.trials.length });
  return trial;
}
