// Which conditions the trials have tried both ways, and which only one or not at all.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { RuleCoverage } from "../../api/generated/wire";
import { SERIF } from "../../theme/theme";
import { Sentence } from "../compose/Margin";
import { useBench } from "../workbench/bench";

export function Coverage({ coverage }: { coverage: readonly RuleCoverage[] }) {
  const { parts, analysis } = useBench();
  const known = coverage.filter(({ owner }) => parts.has(owner));
  const both = known.filter(({ held, did_not }) => held > 0 && did_not > 0).length;
  const open = known.filter(({ held, did_not }) => held === 0 || did_not === 0);
  if (known.length === 0) return null;
  return (
    <Box component="section" aria-label="Coverage of the rules">
      <Typography variant="h2">
        {both} of {known.length} conditions were tried both ways
      </Typography>
      <Box sx={{ height: 8, my: 1, maxWidth: 420, borderRadius: 1, bgcolor: "divider", overflow: "clip" }}>
        <Box sx={{ height: 8, bgcolor: "note.rule" }} style={{ width: `${(100 * both) / known.length}%` }} />
      </Box>
      {open.map(({ owner, setting, held, did_not }) => {
        const note = analysis.notes[owner]?.find((each) => each.setting === setting);
        const entry = parts.get(owner)!;
        return (
          <Box
            key={`${owner} ${setting}`}
            sx={{ display: "grid", gridTemplateColumns: "150px minmax(0,1fr)", gap: 1.5, py: 0.5 }}
          >
            <Typography variant="body2" sx={{ color: "note.money" }}>
              {held === 0 && did_not === 0 ? "never looked at" : held === 0 ? "never held" : "always held"}
            </Typography>
            <Typography variant="body2">
              <span style={{ fontFamily: SERIF }}>{entry.number}</span> <b>{entry.title}</b>{" "}
              {note && <Sentence words={note.words} parts={parts} />}
            </Typography>
          </Box>
        );
      })}
    </Box>
  );
}
