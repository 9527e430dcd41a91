import TextField from "@mui/material/TextField";
import type { NumberField } from "../../api/generated/wire";
import { DecimalField } from "../../ui/DecimalField";
import type { SettingsProps } from "../settings";

export function NumberAnswers({ block, edit }: SettingsProps<NumberField>) {
  return (
    <>
      <DecimalField
        whole
        label="Decimals"
        value={String(block.decimals)}
        onChange={(value) => edit({ decimals: Math.min(10, Number(value ?? 0)) })}
      />
      <TextField
        label="Unit"
        value={block.unit}
        helperText="Shown behind the number: km, m, people"
        onChange={(event) => edit({ unit: event.target.value })}
      />
    </>
  );
}

export function NumberChecks({ block, edit }: SettingsProps<NumberField>) {
  return (
    <>
      <DecimalField label="Minimum" value={block.minimum} onChange={(minimum) => edit({ minimum })} />
      <DecimalField label="Maximum" value={block.maximum} onChange={(maximum) => edit({ maximum })} />
    </>
  );
}
