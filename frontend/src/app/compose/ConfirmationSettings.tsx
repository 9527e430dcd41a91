// A confirmation: when it follows, and what visitors read then, or where they go on to.
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Confirmation, Entry, Paragraph as Piece } from "../../model/parts";
import { type SettingRow, SettingRows } from "../../ui/SettingRows";
import { FormulaButton } from "./FormulaButton";
import { Heading, InspectorFrame } from "./InspectorFrame";
import { Paragraphs } from "./Paragraphs";
import type { ComposeActions } from "./actions";

interface Props {
  entry: Extract<Entry, { what: "confirmation" }>;
  actions: ComposeActions;
}

const GOES: readonly SettingRow[] = [
  { entry: "switch", setting: "redirect_within", label: "On a website, only the form’s own frame goes there" },
];
const MAY: readonly SettingRow[] = [
  { entry: "switch", setting: "again", label: "Fill in once more" },
  { entry: "switch", setting: "printing", label: "Print, and keep their answers as PDF" },
  { entry: "switch", setting: "sharing", label: "Hand the form’s address on" },
];

export function ConfirmationSettings({ entry, actions }: Props) {
  const confirmation = entry.part;
  // Chosen while there is no address; then the address says it, after an undo too.
  const [redirecting, setRedirecting] = useState(false);
  const way = confirmation.redirect || redirecting ? "redirect" : confirmation.own_page ? "page" : "message";
  const edit = (changes: Partial<Confirmation>) => actions.edit(confirmation.id, changes);
  const put = (paragraphs: Piece[]) => edit({ paragraphs });
  const { paragraphs } = confirmation;
  return (
    <InspectorFrame number={entry.number} what="Confirmation" title={entry.title} actions={actions} duplicable>
      <TextField
        label="Name"
        value={confirmation.name}
        helperText="For the team; in rules and trials"
        onChange={(event) => edit({ name: event.target.value })}
      />
      <FormulaButton
        part={confirmation.id}
        title="Follows when"
        setting="when"
        text={confirmation.when}
        absent="Always, unless one above it follows"
      />
      <ToggleButtonGroup
        exclusive
        fullWidth
        size="small"
        value={way}
        aria-label="What follows"
        onChange={(_event, next: "message" | "page" | "redirect" | null) => {
          if (!next) return;
          setRedirecting(next === "redirect");
          if (next !== "redirect") edit({ redirect: "", own_page: next === "page" });
        }}
      >
        <ToggleButton value="message" sx={{ textTransform: "none" }}>
          In place
        </ToggleButton>
        <ToggleButton value="page" sx={{ textTransform: "none" }}>
          Own page
        </ToggleButton>
        <ToggleButton value="redirect" sx={{ textTransform: "none" }}>
          Another address
        </ToggleButton>
      </ToggleButtonGroup>
      {way === "redirect" && <Redirect key={confirmation.id} value={confirmation.redirect} edit={edit} />}
      {way === "redirect" && <SettingRows rows={GOES} of={confirmation} edit={edit} />}
      {way === "page" && (
        <Typography variant="caption" color="text.secondary">
          Visitors can open this page again later: its address is theirs alone.
        </Typography>
      )}
      {way !== "redirect" && (
        <>
          <TextField
            label="Heading"
            slotProps={{ htmlInput: { "data-values": "" } }}
            value={confirmation.title}
            onChange={(event) => edit({ title: event.target.value })}
          />
          <Paragraphs
            paragraphs={paragraphs}
            onChange={put}
            condition={(at, text) => (
              <FormulaButton
                part={confirmation.id}
                title="Shown when"
                setting={`paragraphs.${at}.shown`}
                text={text}
                absent="Always; add a rule"
              />
            )}
          />
          <Heading>Visitors may</Heading>
          <SettingRows rows={MAY} of={confirmation} edit={edit} />
        </>
      )}
    </InspectorFrame>
  );
}

function Redirect({ value, edit }: { value: string; edit: (changes: Partial<Confirmation>) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const isAddress = (text: string) => text === "" || /^https?:\/\/\S{1,2000}$/.test(text);
  const wrong = typed !== null && !isAddress(typed);
  return (
    <TextField
      label="Address to go on to"
      value={typed ?? value}
      error={wrong}
      helperText={
        wrong
          ? "Begin with https:// and leave out spaces"
          : "{ inserts a value: https://www.example.org/?n={response.number}"
      }
      slotProps={{ htmlInput: { "data-values": "" } }}
      onChange={(event) => {
        setTyped(event.target.value);
        if (isAddress(event.target.value)) edit({ redirect: event.target.value });
      }}
      onBlur={() => {
        // What was typed without its beginning is meant; what is no address at all stays, with what is wrong.
        const whole = `https://${typed}`;
        if (wrong && !typed.includes("://") && isAddress(whole)) edit({ redirect: whole });
        else if (wrong) return;
        setTyped(null);
      }}
    />
  );
}
