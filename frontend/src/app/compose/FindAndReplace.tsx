// Words replaced in all that the form says, with what that changes told before.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useDeferredValue, useMemo, useState } from "react";
import { replaced } from "../../model/replacing";
import { counted } from "../../text/words";
import { PopoverButton } from "../../ui/PopoverButton";
import { useBench } from "../workbench/bench";

export function FindAndReplace({ search }: { search: string }) {
  return (
    <PopoverButton label="Replace …" name="Replace words" width={360} room={2} color="inherit">
      {(close) => <Replacing search={search} onDone={close} />}
    </PopoverButton>
  );
}

function Replacing({ search, onDone }: { search: string; onDone: () => void }) {
  const { form, parts, act, selectAll } = useBench();
  const [find, setFind] = useState(search);
  const [by, setBy] = useState("");
  const [exact, setExact] = useState(false);
  const asked = useDeferredValue(find);
  const found = useMemo(() => replaced(form, { find: asked, by, exact }), [form, asked, by, exact]);
  const names = found.parts.flatMap((id) => parts.get(id) ?? []).map(({ number, title }) => number || title);
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <TextField autoFocus label="Words" value={find} onChange={(event) => setFind(event.target.value)} />
      <TextField label="Replaced by" value={by} onChange={(event) => setBy(event.target.value)} />
      <FormControlLabel
        control={<Switch checked={exact} onChange={(event) => setExact(event.target.checked)} />}
        label="Capitals count"
      />
      <Typography role="status">
        {asked ? `${counted(found.texts, "text")} in ${counted(found.parts.length, "part")}` : "Nothing is looked for."}
        {names.length > 0 && `: ${names.slice(0, 12).join(", ")}${names.length > 12 ? " …" : ""}`}
      </Typography>
      <Alert severity="info">
        All that people read: labels, help, options, messages, mails. Keys and formulas stay; they are renamed with
        their field. Translations say that they are of another text now.
      </Alert>
      <Button
        variant="contained"
        disabled={found.texts === 0 || asked !== find}
        onClick={() => {
          act({ do: "replace", base: form, form: found.form });
          selectAll(found.parts.filter((id) => parts.get(id)?.what === "block"));
          onDone();
        }}
      >
        Replace in {counted(found.texts, "text")}
      </Button>
    </Box>
  );
}
