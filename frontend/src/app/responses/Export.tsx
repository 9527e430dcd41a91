// What is filtered as a file, for spreadsheets or programs: how it is written is chosen once, remembered on the device.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { api, type CsvFashion, type ExportKind } from "../../api/client";
import { inStorage } from "../../ui/in_storage";
import { PopoverButton } from "../../ui/PopoverButton";
import { mayEdit, useSignedIn } from "../signed_in";
import { MadeFiles } from "./MadeFiles";
import { askedOf, isFiltered } from "../filter/asked";
import type { Look } from "./look";

const PLACE = "codexa-csv";
const PLAIN: Fashion = { kind: "csv", with: "labels", separator: "comma", decimals: "point", mark: "yes", tries: "no" };

/** What the file is, and how it is written. */
type Fashion = CsvFashion & { kind: ExportKind };

const CHOICES = {
  kind: {
    title: "File",
    words: {
      csv: "CSV, for spreadsheets and programs",
      xlsx: "XLSX, typed, a sheet for each repeat",
      json: "JSON, by keys",
      jsonl: "JSON Lines, by keys",
    },
  },
  with: { title: "Options and numbers", words: { labels: "as people read them", codes: "as codes and plain numbers" } },
  separator: { title: "Between cells", words: { comma: "a comma", semicolon: "a semicolon", tab: "a tab" } },
  decimals: { title: "Plain numbers have", words: { point: "a point: 2.5", comma: "a comma: 2,5" } },
} as const;

const remembered = (): Fashion => ({
  ...PLAIN,
  ...inStorage(
    () => localStorage,
    (place) => JSON.parse(place.getItem(PLACE) ?? "{}") as Partial<Fashion>,
  ),
});

/** What can be chosen for a kind of file. */
const settingsOf = (kind: ExportKind) =>
  kind === "csv"
    ? (["kind", "with", "separator", "decimals"] as const)
    : kind === "xlsx"
      ? (["kind", "with"] as const)
      : (["kind"] as const);

interface Props {
  formId: string;
  look: Look;
  onImport: () => void;
}

export function Export({ formId, look, onImport }: Props) {
  const who = useSignedIn();
  const [fashion, setFashion] = useState(remembered);
  const choose = (changes: Partial<Fashion>) => {
    const chosen = { ...fashion, ...changes };
    setFashion(chosen);
    inStorage(
      () => localStorage,
      (place) => place.setItem(PLACE, JSON.stringify(chosen)),
    );
  };
  const { kind, ...written } = fashion;
  return (
    <PopoverButton
      variant="outlined"
      color="inherit"
      label={isFiltered(look) ? "Export these …" : "Export all …"}
      name="Export"
      width={340}
      room={2}
    >
      {(close) => (
        <>
          <Box sx={{ display: "grid", gap: 1.5 }}>
            {settingsOf(fashion.kind).map((setting) => (
              <TextField
                key={setting}
                select
                label={CHOICES[setting].title}
                disabled={setting === "decimals" && fashion.with === "labels"}
                value={fashion[setting]}
                helperText={
                  setting === "decimals" && fashion.with === "labels"
                    ? "As people read them, by the form’s language"
                    : ""
                }
                onChange={(event) => choose({ [setting]: event.target.value })}
              >
                {Object.entries(CHOICES[setting].words).map(([value, words]) => (
                  <MenuItem key={value} value={value}>
                    {words}
                  </MenuItem>
                ))}
              </TextField>
            ))}
            {fashion.kind === "csv" && (
              <FormControlLabel
                control={
                  <Switch
                    checked={fashion.mark === "yes"}
                    onChange={(_event, on) => choose({ mark: on ? "yes" : "no" })}
                  />
                }
                label="Mark it as UTF-8, for spreadsheets"
              />
            )}
            {(fashion.kind === "csv" || fashion.kind === "xlsx") && (
              <FormControlLabel
                control={
                  <Switch
                    checked={fashion.tries === "yes"}
                    onChange={(_event, on) => choose({ tries: on ? "yes" : "no" })}
                  />
                }
                label="What was handed in for practice, too"
              />
            )}
            <Button
              variant="contained"
              href={api.exportAddress(formId, kind, { ...written, ...askedOf(look), sort: look.sorts.join(",") })}
              download
              onClick={() => close()}
            >
              Download
            </Button>
            <MadeFiles
              formId={formId}
              kind={kind}
              asked={{ ...written, ...askedOf(look), sort: look.sorts.join(",") }}
            />
            {mayEdit(who) && (
              <Button
                color="inherit"
                onClick={() => {
                  close();
                  onImport();
                }}
              >
                Bring in responses from a table …
              </Button>
            )}
          </Box>
        </>
      )}
    </PopoverButton>
  );
}
