// A part that only a group fills in: what it is called, which groups, when a response goes there, and who sees it.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as RouterLink } from "react-router";
import { queries } from "../../api/queries";
import type { Entry, FormPart } from "../../model/parts";
import { type SettingRow, SettingRows } from "../../ui/SettingRows";
import { useBench } from "../workbench/bench";
import { FormulaButton } from "./FormulaButton";
import { Heading, InspectorFrame } from "./InspectorFrame";
import type { ComposeActions } from "./actions";

interface Props {
  entry: Extract<Entry, { what: "form_part" }>;
  actions: ComposeActions;
}

const SEEN: readonly SettingRow[] = [
  {
    entry: "switch",
    setting: "seen",
    label: "Who fills in the form sees it too",
    help: "Read only. Else neither its questions nor its answers are in their page, their mails or their PDF.",
  },
];

export function FormPartSettings({ entry, actions }: Props) {
  const part = entry.part;
  const groups = useQuery(queries.groups()).data?.groups ?? [];
  const edit = (changes: Partial<FormPart>) => actions.edit(part.id, changes);
  const names = Object.fromEntries([
    ...part.groups.map((code) => [code, `${code} (gone)`]),
    ...groups.map(({ code, name }) => [code, name]),
  ]) as Record<string, string>;
  return (
    <InspectorFrame number={entry.number} what="Part for others" title={entry.title} actions={actions}>
      <TextField
        label="Name"
        value={part.name}
        helperText="For those who fill it in, and in the list of responses"
        onChange={(event) => edit({ name: event.target.value })}
      />
      <SettingRows
        rows={[{ entry: "several", setting: "groups", label: "Filled in by", options: names, none: "nobody yet" }]}
        of={part}
        edit={edit}
      />
      {groups.length === 0 && (
        <Typography variant="body2" color="text.secondary">
          There are no groups yet.{" "}
          <Link component={RouterLink} to="/team/groups">
            Make one in Team
          </Link>
        </Typography>
      )}
      <FormulaButton
        part={part.id}
        title="Goes there when"
        setting="only_when"
        text={part.only_when}
        absent="Every response; add a rule"
      />
      <SettingRows rows={SEEN} of={part} edit={edit} />
      <Belongs part={part.id} />
      <Typography variant="body2" color="text.secondary">
        Whoever is in the groups gets a mail and finds it among their decisions, or as a member on their own page. They
        hand it on, or send it back with a remark; what is to be mailed besides is a follow-up: When handed on, When
        sent back, with {"{part.name}"}, {"{part.remark}"} and {"{part.by}"}.
      </Typography>
    </InspectorFrame>
  );
}

function Belongs({ part }: { part: string }) {
  const { parts, select } = useBench();
  const own = [...parts.values()].filter((each) => "part" in each.part && each.part.part === part);
  return (
    <Box>
      <Heading>What belongs to it</Heading>
      {own.length === 0 && (
        <Typography variant="body2">
          Nothing yet: select a page, a group or a field, and choose this part under Behaviour.
        </Typography>
      )}
      {own.map((entry) => (
        <Button
          key={entry.id}
          color="inherit"
          size="small"
          onClick={() => select(entry.id)}
          sx={{ display: "block", px: 0.5, textAlign: "left" }}
        >
          {entry.number} {entry.title}
        </Button>
      ))}
    </Box>
  );
}
