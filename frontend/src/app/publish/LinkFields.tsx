// The fields that links fill in: what each is called there, what visitors may do with it, and whether it must be sealed.
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Form } from "../../api/generated/wire";
import { typeOf } from "../../model/blocks";
import { useBench } from "../workbench/bench";
import { nameFor } from "./link_tables";

type LinkValue = Form["links"][number];
const NAME = /^[a-z][a-z0-9_]{0,59}$/;

export function LinkFields() {
  const { form, parts, act, mayEdit, analysis } = useBench();
  const { links } = form;
  const put = (next: readonly LinkValue[]) => act({ do: "edit_form", changes: { links: [...next] } });
  const fields = [...parts.values()].flatMap((entry) =>
    entry.what === "block" && entry.kind === null && typeOf(entry.part.type).linkable
      ? [{ id: entry.id, words: `${entry.number} ${entry.title}`, key: entry.part.key }]
      : [],
  );
  const free = fields.filter(({ id }) => !links.some(({ field }) => field === id));
  return (
    <>
      {links.length > 0 && (
        <Table size="small" sx={{ "& td, & th": { px: 1 } }}>
          <TableHead>
            <TableRow>
              <TableCell>Field</TableCell>
              <TableCell>Called in the link</TableCell>
              <TableCell>For the visitor</TableCell>
              <TableCell>Seal</TableCell>
              {mayEdit && <TableCell component="td" />}
            </TableRow>
          </TableHead>
          <TableBody>
            {links.map((link, at) => {
              const edit = (changes: Partial<LinkValue>) =>
                put(links.map((each, index) => (index === at ? { ...each, ...changes } : each)));
              const words = fields.find(({ id }) => id === link.field)?.words ?? "a field that is gone";
              const finding = analysis.findings.find(({ setting }) => setting === `links.${at}`);
              return (
                <TableRow key={link.field}>
                  <TableCell sx={{ overflowWrap: "anywhere" }}>
                    {words}
                    {finding && (
                      <Typography
                        variant="caption"
                        component="div"
                        color={finding.severity === "error" ? "note.check" : "note.money"}
                      >
                        {finding.message} {finding.remedy}
                      </Typography>
                    )}
                  </TableCell>
                  <TableCell>
                    <LinkName
                      name={link.name}
                      others={links.filter((each) => each !== link)}
                      put={(name) => edit({ name })}
                      label={words}
                    />
                  </TableCell>
                  <TableCell>
                    <ToggleButtonGroup
                      exclusive
                      size="small"
                      value={link.visitor}
                      disabled={!mayEdit}
                      aria-label={`For the visitor: ${words}`}
                      onChange={(_event, visitor: LinkValue["visitor"] | null) =>
                        // What visitors can't change in the form is worth a seal.
                        visitor && edit({ visitor, ...(visitor === "open" ? {} : { sealed: true }) })
                      }
                    >
                      {(["open", "locked", "hidden"] as const).map((each) => (
                        <ToggleButton key={each} value={each} sx={{ textTransform: "none", py: 0.25 }}>
                          {each}
                        </ToggleButton>
                      ))}
                    </ToggleButtonGroup>
                  </TableCell>
                  <TableCell>
                    <TextField
                      select
                      variant="standard"
                      value={link.sealed ? "sealed" : "free"}
                      disabled={!mayEdit}
                      slotProps={{ htmlInput: { "aria-label": `Seal: ${words}` } }}
                      onChange={(event) => edit({ sealed: event.target.value === "sealed" })}
                    >
                      <MenuItem value="free">free</MenuItem>
                      <MenuItem value="sealed">must be sealed</MenuItem>
                    </TextField>
                  </TableCell>
                  {mayEdit && (
                    <TableCell align="right">
                      <Button
                        color="inherit"
                        aria-label={`Remove ${words} from links`}
                        onClick={() => put(links.filter((each) => each !== link))}
                      >
                        Remove
                      </Button>
                    </TableCell>
                  )}
                </TableRow>
              );
            })}
          </TableBody>
        </Table>
      )}
      {mayEdit && free.length > 0 && (
        <TextField
          select
          label="Add a field"
          value=""
          sx={{ maxWidth: 320 }}
          onChange={(event) => {
            const field = free.find(({ id }) => id === event.target.value)!;
            const name = nameFor(
              field.key,
              links.map((each) => each.name),
            );
            put([...links, { field: field.id, name, visitor: "open", sealed: false }]);
          }}
        >
          {free.map(({ id, words }) => (
            <MenuItem key={id} value={id}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      )}
    </>
  );
}

interface NameProps {
  name: string;
  label: string;
  others: readonly LinkValue[];
  put: (name: string) => void;
}

/** What the link calls a value; a name that can't be one is not kept, and says why. */
function LinkName({ name, label, others, put }: NameProps) {
  const { mayEdit } = useBench();
  const [typed, setTyped] = useState<string | null>(null);
  const wrong = typed === null ? null : wrongWith(typed, others);
  return (
    <TextField
      variant="standard"
      value={typed ?? name}
      disabled={!mayEdit}
      error={wrong !== null}
      helperText={wrong}
      slotProps={{ htmlInput: { "aria-label": `Called in the link: ${label}`, spellCheck: false } }}
      onChange={(event) => {
        setTyped(event.target.value);
        if (wrongWith(event.target.value, others) === null) put(event.target.value);
      }}
      onBlur={() => setTyped(null)}
    />
  );
}

function wrongWith(name: string, others: readonly LinkValue[]): string | null {
  if (name === "s") return "That is the seal’s own name";
  if (!NAME.test(name)) return "Small letters, digits and _";
  return others.some((each) => each.name === name) ? "Another has this name" : null;
}
