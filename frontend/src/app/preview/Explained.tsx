// Why something is as it is: the chain of rules, formulas and answers behind each of its facts, in words.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ExplanationReply } from "../../api/generated/wire";
import { NOTE_KINDS } from "../../text/words";
import { MONO } from "../../theme/theme";
import { factTitle, weighed } from "./asked";

export function Explained({ facts }: { facts: readonly ExplanationReply[] }) {
  const { told, plain } = weighed(facts);
  return (
    <>
      {told.map((fact) => (
        <Told key={fact.fact} fact={fact} />
      ))}
      {plain.length > 0 && (
        <Typography variant="body2" color="text.secondary" sx={{ mt: 2 }}>
          By no rule: {plain.map(({ value }) => value).join(" · ")}.
        </Typography>
      )}
    </>
  );
}

function Told({ fact }: { fact: ExplanationReply }) {
  const { kind, title } = factTitle(fact.fact);
  const { sign, word } = NOTE_KINDS[kind];
  return (
    <Box component="section" aria-label={title} sx={{ mt: 2, pl: 1.25, borderLeft: 3, borderColor: `note.${kind}` }}>
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        <Box component="span" role="img" aria-label={word} sx={{ color: `note.${kind}` }}>
          {sign}
        </Box>{" "}
        {title}
      </Typography>
      <Chain told={fact} />
    </Box>
  );
}

function Chain({ told }: { told: ExplanationReply }) {
  return (
    <Box>
      <Typography>{told.sentence}</Typography>
      {told.formula && (
        <Box
          component="code"
          sx={{ display: "block", mt: 0.5, fontFamily: MONO, fontSize: 12, overflowWrap: "anywhere" }}
        >
          {told.formula}
        </Box>
      )}
      {told.because.length > 0 && (
        <Box component="ul" sx={{ m: 0, mt: 1, pl: 2, borderLeft: 2, borderColor: "divider", listStyle: "none" }}>
          {told.because.map((each) => (
            <Box component="li" key={`${each.owner} ${each.fact}`} sx={{ "& + &": { mt: 1 } }}>
              <Chain told={each} />
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}
