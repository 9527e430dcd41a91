// What was found in a formula, in words.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { FindingReply } from "../../api/generated/wire";

export function Findings({ findings }: { findings: FindingReply[] }) {
  return (
    <Box aria-live="polite">
      {findings.map((finding, index) => (
        <Typography
          key={index}
          variant="body2"
          sx={{ mt: 0.5, color: finding.severity === "error" ? "note.check" : "note.money" }}
        >
          {finding.message}
        </Typography>
      ))}
    </Box>
  );
}
