// What a slot block offers: where its times are made, by which field, when they can be had, and what may be done later.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { Link as RouterLink } from "react-router";
import type { SlotField } from "../../api/generated/wire";
import { useBench } from "../workbench/bench";
import { FormulaButton } from "./FormulaButton";
import type { ComposeActions } from "./actions";

export function SlotSettings({ block, actions }: { block: SlotField; actions: ComposeActions }) {
  const { reply, parts, mayEdit } = useBench();
  const edit = (changes: Partial<SlotField>) => actions.edit(block.id, changes);
  const fields = [...parts.values()].flatMap((entry) => (entry.what === "block" ? [entry.part] : []));
  const choices = fields.filter(({ type }) => type === "single_choice" || type === "dropdown");
  const people = fields.filter(({ type }) => ["email", "short_text", "phone", "name", "number"].includes(type));
  const byField = (label: string, value: string, among: typeof fields, none: string, change: (id: string) => void) => (
    <TextField
      select
      label={label}
      value={among.some(({ id }) => id === value) ? value : ""}
      disabled={!mayEdit}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      onChange={(event) => change(event.target.value)}
    >
      <MenuItem value="">{none}</MenuItem>
      {among.map((each) => (
        <MenuItem key={each.id} value={each.id}>
          {("label" in each && each.label) || each.key}
        </MenuItem>
      ))}
    </TextField>
  );
  const toggle = (label: string, setting: "left_shown" | "waiting") => (
    <FormControlLabel
      sx={{ ml: 0, justifyContent: "space-between" }}
      labelPlacement="start"
      label={label}
      control={
        <Switch checked={block[setting]} disabled={!mayEdit} onChange={(_event, on) => edit({ [setting]: on })} />
      }
    />
  );
  return (
    <Box role="group" aria-label="Slots" sx={{ display: "grid", gap: 1.5 }}>
      <Typography>
        {block.series.length === 0 && block.singles.length === 0
          ? "No times yet."
          : `${counted(block.series.length, "series", "series")}, ${counted(block.singles.length, "slot", "slots")} set by hand.`}
      </Typography>
      <Button variant="outlined" component={RouterLink} to={`/forms/${reply.id}/slots`} sx={{ justifySelf: "start" }}>
        Open the week
      </Button>
      {byField("Each slot is at", block.by, choices, "one place; or by a field", (by) => edit({ by }))}
      <FormulaButton
        part={block.id}
        title="A response takes"
        setting="taking"
        text={block.taking}
        absent="One place; or work it out"
      />
      {toggle("Show how many places are left", "left_shown")}
      {toggle("Whoever finds it full can wait", "waiting")}
      {byField("One person is known by", block.each, people, "nothing", (each) =>
        edit(each ? { each } : { each, most_each: null }),
      )}
    </Box>
  );
}

const counted = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`;
