import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { CalculatedField } from "../../api/generated/wire";
import { DecimalField } from "../../ui/DecimalField";
import type { SettingsProps } from "../settings";

const FORMATS: Record<CalculatedField["format"], string> = {
  number: "Number",
  percent: "Percent",
  money: "Money in the form’s currency",
  text: "Text",
  date: "Date",
};

export function CalculatedAnswers({ block, edit }: SettingsProps<CalculatedField>) {
  return (
    <>
      <TextField
        select
        label="Shown as"
        value={block.format}
        onChange={(event) => edit({ format: event.target.value as CalculatedField["format"] })}
      >
        {Object.entries(FORMATS).map(([format, words]) => (
          <MenuItem key={format} value={format}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      {block.format === "number" && (
        <DecimalField
          whole
          label="Decimals shown"
          value={String(block.decimals)}
          onChange={(value) => edit({ decimals: Math.min(10, Number(value ?? 0)) })}
        />
      )}
    </>
  );
}
