// All responses as a file for spreadsheets or programs: how it is written is chosen once, and remembered on the device.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Popover from "@mui/material/Popover";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { api, type CsvFashion } from "../../api/client";
import { inStorage } from "../../ui/in_storage";

const PLACE = "codexa-csv";
const PLAIN: CsvFashion = { with: "labels", separator: "comma", decimals: "point", mark: "yes", tries: "no" };

const CHOICES = {
  with: { title: "Options and numbers", words: { labels: "as people read them", codes: "as codes and plain numbers" } },
  separator: { title: "Between cells", words: { comma: "a comma", semicolon: "a semicolon", tab: "a tab" } },
  decimals: { title: "Plain numbers have", words: { point: "a point: 2.5", comma: "a comma: 2,5" } },
} as const;

const remembered = (): CsvFashion => ({
  ...PLAIN,
  ...inStorage(
    () => localStorage,
    (place) => JSON.parse(place.getItem(PLACE) ?? "{}") as Partial<CsvFashion>,
  ),
});

export function AsCsv({ formId }: { formId: string }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [fashion, setFashion] = useState(remembered);
  const choose = (changes: Partial<CsvFashion>) => {
    const chosen = { ...fashion, ...changes };
    setFashion(chosen);
    inStorage(
      () => localStorage,
      (place) => place.setItem(PLACE, JSON.stringify(chosen)),
    );
  };
  return (
    <>
      <Button
        variant="outlined"
        color="inherit"
        aria-haspopup="dialog"
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        All as CSV …
      </Button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: "bottom", horizontal: "right" }}
        transformOrigin={{ vertical: "top", horizontal: "right" }}
        slotProps={{ paper: { role: "dialog", "aria-label": "All as CSV", sx: { p: 2, width: 300 } } }}
      >
        <Box sx={{ display: "grid", gap: 1.5 }}>
          {(["with", "separator", "decimals"] as const).map((setting) => (
            <TextField
              key={setting}
              select
              label={CHOICES[setting].title}
              disabled={setting === "decimals" && fashion.with === "labels"}
              value={fashion[setting]}
              helperText={
                setting === "decimals" && fashion.with === "labels" ? "As people read them, by the form’s language" : ""
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
          <FormControlLabel
            control={
              <Switch checked={fashion.mark === "yes"} onChange={(_event, on) => choose({ mark: on ? "yes" : "no" })} />
            }
            label="Mark it as UTF-8, for spreadsheets"
          />
          <FormControlLabel
            control={
              <Switch
                checked={fashion.tries === "yes"}
                onChange={(_event, on) => choose({ tries: on ? "yes" : "no" })}
              />
            }
            label="What was handed in for practice, too"
          />
          <Button
            variant="contained"
            href={api.exportAddress(formId, fashion)}
            download
            onClick={() => setAnchor(null)}
          >
            Download
          </Button>
        </Box>
      </Popover>
    </>
  );
}
