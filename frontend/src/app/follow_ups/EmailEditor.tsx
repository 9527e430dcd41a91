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
      </Box>
    </Box>
  );
}
