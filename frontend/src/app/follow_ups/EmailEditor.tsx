// A mail: to whom, what it is about, what it says, and what goes along.
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { EmailFollowUp } from "../../model/parts";
import { type SettingRow, SettingRows } from "../../ui/SettingRows";
import { Heading } from "../compose/InspectorFrame";
import { Paragraphs } from "../compose/Paragraphs";
import { Condition } from "./Condition";
import { useFieldsOf } from "./fields_of";
import { Recipients } from "./Recipients";

interface Props {
  mail: EmailFollowUp;
  edit: (changes: Partial<EmailFollowUp>) => void;
}

const VALUES = { htmlInput: { "data-values": "" } };
const GOES_ALONG: readonly SettingRow[] = [
  { entry: "switch", setting: "all_answers", label: "All answers that visitors saw, as a table" },
  { entry: "switch", setting: "pdf", label: "The response as PDF" },
  { entry: "switch", setting: "files", label: "The files that visitors sent" },
  {
    entry: "whole",
    least: 1,
    most: 20,
    setting: "megabytes",
    label: "As many megabytes of them as",
    help: "What is larger is named in the mail and stays in Codexa",
    only: { setting: "files", values: ["true"] },
  },
];

export function EmailEditor({ mail, edit }: Props) {
  const fields = useFieldsOf(["email"]);
  return (
    <Box sx={{ display: "grid", gap: 2 }}>
      <Recipients mail={mail} put={(recipients) => edit({ recipients })} />
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
      <Box sx={{ display: "grid", gap: 1 }}>
        <Heading>Goes along</Heading>
        <SettingRows rows={GOES_ALONG} of={mail} edit={edit} />
        <CalendarEntry mail={mail} edit={edit} />
      </Box>
    </Box>
  );
}

/** An entry for the calendar of whoever gets the mail; a mail about what is cancelled takes it out of there. */
function CalendarEntry({ mail, edit }: Props) {
  const dated = useFieldsOf(["slot", "date", "date_time"]);
  const isMoment = useFieldsOf(["date_time"]).some(({ id }) => id === mail.entry);
  if (dated.length === 0 && !mail.entry) return null;
  return (
    <>
      <TextField
        select
        label="An entry for the calendar, of"
        value={mail.entry}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        onChange={(event) => edit({ entry: event.target.value })}
      >
        <MenuItem value="">nothing</MenuItem>
        {dated.map(({ id, words }) => (
          <MenuItem key={id} value={id}>
            {words}
          </MenuItem>
        ))}
        {mail.entry && !dated.some(({ id }) => id === mail.entry) && (
          <MenuItem value={mail.entry}>a field that was removed</MenuItem>
        )}
      </TextField>
      {mail.entry && (
        <Box sx={{ display: "grid", gridTemplateColumns: isMoment ? "1fr 1fr 96px" : "1fr 1fr", gap: 1 }}>
          <TextField
            label="Called"
            value={mail.entry_title}
            slotProps={VALUES}
            helperText="Blank: the form’s title"
            onChange={(event) => edit({ entry_title: event.target.value })}
          />
          <TextField
            label="Where"
            value={mail.entry_place}
            slotProps={VALUES}
            onChange={(event) => edit({ entry_place: event.target.value })}
          />
          {isMoment && (
            <TextField
              type="number"
              label="Minutes"
              value={mail.minutes}
              onChange={(event) =>
                edit({ minutes: Math.min(10_080, Math.max(1, Math.trunc(Number(event.target.value)) || 1)) })
              }
            />
          )}
        </Box>
      )}
    </>
  );
}
