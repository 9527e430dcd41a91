// Settings told as data: a label, what it does, and how it is entered.
import FormControlLabel from "@mui/material/FormControlLabel";
import FormHelperText from "@mui/material/FormHelperText";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { same } from "../model/same";
import { MONO } from "../theme/theme";
import { DecimalField } from "./DecimalField";
import { LongTextField } from "./LongTextField";

interface Common {
  setting: string;
  label: string;
  help?: string;
  /** It means something only while another setting has one of these values. */
  only?: { setting: string; values: readonly string[] };
}

export type SettingRow =
  /** One that takes `values` has a list of what {name} can stand for. */
  | (Common & { entry: "text"; multiline?: boolean; mono?: boolean; values?: boolean })
  | (Common & { entry: "switch" })
  /** An exact number as text; empty is null. */
  | (Common & { entry: "decimal"; blank?: boolean })
  /** A whole number; empty is null where it may be blank, else `least`. */
  | (Common & { entry: "whole"; blank?: boolean; least?: number; most?: number })
  | (Common & { entry: "choice"; options: Readonly<Record<string, string>> })
  /** Any of them; `none` says what it is without one. */
  | (Common & { entry: "several"; options: Readonly<Record<string, string>>; none?: string });

/** Options that several settings have. */
export const SIZES = { small: "Small", normal: "Normal", large: "Large" } as const;
export const ALIGNMENTS = { start: "Where lines begin", centre: "In the middle", end: "Where lines end" } as const;

const takesValues = (does = false): object => (does ? { "data-values": "" } : {});

interface Props {
  rows: readonly SettingRow[];
  /** What has the settings: a part of the form, or a look. */
  of: object;
  edit: (changes: Record<string, unknown>) => void;
  /** Others that have the same settings and are edited with it; where they differ, that is said. */
  others?: readonly object[];
}

export function SettingRows({ rows, of, edit, others = [] }: Props) {
  const values: Readonly<Record<string, unknown>> = { ...of };
  const meant = ({ only }: SettingRow) => !only || only.values.includes(String(values[only.setting]));
  const differ = (setting: string) => others.some((other) => !same({ ...other }[setting as never], values[setting]));
  return rows
    .filter(meant)
    .map((row) =>
      differ(row.setting) ? (
        <Row key={row.setting} row={mixed(row)} value={NOTHING[row.entry]} edit={edit} />
      ) : (
        <Row key={row.setting} row={row} value={values[row.setting]} edit={edit} />
      ),
    );
}

const NOTHING = { text: "", switch: false, decimal: null, whole: null, choice: "", several: [] } as const;

/** A row whose values differ: it stands empty, and what is set in it is set everywhere. */
const mixed = (row: SettingRow): SettingRow => ({
  ...row,
  help: row.entry === "switch" ? "On in some of them." : "They differ; what is set here is set in all.",
});

/** What is chosen, in the order of the list, or what none of it means. */
const inWords = (row: { options: Readonly<Record<string, string>>; none?: string }, chosen: readonly string[]) => {
  const words = Object.entries(row.options).filter(([name]) => chosen.includes(name));
  return words.map(([, each]) => each).join(", ") || (row.none ?? "");
};

function Row({ row, value, edit }: { row: SettingRow; value: unknown; edit: Props["edit"] }) {
  const put = (changed: unknown) => edit({ [row.setting]: changed });
  switch (row.entry) {
    case "text":
      if (row.multiline)
        return (
          <LongTextField
            label={row.label}
            value={String(value ?? "")}
            helperText={row.help}
            onChange={(event) => put(event.target.value)}
            attributes={takesValues(row.values)}
          />
        );
      return (
        <TextField
          label={row.label}
          value={String(value ?? "")}
          helperText={row.help}
          onChange={(event) => put(event.target.value)}
          slotProps={{
            htmlInput: {
              ...takesValues(row.values),
              ...(row.mono ? { spellCheck: false, style: { fontFamily: MONO, fontSize: 13 } } : {}),
            },
          }}
        />
      );
    case "switch":
      return (
        <Box>
          <FormControlLabel
            sx={{ ml: 0, width: "100%", justifyContent: "space-between" }}
            labelPlacement="start"
            label={row.label}
            control={<Switch checked={value === true} onChange={(_event, on) => put(on)} />}
          />
          {row.help && <FormHelperText>{row.help}</FormHelperText>}
        </Box>
      );
    case "decimal":
      return (
        <DecimalField
          label={row.label}
          help={row.help}
          value={value === null ? null : String(value)}
          blank={row.blank !== false}
          onChange={put}
        />
      );
    case "whole":
      return (
        <DecimalField
          whole
          label={row.label}
          help={row.help}
          value={value === null ? null : String(value)}
          least={row.least ?? 0}
          most={row.most ?? 10_000}
          blank={row.blank ?? false}
          onChange={(changed) => put(changed === null ? null : Number(changed))}
        />
      );
    case "choice":
      return (
        <TextField
          select
          label={row.label}
          value={String(value)}
          helperText={row.help}
          // One of the choices may be the empty text, which has words too.
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          onChange={(event) => put(event.target.value)}
        >
          {Object.entries(row.options).map(([name, words]) => (
            <MenuItem key={name} value={name}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      );
    case "several":
      return (
        <TextField
          select
          label={row.label}
          value={value}
          helperText={row.help}
          slotProps={{
            select: {
              multiple: true,
              displayEmpty: row.none !== undefined,
              renderValue: (chosen) => inWords(row, chosen as readonly string[]),
            },
            inputLabel: { shrink: row.none !== undefined || undefined },
          }}
          onChange={(event) => put(event.target.value)}
        >
          {Object.entries(row.options).map(([name, words]) => (
            <MenuItem key={name} value={name}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      );
  }
}
