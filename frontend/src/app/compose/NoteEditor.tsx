// A note opened where it stands: its condition as rows or its formula, what is wrong with it, and what it may say.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useEffect, useRef } from "react";
import { changeAt, type Entry, settingAt } from "../../model/parts";
import { NOTE_KINDS } from "../../text/words";
import { useBench } from "../workbench/bench";
import { FormulaField } from "./FormulaField";
import { formulaSetting } from "./settings_text";
import type { ComposeActions } from "./actions";
import { LongTextField } from "../../ui/LongTextField";

interface Props {
  entry: Entry;
  setting: string;
  actions: ComposeActions;
}

export function NoteEditor({ entry, setting, actions }: Props) {
  const { select, mayEdit } = useBench();
  const { kind, title } = formulaSetting(setting)!;
  const text = String(settingAt(entry.part, setting) ?? "");
  const box = useRef<HTMLDivElement>(null);
  const edit = (path: string, value: unknown) => actions.edit(entry.id, changeAt(entry.part, path, value));
  useEffect(() => {
    box.current?.scrollIntoView({ block: "nearest" });
  }, []);
  useEffect(() => {
    const closeOutside = (event: PointerEvent) => {
      const target = event.target as Element;
      const elsewhere =
        !box.current?.contains(target) && !target.closest(".cm-tooltip, .MuiPopper-root, .MuiPopover-root");
      if (elsewhere) select(entry.id);
    };
    addEventListener("pointerdown", closeOutside);
    return () => removeEventListener("pointerdown", closeOutside);
  });
  return (
    <Box
      ref={box}
      role="group"
      aria-label={`${title}: formula`}
      data-editor
      sx={{
        p: 1.25,
        borderLeft: 2,
        borderColor: `note.${kind}`,
        borderBottom: "1px solid",
        borderBottomColor: "divider",
      }}
    >
      <Typography variant="body2" sx={{ mb: 0.5, fontWeight: 650, color: `note.${kind}` }}>
        {NOTE_KINDS[kind].sign} {title}
      </Typography>
      <FormulaField
        part={entry.id}
        setting={setting}
        text={text}
        rowKind={entry.kind}
        readOnly={!mayEdit}
        focused
        onChange={(changed) => edit(setting, changed)}
        onDone={() => select(entry.id)}
      />
      <Companion entry={entry} setting={setting} edit={edit} />
      <Box sx={{ display: "flex", justifyContent: "space-between", mt: 0.5 }}>
        <Button onClick={() => select(entry.id)}>Done</Button>
        {mayEdit && setting === "required" && text.trim().toUpperCase() !== "TRUE" && (
          <Button color="inherit" onClick={() => edit(setting, "TRUE")}>
            Always
          </Button>
        )}
        {mayEdit && (text !== "" || setting.includes(".")) && (
          <Button
            color="inherit"
            onClick={() => {
              const removed = withoutPiece(entry, setting);
              if (removed) actions.edit(entry.id, removed);
              else edit(setting, "");
              select(entry.id);
            }}
          >
            Remove
          </Button>
        )}
      </Box>
    </Box>
  );
}

/** Checks and rules for the next page are removed whole; what belongs to an option or a paragraph only emptied. */
function withoutPiece(entry: Entry, setting: string): Record<string, unknown> | null {
  const [list = "", index] = setting.split(".");
  if (list !== "checks" && list !== "next") return null;
  const pieces = settingAt(entry.part, list) as unknown[];
  return { [list]: pieces.filter((_piece, at) => String(at) !== index) };
}

/** What belongs to a formula that stands in a list: a check's message, a rule's page. */
function Companion({
  entry,
  setting,
  edit,
}: {
  entry: Entry;
  setting: string;
  edit: (path: string, value: unknown) => void;
}) {
  const { form, parts, mayEdit } = useBench();
  const [list, index] = setting.split(".");
  if (list === "checks")
    return (
      <LongTextField
        label="What visitors are told"
        value={String(settingAt(entry.part, `checks.${index}.message`) ?? "")}
        disabled={!mayEdit}
        attributes={{ "data-values": (entry.what === "kind" ? entry.id : entry.kind) ?? "" }}
        onChange={(event) => edit(`checks.${index}.message`, event.target.value)}
        sx={{ mt: 1.5 }}
      />
    );
  if (list !== "next") return null;
  const later = form.pages.slice(form.pages.findIndex((page) => page.id === entry.id) + 1);
  const to = String(settingAt(entry.part, `next.${index}.to`) ?? "");
  return (
    <TextField
      select
      label="Goes on to"
      value={to === "" || later.some((page) => page.id === to) ? to || "end" : "gone"}
      disabled={!mayEdit}
      onChange={(event) => edit(`next.${index}.to`, event.target.value === "end" ? "" : event.target.value)}
      sx={{ mt: 1.5 }}
    >
      {later.map((page) => (
        <MenuItem key={page.id} value={page.id}>
          {parts.get(page.id)?.number} {parts.get(page.id)?.title}
        </MenuItem>
      ))}
      <MenuItem value="end">the end</MenuItem>
      {to !== "" && !later.some((page) => page.id === to) && (
        <MenuItem value="gone" disabled>
          a page that is gone or stands before
        </MenuItem>
      )}
    </TextField>
  );
}
