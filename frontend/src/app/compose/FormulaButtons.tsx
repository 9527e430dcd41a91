// The formulas of a part that its type has, of a list of them.
import type { Entry } from "../../model/parts";
import { FormulaButton } from "./FormulaButton";

interface Props {
  entry: Entry;
  formulas: readonly { setting: string; title: string; absent: string }[];
}

export function FormulaButtons({ entry, formulas }: Props) {
  const values: Readonly<Record<string, unknown>> = { ...entry.part };
  return formulas
    .filter(({ setting }) => setting in entry.part)
    .map(({ setting, title, absent }) => (
      <FormulaButton
        key={setting}
        part={entry.id}
        title={title}
        setting={setting}
        text={String(values[setting] ?? "")}
        absent={absent}
      />
    ));
}
