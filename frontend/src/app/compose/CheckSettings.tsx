// The checks of a part: what must hold, and what visitors are told where it does not.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import type { Check } from "../../api/generated/wire";
import type { Entry } from "../../model/parts";
import { useBench } from "../workbench/bench";
import { FormulaButton } from "./FormulaButton";
import { FormulaButtons } from "./FormulaButtons";
import type { ComposeActions } from "./actions";
import { LongTextField } from "../../ui/LongTextField";

interface Props {
  entry: Extract<Entry, { what: "block" | "kind" }>;
  actions: ComposeActions;
}

const LIMITS = [
  { setting: "earliest", title: "Not before", absent: "Any; set a limit" },
  { setting: "latest", title: "Not after", absent: "Any; set a limit" },
] as const;

export function CheckSettings({ entry, actions }: Props) {
  const { select } = useBench();
  if (!("checks" in entry.part)) return null;
  const { checks } = entry.part;
  const put = (next: readonly Check[]) => actions.edit(entry.id, { checks: next });
  return (
    <>
      <FormulaButtons entry={entry} formulas={LIMITS} />
      {checks.map((check, at) => (
        <Box key={at} sx={{ display: "grid", gridTemplateColumns: "minmax(0,1fr) 24px", gap: 1 }}>
          <FormulaButton
            part={entry.id}
            title={`Check ${at + 1}: must fit`}
            setting={`checks.${at}.formula`}
            text={check.formula}
            absent="Say what must hold"
          />
          <IconButton
            aria-label={`Remove check ${at + 1}`}
            onClick={() => put(checks.filter((_each, index) => index !== at))}
            sx={{ width: 24, height: 24, fontSize: 14 }}
          >
            ×
          </IconButton>
          <LongTextField
            label="What visitors are told"
            value={check.message}
            attributes={{ "data-values": (entry.what === "kind" ? entry.id : entry.kind) ?? "" }}
            onChange={(event) =>
              put(checks.map((each, index) => (index === at ? { ...each, message: event.target.value } : each)))
            }
          />
        </Box>
      ))}
      <Button
        sx={{ justifySelf: "start" }}
        onClick={() => {
          put([...checks, { formula: "", message: "" }]);
          select(entry.id, `checks.${checks.length}.formula`);
        }}
      >
        Add a check
      </Button>
    </>
  );
}
