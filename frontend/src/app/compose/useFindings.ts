// What the core found in one formula.
import { useMemo } from "react";
import type { FindingReply, Form } from "../../api/generated/wire";
import { ORDER, PAYMENT, type Parts, partsOf, settingAt } from "../../model/parts";
import { useBench } from "../workbench/bench";

/** What the core says of a formula, while it speaks of the very text that stands there. */
export function useFindings(part: string, setting: string, text: string): FindingReply[] {
  const { analysis, analysed } = useBench();
  const own: Record<string, object> = { [ORDER]: analysed.order, [PAYMENT]: analysed.payment };
  const known = own[part] ?? analysedParts(analysed).get(part)?.part;
  const current = String(settingAt(known, setting) ?? "") === text;
  return useMemo(
    () => (current ? analysis.findings.filter((each) => each.block === part && each.setting === setting) : []),
    [current, analysis, part, setting],
  );
}

// Several formulas of one part stand side by side, and all ask.
const partsOfForms = new WeakMap<Form, Parts>();

function analysedParts(form: Form): Parts {
  const parts = partsOfForms.get(form) ?? partsOf(form);
  partsOfForms.set(form, parts);
  return parts;
}
