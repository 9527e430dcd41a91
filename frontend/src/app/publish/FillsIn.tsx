// Who may fill in: anyone, whoever is signed in, groups, or the team; once each, and found again on their own page.
import FormControl from "@mui/material/FormControl";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import Switch from "@mui/material/Switch";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import type { WhoAndWhenReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { GroupsChoice } from "../follow_ups/AccountEditor";
import { Panel } from "./Layout";

type Access = WhoAndWhenReply["access"];

const WHO: Readonly<Record<Access["who"], string>> = {
  anyone: "Anyone, signed in or not",
  members: "Whoever is signed in: members, and the team’s own people",
  groups: "Those of some groups",
  team: "The team’s own people",
};

interface Props {
  access: Access;
  edit: (changes: Partial<Access>) => void;
}

export function FillsIn({ access, edit }: Props) {
  const page = useQuery(queries.roll()).data?.page ?? "";
  return (
    <Panel
      title="Who may fill in"
      lead="Whoever else opens it sees where to sign in, and nothing of the form. Formulas know who is signed in as visitor.email, visitor.name and INGROUP."
    >
      <FormControl>
        <RadioGroup
          aria-label="Who may fill in"
          value={access.who}
          onChange={(event) => {
            const who = event.target.value as Access["who"];
            edit({ who, ...(who === "anyone" ? { once: false } : {}), ...(who === "groups" ? {} : { groups: [] }) });
          }}
        >
          {Object.entries(WHO).map(([who, words]) => (
            <FormControlLabel key={who} value={who} control={<Radio size="small" />} label={words} />
          ))}
        </RadioGroup>
      </FormControl>
      {access.who === "groups" && (
        <GroupsChoice label="Which groups" codes={access.groups} onChange={(groups) => edit({ groups })} />
      )}
      {access.who !== "anyone" && (
        <FormControlLabel
          control={<Switch checked={access.once} onChange={(_event, once) => edit({ once })} />}
          label="One response each"
        />
      )}
      <FormControlLabel
        control={<Switch checked={access.own} onChange={(_event, own) => edit({ own })} />}
        label="Members find their responses again"
      />
      {access.own && (
        <Typography variant="body2" color="text.secondary">
          On their own page, {page}: what they kept they go on with there, what they handed in they look at.
        </Typography>
      )}
      {(access.who === "members" || access.who === "groups") && (
        <TextField
          select
          label="Of the others’ answers, members see"
          value={access.others}
          helperText="On their own page, with names where these are asked for. Parts that who fills in does not see stay out of sight, but for the groups that fill them in."
          onChange={(event) => edit({ others: event.target.value as Access["others"] })}
        >
          <MenuItem value="none">nothing</MenuItem>
          <MenuItem value="groups">those of whoever is in a group with them</MenuItem>
          <MenuItem value="all">all</MenuItem>
        </TextField>
      )}
    </Panel>
  );
}
