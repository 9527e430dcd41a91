// The formula of a figure.
import type { Figure } from "../../model/parts";
import { FormulaField } from "../compose/FormulaField";
import { useBench } from "../workbench/bench";

interface Props {
  figure: Pick<Extract<Figure, { kind: "formula" }>, "id" | "formula">;
  edit: (changes: { formula: string }) => void;
}

export function FormulaEditorOfFigure({ figure, edit }: Props) {
  const { mayEdit, setting } = useBench();
  return (
    <FormulaField
      part={figure.id}
      setting="formula"
      text={figure.formula}
      rowKind={null}
      readOnly={!mayEdit}
      focused={setting === "formula"}
      onChange={(formula) => edit({ formula })}
    />
  );
}
