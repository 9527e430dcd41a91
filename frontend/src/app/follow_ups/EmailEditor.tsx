// A mail: to whom, what it is about, and what it says.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import type { EmailFollowUp, Recipient } from "../../model/parts";
import { Heading } from "../compose/InspectorFrame";
import { Paragraphs } from "../compose/Paragraphs";
import { useSignedIn } from "../signed_in";
import { useBench } from "../workbench/bench";
import { Condition } from "./Condition";

interface Props {
  mail: EmailFollowUp;
  edit: (changes: Partial<EmailFollowUp>) => void;
}

const TYPED = "typed";
const VALUES = { htmlInput: { "data-values": "" } };

/** The e-mail fields outside rows, by id. */
function useEmailFields(): { id: string; words: string }[] {
  const { parts } = useBench();
  return [...parts.values()].flatMap((entry) =>
    entry.what === "block" && entry.part.type === "email" && entry.kind === null
      ? [{ id: entry.id, words: `${entry.number} ${entry.title}` }]
      : [],
  );
}

export function EmailEditor({ mail, edit }: Props) {
  const who = useSignedIn();
  const fields = useEmailFields();
  const { recipients } = mail;
  const put = (next: Recipient[]) => edit({ recipients: next });
  const change = (at: number, changes: Partial<Recipient>) =>
    put(recipients.map((each, index) => (index === at ? { ...each, ...changes } : each)));
  const add = (made: Partial<Recipient>) =>
    put([...recipients, { role: "to", field: "", address: "", when: "", ...made }]);
  const first = fields[0];
  return (
    <Box sx={{ display: "grid", gap: 2 }}>
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
              <TextField
                select
                label="Whom"
                value={recipient.field || TYPED}
                onChange={(event) => change(at, { field: event.target.value === TYPED ? "" : event.target.value })}
              >
                <MenuItem value={TYPED}>an address</MenuItem>
                {fields.map(({ id, words }) => (
                  <MenuItem key={id} value={id}>
                    {words}
                  </MenuItem>
                ))}
                {recipient.field && !fields.some(({ id }) => id === recipient.field) && (
                  <MenuItem value={recipient.field}>a field that was removed</MenuItem>
                )}
              </TextField>
              {recipient.field ? <span /> : <AddressField recipient={recipient} at={at} change={change} />}
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
          <Button onClick={() => add({ address: who.email })}>Add an address</Button>
          <Button
            disabled={!first}
            title={first ? "" : "The form has no e-mail field yet"}
            onClick={() => first && add({ field: first.id })}
          >
            Add the visitor
          </Button>
        </Box>
      </Box>
      <TextField
        label="Subject"
        value={mail.subject}
        slotProps={VALUES}
        helperText="{ inserts a value"
        onChange={(event) => edit({ subject: event.target.value })}
      />
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2 }}>
        <TextField
          label="Name of the sender"
          value={mail.from_name}
          slotProps={VALUES}
          onChange={(event) => edit({ from_name: event.target.value })}
        />
        <TextField
          select
          label="Answers to it go to"
          value={mail.reply_to}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          onChange={(event) => edit({ reply_to: event.target.value })}
        >
          <MenuItem value="">the sender</MenuItem>
          {fields.map(({ id, words }) => (
            <MenuItem key={id} value={id}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <Paragraphs
        paragraphs={mail.paragraphs}
        pictures={false}
        onChange={(paragraphs) => edit({ paragraphs })}
        condition={(at, text) => (
          <Condition
            part={mail.id}
            setting={`paragraphs.${at}.shown`}
            text={text}
            title="In the mail when"
            absent="always; add a rule"
            onChange={(shown) =>
              edit({ paragraphs: mail.paragraphs.map((each, index) => (index === at ? { ...each, shown } : each)) })
            }
          />
        )}
      />
      <FormControlLabel
        control={<Switch checked={mail.all_answers} onChange={(_event, on) => edit({ all_answers: on })} />}
        label="All answers that visitors saw, as a table"
      />
    </Box>
  );
}

interface AddressProps {
  recipient: Recipient;
  at: number;
  change: (at: number, changes: Partial<Recipient>) => void;
}

/** An address is told for wrong while it is typed; blanks in it are left out. */
function AddressField({ recipient, at, change }: AddressProps) {
  const wrong = recipient.address !== "" && !/^[^@\s]+@[^@\s]+\.[^@\s.]+$/.test(recipient.address);
  return (
    <TextField
      label="Address"
      value={recipient.address}
      error={wrong}
      helperText={wrong ? "Such as name@example.org" : undefined}
      onChange={(event) => change(at, { address: event.target.value.replace(/\s/g, "").slice(0, 254) })}
    />
  );
}
