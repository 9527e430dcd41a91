// Which conditions the trials have tried both ways, and which only one or not at all.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { RuleCoverage } from "../../api/generated/wire";
import { ConditionOf } from "./ConditionOf";

export function Coverage({ coverage }: { coverage: readonly RuleCoverage[] }) {
  const both = coverage.filter(({ held, did_not }) => held > 0 && did_not > 0).length;
  const open = coverage.filter(({ held, did_not }) => held === 0 || did_not === 0);
  if (coverage.length === 0) return null;
  return (
    <Box component="section" aria-label="Coverage of the rules">
      <Typography variant="h2">
        {both} of {coverage.length} conditions were tried both ways
      </Typography>
      <Box sx={{ height: 8, my: 1, maxWidth: 420, borderRadius: 1, bgcolor: "divider", overflow: "clip" }}>
        <Box sx={{ height: 8, bgcolor: "note.rule" }} style={{ width: `${(100 * both) / coverage.length}%` }} />
      </Box>
      {open.map(({ owner, setting, held, did_not }) => (
        <Box
          key={`${owner} ${setting}`}
          sx={{ display: "grid", gridTemplateColumns: "150px minmax(0,1fr)", gap: 1.5, py: 0.5 }}
        >
          <Typography variant="body2" sx={{ color: "note.money" }}>
            {held === 0 && did_not === 0 ? "never looked at" : held === 0 ? "never held" : "always held"}
          </Typography>
          <Typography variant="body2">
            <ConditionOf owner={owner} setting={setting} />
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
