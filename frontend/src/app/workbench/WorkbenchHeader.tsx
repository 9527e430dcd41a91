import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Chip from "@mui/material/Chip";
import IconButton from "@mui/material/IconButton";
import InputBase from "@mui/material/InputBase";
import Tooltip from "@mui/material/Tooltip";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import { asTime, counted } from "../../text/words";
import { TopBar } from "../TopBar";
import { leaveFocus } from "../leave_focus";
import { useSignedIn } from "../signed_in";
import { useBench } from "./bench";
import { PublishButton } from "./PublishButton";

export function WorkbenchHeader() {
  const who = useSignedIn();
  const bench = useBench();
  return (
    <TopBar>
      <Typography
        component={Link}
        to="/"
        sx={{
          ...WIDE_ONLY,
          color: "bar.quiet",
          textDecoration: "none",
          whiteSpace: "nowrap",
          "&:hover": { color: "bar.text" },
        }}
      >
        {who.team_name}
      </Typography>
      <Box aria-hidden="true" sx={{ ...WIDE_ONLY, color: "bar.quiet" }}>
        /
      </Box>
      <FormName />
      <Chip
        size="small"
        label={editionState(bench.saved.liveEdition, bench.saved.changes)}
        sx={{ color: "bar.text", bgcolor: "bar.raised" }}
      />
      <Box sx={{ flex: 1 }} />
      {bench.mayEdit && (
        <>
          <StepButton way="undo" />
          <StepButton way="redo" />
        </>
      )}
      <SaveState />
      <Button
        component={Link}
        to={`/forms/${bench.reply.id}/preview`}
        variant="outlined"
        color="inherit"
        sx={{ borderColor: "bar.quiet" }}
      >
        Preview
      </Button>
      {bench.saved.liveEdition !== null && (
        <Button
          href={bench.saved.address}
          target="_blank"
          rel="noopener"
          variant="outlined"
          color="inherit"
          sx={{ borderColor: "bar.quiet", whiteSpace: "nowrap" }}
        >
          Open the live form
        </Button>
      )}
      {bench.mayEdit && <PublishButton />}
    </TopBar>
  );
}

/** The mark leads to the desk too; on a narrow screen its name makes room. */
const WIDE_ONLY = { "@media (max-width: 1160px)": { display: "none" } } as const;

function editionState(live: number | null, changes: number): string {
  if (live === null) return "Draft, never published";
  return changes === 0 ? `Edition ${live} live` : `Edition ${live} live · ${counted(changes, "change")} since`;
}

/** Edited in place; an empty name goes back to what it was. */
function FormName() {
  const { form, act, mayEdit } = useBench();
  const [typed, setTyped] = useState<string | null>(null);
  const keep = () => {
    const name = typed?.trim();
    // Until visitors get a title of their own, it is the name.
    if (name) act({ do: "edit_form", changes: { name, ...(form.title === form.name ? { title: name } : {}) } });
    setTyped(null);
  };
  const shown = typed ?? form.name;
  return (
    <InputBase
      value={shown}
      readOnly={!mayEdit}
      inputProps={{ "aria-label": "Name of the form", size: Math.min(44, Math.max(8, shown.length)) }}
      onFocus={(event) => mayEdit && event.target.select()}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === "Enter") leaveFocus(event.target as HTMLElement);
        if (event.key === "Escape") setTyped(null);
      }}
      sx={{
        color: "inherit",
        fontSize: 16,
        fontWeight: 650,
        px: 0.75,
        borderRadius: 1,
        "&:hover, &.Mui-focused": { bgcolor: "bar.raised" },
        "& input": { fieldSizing: "content", minWidth: "6ch", maxWidth: "44ch" },
      }}
    />
  );
}

const STEPS = {
  undo: { title: "Undo", keys: "Ctrl+Z", sign: "↶" },
  redo: { title: "Redo", keys: "Ctrl+Shift+Z", sign: "↷" },
} as const;

/** One step back or forth; what it would do is worked out once somebody points at it. */
function StepButton({ way }: { way: "undo" | "redo" }) {
  const bench = useBench();
  const [told, setTold] = useState("");
  const { title, keys, sign } = STEPS[way];
  return (
    <Tooltip title={`${told || title} (${keys})`} onOpen={() => setTold(bench.wouldDo(way))}>
      <span>
        <IconButton
          aria-label={title}
          disabled={way === "undo" ? !bench.canUndo : !bench.canRedo}
          onClick={bench[way]}
          sx={{
            width: 32,
            height: 32,
            fontSize: 18,
            color: "inherit",
            "&.Mui-disabled": { color: "bar.quiet", opacity: 0.5 },
          }}
        >
          {sign}
        </IconButton>
      </span>
    </Tooltip>
  );
}

function SaveState() {
  const { saveState, saved, problem, mayEdit, reply } = useBench();
  if (!mayEdit) return <Typography sx={{ color: "bar.quiet" }}>Only to look at</Typography>;
  const words = {
    saved: `Saved ${asTime(saved.at)}`,
    saving: "Saving …",
    unreachable: "Not saved yet; trying again",
    refused: "Not saved",
    clash: "Not saved: choose above the sheet",
  }[saveState];
  const worried = saveState !== "saved" && saveState !== "saving";
  return (
    <span role="status">
      <Tooltip describeChild title={worried ? (problem ?? "") : "What was saved, and what changed"}>
        <Typography
          component={Link}
          to={`/forms/${reply.id}/history`}
          sx={{
            color: worried ? "bar.alarm" : "bar.quiet",
            whiteSpace: "nowrap",
            textDecoration: "none",
            "&:hover": { color: "bar.text" },
          }}
        >
          {words}
        </Typography>
      </Tooltip>
    </span>
  );
}
