// The options as a table: label · code · counts as. A pasted spreadsheet column, or two or three, fills it.
import Box from "@mui/material/Box";
import IconButton from "@mui/material/IconButton";
import InputBase from "@mui/material/InputBase";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { type ClipboardEvent, useState } from "react";
import type { Option, SingleChoiceField } from "../../api/generated/wire";
import { newId } from "../../model/new_block";
import { keyFrom } from "../../model/outline";
import { MONO } from "../../theme/theme";
import { DecimalField } from "../../ui/DecimalField";
import type { SettingsProps } from "../settings";
import { pastedOptions, PLAIN_OPTION } from "./paste";

const GRID = "minmax(0,1fr) 80px 52px 20px";

export function SingleChoiceAnswers({ block, edit }: SettingsProps<SingleChoiceField>) {
  const change = (id: string, changes: Partial<Option>) =>
    edit({ options: block.options.map((option) => (option.id === id ? { ...option, ...changes } : option)) });
  const add = (label: string) => {
    if (!label.trim()) return;
    const code = keyFrom(
      label,
      block.options.map((option) => option.code),
    );
    edit({ options: [...block.options, { id: newId(), code, label: label.trim(), counts_as: "0", ...PLAIN_OPTION }] });
  };
  const paste = (event: ClipboardEvent) => {
    const options = pastedOptions(
      event.clipboardData.getData("text/plain"),
      block.options.map((option) => option.code),
    );
    if (options.length === 0) return;
    event.preventDefault();
    edit({ options: [...block.options, ...options.map((option) => ({ ...option, id: newId() }))] });
  };
  return (
    <Box role="group" aria-label="Options" sx={{ display: "grid", gap: 0.5 }}>
      <Box
        aria-hidden="true"
        sx={{
          display: "grid",
          gridTemplateColumns: GRID,
          gap: 0.5,
          fontSize: 12,
          fontWeight: 650,
          color: "text.secondary",
        }}
      >
        <span>Label</span>
        <span>Code</span>
        <Box component="span" sx={{ textAlign: "right" }}>
          Counts as
        </Box>
      </Box>
      {block.options.map((option, index) => (
        <OptionRow
          key={option.id}
          option={option}
          number={index + 1}
          onChange={(changes) => change(option.id, changes)}
          onRemove={() => edit({ options: block.options.filter((each) => each.id !== option.id) })}
        />
      ))}
      <NewOption onAdd={add} onPaste={paste} />
      <Typography variant="caption" color="text.secondary">
        Paste a spreadsheet’s columns into the last line: label, or label and number, or label, code and number.
      </Typography>
    </Box>
  );
}

function OptionRow({
  option,
  number,
  onChange,
  onRemove,
}: {
  option: Option;
  number: number;
  onChange: (changes: Partial<Option>) => void;
  onRemove: () => void;
}) {
  const [code, setCode] = useState<string | null>(null);
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: GRID,
        gap: 0.5,
        alignItems: "start",
        "& .MuiInputBase-input": { px: 0.75, py: 0.5, fontSize: 13 },
      }}
    >
      <TextField
        value={option.label}
        onChange={(event) => onChange({ label: event.target.value })}
        slotProps={{ htmlInput: { "aria-label": `Label of option ${number}` } }}
      />
      <TextField
        value={code ?? option.code}
        onChange={(event) => {
          setCode(event.target.value);
          if (event.target.value.trim()) onChange({ code: event.target.value.trim() });
        }}
        onBlur={() => setCode(null)}
        slotProps={{
          htmlInput: {
            "aria-label": `Code of option ${number}`,
            spellCheck: false,
            style: { fontFamily: MONO, fontSize: 12 },
          },
        }}
      />
      <DecimalField
        hideLabel
        label={`Option ${number} counts as`}
        value={option.counts_as}
        onChange={(value) => onChange({ counts_as: value ?? "0" })}
      />
      <IconButton
        aria-label={`Remove option ${number}`}
        onClick={onRemove}
        sx={{ width: 20, height: 28, fontSize: 14 }}
      >
        ×
      </IconButton>
    </Box>
  );
}

function NewOption({ onAdd, onPaste }: { onAdd: (label: string) => void; onPaste: (event: ClipboardEvent) => void }) {
  const [label, setLabel] = useState("");
  const keep = () => {
    onAdd(label);
    setLabel("");
  };
  return (
    <InputBase
      value={label}
      placeholder="New option"
      onChange={(event) => setLabel(event.target.value)}
      onPaste={onPaste}
      onBlur={keep}
      onKeyDown={(event) => event.key === "Enter" && keep()}
      inputProps={{ "aria-label": "New option" }}
      sx={{ px: 0.75, borderBottom: 1, borderColor: "divider" }}
    />
  );
}

export function SingleChoiceLook({ block, edit }: SettingsProps<SingleChoiceField>) {
  return (
    <TextField
      select
      label="Options stand"
      value={block.arrangement}
      onChange={(event) => edit({ arrangement: event.target.value as SingleChoiceField["arrangement"] })}
    >
      <MenuItem value="column">one under another</MenuItem>
      <MenuItem value="row">side by side</MenuItem>
    </TextField>
  );
}
