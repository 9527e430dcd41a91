// A row kind: one of the shapes that a row of a repeat may take.
import TextField from "@mui/material/TextField";
import type { Entry } from "../../model/parts";
import { type SettingRow, SettingRows } from "../../ui/SettingRows";
import { BehaviourSettings } from "./BehaviourSettings";
import { CheckSettings } from "./CheckSettings";
import { InspectorFrame } from "./InspectorFrame";
import { KeySetting } from "./KeySetting";
import type { ComposeActions } from "./actions";

const ROWS: readonly SettingRow[] = [
  {
    entry: "text",
    setting: "add_label",
    label: "Words on the button that adds one",
    help: "Empty for “Add” and the label",
  },
  {
    entry: "switch",
    setting: "one_line",
    label: "Each row in one line",
    help: "Like a table, where its blocks fit beside one another",
  },
  { entry: "whole", setting: "min_rows", label: "At least so many of them" },
  {
    entry: "whole",
    blank: true,
    least: 1,
    most: 500,
    setting: "max_rows",
    label: "At most so many of them",
    help: "Empty for as many as the repeat takes",
  },
];

interface Props {
  entry: Extract<Entry, { what: "kind" }>;
  actions: ComposeActions;
}

export function RowKindSettings({ entry, actions }: Props) {
  const kind = entry.part;
  const edit = (changes: Record<string, unknown>) => actions.edit(kind.id, changes);
  return (
    <InspectorFrame
      number={entry.number}
      what="Row kind"
      name={kind.key}
      title={entry.title}
      actions={actions}
      duplicable
    >
      <TextField
        label="Label"
        value={kind.label}
        slotProps={{ htmlInput: { "data-values": "" } }}
        onChange={(event) => edit({ label: event.target.value })}
      />
      <KeySetting id={kind.id} value={kind.key} actions={actions} />
      <SettingRows rows={ROWS} of={kind} edit={edit} />
      <BehaviourSettings entry={entry} edit={edit} />
      <CheckSettings entry={entry} actions={actions} />
    </InspectorFrame>
  );
}
