// What a part decides: the rules and formulas that read it, and what they come to with these answers.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { OutcomeReply } from "../../api/generated/wire";
import { Sentence } from "../compose/Margin";
import { nowValue, nowWords, rulesOf } from "../rules/rules";
import { useBench } from "../workbench/bench";

interface Props {
  /** The id of a block, page or figure. */
  part: string;
  outcome: OutcomeReply | undefined;
}

export function Decides({ part, outcome }: Props) {
  const { parts, analysis } = useBench();
  const found = rulesOf(parts, analysis.notes, (note) => note.reads.includes(part));
  if (found.length === 0) return null;
  return (
    <Box component="section" aria-label="What it decides" sx={{ mt: 2 }}>
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        What it decides
      </Typography>
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: "none" }}>
        {found.map(({ owner, note }, at) => (
          <Box component="li" key={`${owner.id} ${note.setting}`} sx={{ mb: 1 }}>
            <b>
              {owner.number} {owner.title}
            </b>{" "}
            <Sentence words={note.words} parts={parts} />
            <Typography variant="body2" color="text.secondary">
              {note.condition && nowWords(owner.id, note, outcome)}
              {!note.condition && found[at + 1]?.owner.id !== owner.id && nowValue(owner.id, outcome)}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
