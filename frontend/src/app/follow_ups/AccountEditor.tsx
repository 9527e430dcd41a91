// An account from a response: from which answers it has its e-mail and name, in which groups it is put.
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import FormLabel from "@mui/material/FormLabel";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { queries } from "../../api/queries";
import { namedIn } from "../../model/outline";
import type { FollowUp } from "../../model/parts";
import { AnswerOrValue, WAYS } from "../compose/Operand";
import { useBench } from "../workbench/bench";

type AccountFollowUp = Extract<FollowUp, { kind: "account" }>;

interface Props {
  followUp: AccountFollowUp;
  edit: (changes: Partial<AccountFollowUp>) => void;
}

const FROM = [
  { setting: "email", label: "E-mail" },
  { setting: "name_of", label: "Name" },
] as const;

export function AccountEditor({ followUp, edit }: Props) {
  const { form } = useBench();
  const answers = namedIn(form, null);
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      {FROM.map(({ setting, label }) => (
        <Box key={setting}>
          <FormLabel component="p" sx={{ fontSize: 13, mb: 0.5 }}>
            {label} of the member
          </FormLabel>
          <AnswerOrValue
            label={`${label} of the member`}
            way={WAYS.text}
            choices={[]}
            answers={answers}
            value={followUp[setting]}
            onChange={(formula) => edit({ [setting]: formula })}
          />
        </Box>
      ))}
      <GroupsChoice
        label="Put into the groups"
        codes={followUp.groups}
        help="Whoever has an account already is put into them, too"
        onChange={(groups) => edit({ groups })}
      />
      <FormControlLabel
        control={<Switch checked={followUp.mail} onChange={(_event, mail) => edit({ mail })} />}
        label="Who is new gets a mail by which they sign in"
      />
      <Typography variant="body2" color="text.secondary">
        An address has one account, however it is written. A guest whose address has one is asked to sign in before
        sending, and loses nothing that they typed.
      </Typography>
    </Box>
  );
}

interface GroupsProps {
  label: string;
  codes: readonly string[];
  help?: string;
  onChange: (codes: string[]) => void;
}

/** Some of the team's groups, by code; one that is gone is told as what it is. */
export function GroupsChoice({ label, codes, help, onChange }: GroupsProps) {
  const groups = useQuery(queries.groups()).data?.groups ?? [];
  const names = new Map(groups.map(({ code, name }) => [code, name]));
  return (
    <Autocomplete
      multiple
      options={[...new Set([...names.keys(), ...codes])]}
      value={[...codes]}
      getOptionLabel={(code) => names.get(code) ?? `${code} (gone)`}
      noOptionsText="The team has no groups yet: make some in Team"
      onChange={(_event, chosen) => onChange(chosen)}
      renderInput={(params) => <TextField {...params} label={label} helperText={help} />}
    />
  );
}
