// What the inspector shows while no block is selected: the form's own settings.
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Wording } from "../../api/generated/wire";
import { useBench } from "../workbench/bench";

const LANGUAGES: Record<string, string> = {
  en: "English",
  de: "German",
  fr: "French",
  es: "Spanish",
  it: "Italian",
  nl: "Dutch",
  pl: "Polish",
  pt: "Portuguese",
  sv: "Swedish",
};
const CURRENCIES = ["EUR", "CHF", "GBP", "USD", "SEK", "NOK", "DKK", "PLN", "JPY"];
const WORDING: { setting: keyof Wording; title: string; multiline?: boolean }[] = [
  { setting: "submit", title: "Button" },
  { setting: "required", title: "When a required answer is missing" },
  { setting: "confirmation_title", title: "Confirmation: heading" },
  { setting: "confirmation_text", title: "Confirmation: text", multiline: true },
];

export function FormSettings() {
  const { form, act, mayEdit } = useBench();
  const wording = (setting: keyof Wording, text: string) =>
    act({ do: "edit_form", changes: { wording: { ...form.wording, [setting]: text } } });
  return (
    <Box
      component="fieldset"
      disabled={!mayEdit}
      sx={{ m: 0, p: 2, border: 0, overflow: "auto", display: "grid", gap: 2, alignContent: "start" }}
    >
      <Box>
        <Typography variant="h2">The form</Typography>
        <Typography variant="body2" color="text.secondary">
          Select a block to see its settings here.
        </Typography>
      </Box>
      <Colour />
      <Choice
        title="Language"
        value={form.locale}
        options={LANGUAGES}
        onChange={(locale) => act({ do: "edit_form", changes: { locale } })}
      />
      <Choice
        title="Currency"
        value={form.currency}
        options={Object.fromEntries(CURRENCIES.map((code) => [code, code]))}
        onChange={(currency) => act({ do: "edit_form", changes: { currency } })}
      />
      <Typography variant="h3" color="text.secondary">
        What the form says
      </Typography>
      {WORDING.map(({ setting, title, multiline }) => (
        <TextField
          key={setting}
          label={title}
          value={form.wording[setting]}
          multiline={multiline ?? false}
          onChange={(event) => wording(setting, event.target.value)}
        />
      ))}
    </Box>
  );
}

function Choice({
  title,
  value,
  options,
  onChange,
}: {
  title: string;
  value: string;
  options: Record<string, string>;
  onChange: (value: string) => void;
}) {
  const known = value in options ? options : { ...options, [value]: value };
  return (
    <TextField select label={title} value={value} onChange={(event) => onChange(event.target.value)}>
      {Object.entries(known).map(([code, name]) => (
        <MenuItem key={code} value={code}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** Contrast of white text on a colour (WCAG 2.2, 1.4.3). */
function contrastWithWhite(colour: string): number {
  const channel = (at: number) => {
    const value = parseInt(colour.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  };
  return 1.05 / (0.2126 * channel(1) + 0.7152 * channel(3) + 0.0722 * channel(5) + 0.05);
}

function Colour() {
  const { form, act } = useBench();
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed ?? form.brand.accent;
  const contrast = contrastWithWhite(form.brand.accent);
  const change = (accent: string) => {
    setTyped(accent);
    if (!/^#[0-9a-f]{6}$/i.test(accent)) return;
    act({ do: "edit_form", changes: { brand: { ...form.brand, accent } } });
    setTyped(null);
  };
  return (
    <TextField
      label="Colour"
      value={shown}
      error={contrast < 4.5}
      helperText={
        contrast < 4.5
          ? `White text on it has a contrast of ${contrast.toFixed(1)}; 4.5 is needed. Choose a darker one.`
          : `White text on it has a contrast of ${contrast.toFixed(1)}.`
      }
      onChange={(event) => change(event.target.value)}
      onBlur={() => setTyped(null)}
      slotProps={{
        input: {
          startAdornment: (
            <Box
              component="input"
              type="color"
              aria-label="Pick the colour"
              value={form.brand.accent}
              onChange={(event) => change(event.target.value)}
              sx={{ width: 26, height: 24, mr: 1, p: 0, border: 0, background: "none" }}
            />
          ),
        },
      }}
    />
  );
}
