// What anybody may read of a table: at which address, with which columns, and how it is put into a website.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import FormGroup from "@mui/material/FormGroup";
import FormLabel from "@mui/material/FormLabel";
import Link from "@mui/material/Link";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { reasonOf } from "../../api/client";
import type { Publication, TableReply } from "../../api/generated/wire";
import { AskFirst } from "../../ui/AskFirst";
import { CopyField } from "../../ui/CopyField";
import { plainWords } from "../../text/plain_words";
import { framed } from "../publish/snippet";
import { type Definition, definitionOf } from "./definition";
import { PaneHead } from "./RecordPane";

interface Props {
  table: TableReply;
  problem: Error | null;
  saves: boolean;
  onSave: (definition: Definition) => void;
  onClose: () => void;
}

export function PublishPane({ table, problem, saves, onSave, onClose }: Props) {
  const definition = definitionOf(table);
  const [published, setPublished] = useState<Publication>(table.published ?? suggested(definition));
  const set = (settings: Partial<Publication>) => setPublished({ ...published, ...settings });
  const chosen = published.columns;
  const unnamed = definition.columns.filter(({ id }) => id !== table.named_by);
  const isChanged = published !== table.published;
  return (
    <>
      <PaneHead title="Published records" onClose={onClose} />
      <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr)", gap: 1.5 }}>
        <Typography variant="body2">
          Anybody may read the records that you publish: their name, and of the columns those that you choose here.
        </Typography>
        <TextField
          label="Title"
          value={published.title}
          placeholder={definition.name}
          onChange={(event) => set({ title: event.target.value })}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <TextField
          label="Address"
          value={published.address}
          onChange={(event) => set({ address: event.target.value })}
          helperText="Small letters, digits and hyphens"
        />
        <FormGroup>
          <FormLabel>Columns that anybody reads</FormLabel>
          {unnamed.map(({ id, label }) => (
            <FormControlLabel
              key={id}
              label={label}
              control={
                <Checkbox
                  size="small"
                  checked={chosen.includes(id)}
                  onChange={(event) => set({ columns: columnsOf(unnamed, chosen, id, event.target.checked) })}
                />
              }
            />
          ))}
        </FormGroup>
        <TextField
          select
          label="Who wrote it"
          value={published.author}
          onChange={(event) => set({ author: event.target.value })}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        >
          <MenuItem value="">nobody is named</MenuItem>
          {definition.columns.map(({ id, label }) => (
            <MenuItem key={id} value={id}>
              {label}
            </MenuItem>
          ))}
        </TextField>
        <FormControlLabel
          label="New records are published at once"
          control={
            <Checkbox
              size="small"
              checked={published.at_once}
              onChange={(event) => set({ at_once: event.target.checked })}
            />
          }
        />
        <Typography variant="body2" color="text.secondary">
          {published.at_once
            ? "Also what visitors send stands there as soon as it is kept."
            : "New ones wait, and so do published ones that a visitor’s response has changed."}
        </Typography>
        {problem && <Alert severity="error">{reasonOf(problem)}</Alert>}
        <Button
          variant="contained"
          disabled={!isChanged || !published.address}
          loading={saves}
          onClick={() => onSave({ ...definition, published })}
        >
          {table.published ? "Keep it so" : "Make it readable"}
        </Button>
        {table.read_at && (
          <>
            <Link href={table.read_at} target="_blank" rel="noopener">
              Read it as anybody does
            </Link>
            <CopyField
              label="For a page of your website"
              text={framed(table.read_at, published.title || definition.name, "100%", "600")}
              wrap
            />
            <CopyField label="News feed (Atom)" text={`${table.read_at}.atom`} />
            <CopyField label="For programs (JSON)" text={`${table.read_at}.json`} />
            <AskFirst
              label="Publish none of it any more"
              color="error"
              warning="Nobody reads any of it from then on, also where it stands on websites. Which records were published is kept."
              onDone={() => onSave({ ...definition, published: null })}
            />
          </>
        )}
      </Box>
    </>
  );
}

/** Columns in the table's order, with one more or without it. */
const columnsOf = (all: Definition["columns"], chosen: readonly string[], id: string, is: boolean): string[] =>
  all.map((each) => each.id).filter((each) => (each === id ? is : chosen.includes(each)));

const suggested = ({ name }: Definition): Publication => ({
  address: plainWords(name, "-", 60),
  title: "",
  columns: [],
  author: "",
  at_once: false,
});
