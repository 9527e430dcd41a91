// When a block is shown, required and locked, what it begins as, and who reads it.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import Typography from "@mui/material/Typography";
import { isQuestion } from "../../model/blocks";
import type { Entry } from "../../model/parts";
import { type SettingRow, SettingRows } from "../../ui/SettingRows";
import { useBench } from "../workbench/bench";
import { useOpenPart } from "../workbench/useOpenPart";
import { FilledInBy } from "./FilledInBy";
import { FormulaButton } from "./FormulaButton";
import { FormulaButtons } from "./FormulaButtons";
import { FromVisitor } from "./FromVisitor";
import { Heading } from "./InspectorFrame";

interface Props {
  entry: Extract<Entry, { what: "block" | "kind" | "page" }>;
  edit: (changes: Record<string, unknown>) => void;
}

// In the order in which people think of it; a part has those that its type has.
const FORMULAS = [
  { setting: "formula", title: "Worked out by", absent: "Write a formula" },
  { setting: "shown", title: "Shown when", absent: "Always; add a rule" },
  { setting: "default", title: "Begins as", absent: "Blank; give it a default" },
  { setting: "locked", title: "Locked when", absent: "Never; add a rule" },
  { setting: "fitting", title: "Offers records of which", absent: "All; filter the records" },
  { setting: "offered", title: "Offers an option when", absent: "Always; filter the options" },
] as const;

const FOLLOWS: SettingRow = {
  entry: "switch",
  setting: "default_follows",
  label: "Follow the default until it is changed",
  help: "It is worked out again with every answer it reads, and always while the field is locked. Else once only.",
};

/** What becomes of an answer. */
export const KEEPING: readonly SettingRow[] = [
  {
    entry: "switch",
    setting: "keep_when_hidden",
    label: "Keep the answer when hidden",
    help: "Else a hidden answer is blank to every formula, and not kept with the response.",
  },
  {
    entry: "switch",
    setting: "personal",
    label: "Tells of a person",
    help: "Anonymising a response empties such answers, as the newest edition says; all others stay and are counted.",
  },
];

export function BehaviourSettings({ entry, edit }: Props) {
  return (
    <>
      {"required" in entry.part && (
        <Required part={entry.id} value={entry.part.required} edit={edit} what={entry.what} />
      )}
      {entry.what !== "kind" && <FilledInBy entry={entry} edit={edit} />}
      <FormulaButtons entry={entry} formulas={FORMULAS} />
      {entry.what === "block" && isQuestion(entry.part) && <FromVisitor part={entry.part} edit={edit} />}
      {entry.what === "block" && isQuestion(entry.part) && (
        <SettingRows rows={[...(entry.part.default.trim() ? [FOLLOWS] : []), ...KEEPING]} of={entry.part} edit={edit} />
      )}
      <UsedBy part={entry.id} />
    </>
  );
}

function Required({ part, value, what, edit }: { part: string; value: string; what: string; edit: Props["edit"] }) {
  const required = value.trim();
  const label =
    what === "page" ? "All of it must be answered" : what === "kind" ? "At least one such row" : "Must be answered";
  return (
    <>
      <FormControlLabel
        sx={{ ml: 0, justifyContent: "space-between" }}
        labelPlacement="start"
        label={label}
        control={<Switch checked={required !== ""} onChange={(_event, on) => edit({ required: on ? "TRUE" : "" })} />}
      />
      {required !== "" && (
        <FormulaButton
          part={part}
          title="Must be answered when"
          setting="required"
          text={required.toUpperCase() === "TRUE" ? "" : required}
          absent="Always; add a condition"
        />
      )}
    </>
  );
}

function UsedBy({ part }: { part: string }) {
  const { analysis, parts } = useBench();
  const open = useOpenPart();
  const readBy = (analysis.links[part]?.read_by ?? []).flatMap((id) => parts.get(id) ?? []);
  if (!analysis.links[part]) return null;
  return (
    <Box>
      <Heading>Used by</Heading>
      {readBy.length === 0 && <Typography variant="body2">No rule, formula or text reads this.</Typography>}
      {readBy.map((entry) => (
        <Button
          key={entry.id}
          color="inherit"
          size="small"
          onClick={() => open(entry.id)}
          sx={{ display: "block", px: 0.5, textAlign: "left" }}
        >
          {entry.number} {entry.title}
        </Button>
      ))}
    </Box>
  );
}
