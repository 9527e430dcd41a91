// A counter: conditions, and how much each adds while it holds.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import type { Figure } from "../../model/parts";
import { DecimalField } from "../../ui/DecimalField";
import { FormulaField } from "../compose/FormulaField";
import { useBench } from "../workbench/bench";
import type { EditorProps } from "./editor_props";

type Counter = Extract<Figure, { kind: "counter" }>;
type Counted = Counter["counts"][number];

export function CounterEditor({ figure, edit }: EditorProps<Counter>) {
  const { mayEdit } = useBench();
  const { counts } = figure;
  const change = (at: number, changes: Partial<Counted>) =>
    edit({ counts: counts.map((each, index) => (index === at ? { ...each, ...changes } : each)) });
  return (
    <Box sx={{ display: "grid", gap: 2 }}>
      <Box sx={{ maxWidth: 160 }}>
        <DecimalField label="Begins at" value={figure.start} onChange={(start) => edit({ start: start ?? "0" })} />
      </Box>
      {counts.map((counted, at) => (
        <Box
          key={at}
          role="group"
          aria-label={`Condition ${at + 1}`}
          sx={{ display: "grid", gridTemplateColumns: "92px minmax(0,1fr) 28px", gap: 1.5, alignItems: "start" }}
        >
          <DecimalField label="Adds" value={counted.by} onChange={(by) => change(at, { by: by ?? "1" })} />
          <Box sx={{ pt: 3 }}>
            <FormulaField
              part={figure.id}
              setting={`counts.${at}.when`}
              text={counted.when}
              rowKind={null}
              readOnly={!mayEdit}
              onChange={(when) => change(at, { when })}
            />
          </Box>
          <IconButton
            aria-label={`Remove condition ${at + 1}`}
            onClick={() => edit({ counts: counts.filter((_each, index) => index !== at) })}
            sx={{ fontSize: 14 }}
          >
            ×
          </IconButton>
        </Box>
      ))}
      <Button sx={{ justifySelf: "start" }} onClick={() => edit({ counts: [...counts, { when: "", by: "1" }] })}>
        Add a condition
      </Button>
    </Box>
  );
}
