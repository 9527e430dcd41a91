// Everything that the form says to visitors by itself, in the author's words.
import Accordion from "@mui/material/Accordion";
import AccordionDetails from "@mui/material/AccordionDetails";
import AccordionSummary from "@mui/material/AccordionSummary";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { Wording } from "../../api/generated/wire";
import TITLES from "../../api/generated/short_words.json";
import { useBench } from "../workbench/bench";
import { KeptTextField } from "../../ui/KeptTextField";
import { LongTextField } from "../../ui/LongTextField";
import { useShownWords } from "./words_of";
import { GROUPS, MessageGroup, ownWordsIn } from "./MessageGroup";

const NEVER_BLANK = ["submit", "next", "back", "required"] as const;

export function Words() {
  const { form, act } = useBench();
  const { wording } = form;
  const shown = useShownWords(form);
  const put = (changes: Partial<Wording>) => act({ do: "edit_form", changes: { wording: { ...wording, ...changes } } });
  return (
    <>
      {NEVER_BLANK.map((setting) => (
        <KeptTextField
          key={setting}
          label={TITLES[setting]}
          value={shown(setting)}
          onKeep={(words) => put({ [setting]: words })}
        />
      ))}
      <TextField
        label={TITLES.confirmation_title}
        value={shown("confirmation_title")}
        onChange={(event) => put({ confirmation_title: event.target.value })}
      />
      <LongTextField
        label={TITLES.confirmation_text}
        value={shown("confirmation_text")}
        onChange={(event) => put({ confirmation_text: event.target.value })}
      />
      <Typography variant="body2" color="text.secondary">
        Below, empty means the usual words, which stand there in grey.
      </Typography>
      {GROUPS.map((group) => {
        const own = ownWordsIn(group, wording.messages);
        return (
          <Accordion
            key={group}
            variant="outlined"
            disableGutters
            slotProps={{ heading: { component: "h2" }, transition: { unmountOnExit: true } }}
          >
            <AccordionSummary expandIcon={<span aria-hidden="true">▾</span>}>
              {group}
              {own > 0 && ` · ${own} of your own`}
            </AccordionSummary>
            <AccordionDetails sx={{ display: "grid", gap: 2 }}>
              <MessageGroup group={group} />
            </AccordionDetails>
          </Accordion>
        );
      })}
    </>
  );
}
