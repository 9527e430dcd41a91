// The lines of a file that do not fit, each with its number and why.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import type { RefusedLineReply } from "../../api/generated/wire";
import { counted } from "../../text/words";

interface WrongProps {
  wrong: readonly RefusedLineReply[];
  tried: number;
  lines: number;
  count: number;
}

export const Wrong = ({ count, tried, lines, wrong }: WrongProps) => (
  <Alert severity="warning" sx={{ width: "100%" }}>
    {counted(count, "line")} {count === 1 ? "does" : "do"} not fit
    {tried < lines && ` of the first ${tried.toLocaleString("en")}, which were tried`}:
    <LineList lines={wrong} />
    {count > wrong.length && `and ${count - wrong.length} more.`}
  </Alert>
);

export const LineList = ({ lines }: { lines: readonly RefusedLineReply[] }) => (
  <Box
    component="ul"
    tabIndex={0}
    aria-label="Lines that do not fit"
    sx={{ m: 0, pl: 2.5, maxHeight: 200, overflow: "auto" }}
  >
    {lines.map(({ line, message }) => (
      <li key={line}>
        line {line}: {message}
      </li>
    ))}
  </Box>
);
