// What a trial with sample answers tries that none did before, and which conditions no answers were found for.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import type { UntriedReply } from "../../api/generated/wire";
import { counted } from "../../text/words";
import { ConditionOf } from "./ConditionOf";

type Aim = UntriedReply["reached"][number];

interface Props {
  found: UntriedReply;
  onClose: () => void;
}

export function Reached({ found: { reached, missed }, onClose }: Props) {
  return (
    <Alert severity={reached.length > 0 ? "success" : "info"} icon={false} onClose={onClose} sx={{ mb: 2 }}>
      {reached.length > 0
        ? `Sample answers with which ${counted(reached.length, "condition")} for the first time ${reached.length === 1 ? "does" : "do"} this:`
        : missed.length > 0
          ? "Sample answers; none were found that try what is left:"
          : "Sample answers; everything was tried both ways before."}
      <Aims aims={reached.length > 0 ? reached : missed} />
      {reached.length > 0 && missed.length > 0 && (
        <Box component="p" sx={{ m: 0, mt: 1 }}>
          {counted(missed.length, "case")} {missed.length === 1 ? "is" : "are"} left; add once more, or fill in the
          form.
        </Box>
      )}
    </Alert>
  );
}

function Aims({ aims }: { aims: readonly Aim[] }) {
  return (
    <Box component="ul" sx={{ m: 0, pl: 2.5, maxHeight: 160, overflow: "auto" }}>
      {aims.map(({ owner, setting, holds }) => (
        <li key={`${owner} ${setting} ${holds}`}>
          <b>{holds ? "holds" : "does not hold"}</b>: <ConditionOf owner={owner} setting={setting} />
        </li>
      ))}
    </Box>
  );
}
