// Who gets a mail: the visitor, people of the team, or addresses; each with a role and a condition.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useQuery } from "@tanstack/react-query";
import { queries } from "../../api/queries";
import type { EmailFollowUp, Recipient } from "../../model/parts";
import { Heading } from "../compose/InspectorFrame";
import { useSignedIn } from "../signed_in";
import { Condition } from "./Condition";
import { useFieldsOf } from "./fields_of";

interface Props {
  mail: EmailFollowUp;
  put: (recipients: Recipient[]) => void;
}

const TYPED = "typed";
const NOBODY: Recipient = { role: "to", field: "", person: "", address: "", when: "" };

export function Recipients({ mail, put }: Props) {
  const who = useSignedIn();
  const first = useFieldsOf(["email"])[0];
  const people = useQuery(queries.people()).data?.people ?? [];
  const me = people.find(({ email }) => email === who.email);
  const { recipients } = mail;
  const change = (at: number, changes: Partial<Recipient>) =>
    put(recipients.map((each, index) => (index === at ? { ...each, ...changes } : each)));
  const add = (made: Partial<Recipient>) => put([...recipients, { ...NOBODY, ...made }]);
  return (
    <Box sx={{ display: "grid", gap: 1 }}>
      <Heading>Goes to</Heading>
      {recipients.map((recipient, at) => (
        <Box key={at} role="group" aria-label={`Recipient ${at + 1}`}>
          <Box sx={{ display: "grid", gridTemplateColumns: "92px minmax(0,1fr) minmax(0,1fr) 24px", gap: 1 }}>
            <TextField
              select
              label="As"
              value={recipient.role}
              onChange={(event) => change(at, { role: event.target.value as Recipient["role"] })}
            >
              <MenuItem value="to">to</MenuItem>
              <MenuItem value="cc">cc</MenuItem>
              <MenuItem value="bcc">bcc</MenuItem>
            </TextField>
            <Whom recipient={recipient} people={people} onChange={(changes) => change(at, changes)} />
            {recipient.field || recipient.person ? (
              <span />
            ) : (
              <AddressField address={recipient.address} onChange={(address) => change(at, { address })} />
            )}
            <IconButton
              aria-label={`Remove recipient ${at + 1}`}
              onClick={() => put(recipients.filter((_each, index) => index !== at))}
              sx={{ width: 24, height: 34, fontSize: 14 }}
            >
              ×
            </IconButton>
          </Box>
          <Condition
            part={mail.id}
            setting={`recipients.${at}.when`}
            text={recipient.when}
            title="Gets it when"
            absent="always; add a rule"
            onChange={(when) => change(at, { when })}
          />
        </Box>
      ))}
      <Box>
        <Button
          disabled={!first}
          title={first ? "" : "The form has no e-mail field yet"}
          onClick={() => first && add({ field: first.id })}
        >
          Add the visitor
        </Button>
        <Button disabled={!me} onClick={() => me && add({ person: me.id })}>
          Add somebody of the team
        </Button>
        <Button onClick={() => add({})}>Add an address</Button>
      </Box>
    </Box>
  );
}

interface WhomProps {
  recipient: Recipient;
  people: readonly { id: string; name: string }[];
  onChange: (changes: Partial<Recipient>) => void;
}

/** A field that is asked for an address, somebody of the team, or an address that is typed. */
function Whom({ recipient, people, onChange }: WhomProps) {
  const fields = useFieldsOf(["email"]);
  const { field, person } = recipient;
  const known = [...fields, ...people].some(({ id }) => id === (field || person));
  const choose = (chosen: string) =>
    onChange({
      field: fields.some(({ id }) => id === chosen) ? chosen : "",
      person: people.some(({ id }) => id === chosen) ? chosen : "",
    });
  return (
    <TextField select label="Whom" value={field || person || TYPED} onChange={(event) => choose(event.target.value)}>
      <MenuItem value={TYPED}>an address</MenuItem>
      {fields.map(({ id, words }) => (
        <MenuItem key={id} value={id}>
          {words}
        </MenuItem>
      ))}
      {people.map(({ id, name }) => (
        <MenuItem key={id} value={id}>
          {name}
        </MenuItem>
      ))}
      {(field || person) && !known && (
        <MenuItem value={field || person}>{field ? "a field that was removed" : "somebody who left the team"}</MenuItem>
      )}
    </TextField>
  );
}

/** An address is told for wrong while it is typed; blanks in it are left out. */
function AddressField({ address, onChange }: { address: string; onChange: (address: string) => void }) {
  const wrong = address !== "" && !/^[^@\s]+@[^@\s]+\.[^@\s.]+$/.test(address);
  return (
    <TextField
      label="Address"
      value={address}
      error={wrong}
      helperText={wrong ? "Such as name@example.org" : undefined}
      onChange={(event) => onChange(event.target.value.replace(/\s/g, "").slice(0, 254))}
    />
  );
}
