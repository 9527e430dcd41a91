// Two people, one draft: what happened, and what to keep where both changed the same.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Snackbar from "@mui/material/Snackbar";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { partName, settingName, shortly } from "../../model/differences";
import { type Clash, clashName, PLACE } from "../../model/merge";
import { partsOf } from "../../model/parts";
import type { Side } from "../../model/three_way";
import { counted } from "../../text/words";
import { useBench } from "./bench";

const READ_MS = 8_000;

export function ClashNotice() {
  const { clash, problem, saveState } = useBench();
  if (clash) return <Asked key={clash.theirs.revision} />;
  if (saveState === "refused" && problem) {
    return (
      <Alert severity="error" sx={{ borderRadius: 0 }}>
        The draft can’t be saved like this: {problem}
      </Alert>
    );
  }
  return <LatestNotice />;
}

/** What was told last, for a while, over the sheet and not above it: nothing jumps. It can be read again at the bottom. */
function LatestNotice() {
  const latest = useBench().notices.at(-1);
  const [gone, setGone] = useState(0);
  const id = latest?.id ?? 0;
  return (
    <Snackbar
      key={id}
      open={latest !== undefined && id > gone}
      autoHideDuration={READ_MS}
      onClose={(_event, why) => why !== "clickaway" && setGone(id)}
      anchorOrigin={{ vertical: "bottom", horizontal: "center" }}
      sx={{ mb: 3 }}
    >
      <Alert
        severity="info"
        variant="outlined"
        role="status"
        onClose={() => setGone(id)}
        sx={{ bgcolor: "background.paper", maxWidth: 560 }}
      >
        {latest?.words}
      </Alert>
    </Snackbar>
  );
}

/** Each thing that both changed, with both values; whose stays is chosen for each, or for all at once. */
function Asked() {
  const { clash, form, settle } = useBench();
  const [chosen, setChosen] = useState<Readonly<Record<string, Side>>>({});
  if (!clash) return null;
  const person = clash.theirs.changed_by ?? "Somebody";
  const parts = [partsOf(form), partsOf(clash.theirs.draft)];
  return (
    <Alert severity="warning" sx={{ borderRadius: 0, "& .MuiAlert-message": { flex: 1, minWidth: 0 } }}>
      <Typography>
        {person} and you both changed {counted(clash.what.length, "thing")}. All other changes of both are kept; choose
        whose stays here. What of yours does not stay is kept as a state of its own in History.
      </Typography>
      <Box component="ul" sx={{ m: 0, my: 1, p: 0, listStyle: "none", maxHeight: 240, overflow: "auto" }}>
        {clash.what.map((each) => {
          const name = clashName(each);
          const what = `${each.path ? settingName(each.path) : "all"} of ${partName(parts, each.owner)}`;
          return (
            <Box component="li" key={name} sx={{ display: "flex", gap: 1.5, alignItems: "center", py: 0.5 }}>
              <Box component="span" sx={{ flex: "0 1 280px", fontWeight: 600, overflowWrap: "anywhere" }}>
                {what}
              </Box>
              <ToggleButtonGroup
                exclusive
                size="small"
                aria-label={`Whose ${what} stays`}
                value={chosen[name] ?? "mine"}
                onChange={(_event, side: Side | null) => side && setChosen({ ...chosen, [name]: side })}
              >
                <ToggleButton value="mine">Yours: {valueTold(each, each.mine)}</ToggleButton>
                <ToggleButton value="theirs">
                  {person}: {valueTold(each, each.theirs)}
                </ToggleButton>
              </ToggleButtonGroup>
            </Box>
          );
        })}
      </Box>
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button
          size="small"
          variant="contained"
          onClick={() => settle((each: Clash) => chosen[clashName(each)] ?? "mine")}
        >
          Go on like this
        </Button>
        <Button size="small" color="inherit" onClick={() => settle("mine")}>
          Keep all mine
        </Button>
        <Button size="small" color="inherit" onClick={() => settle("theirs")}>
          Take all theirs
        </Button>
      </Box>
    </Alert>
  );
}

function valueTold({ path }: Clash, value: unknown): string {
  if (path === PLACE || path.endsWith(`.${PLACE}`)) return "another place";
  if (value === undefined) return "taken away";
  if (Array.isArray(value)) return counted(value.length, "entry", "entries");
  if (value !== null && typeof value === "object") return path === "" ? "changed" : "set otherwise";
  return shortly(value) || "nothing";
}
