// Two people, one draft: what happened, and what to keep where both changed the same.
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import { useState } from "react";
import { type Entry, partsOf } from "../../model/parts";
import { useBench } from "./bench";

export function ClashNotice() {
  const { clash, notice, problem, saveState, parts, settle } = useBench();
  const [read, setRead] = useState<string | null>(null);
  if (clash) {
    const theirs = partsOf(clash.theirs.draft);
    const what = clash.what.map((name) => nameOf(parts.get(name) ?? theirs.get(name), name)).join(", ");
    const person = clash.theirs.changed_by ?? "Somebody";
    return (
      <Alert
        severity="warning"
        sx={{ borderRadius: 0 }}
        action={
          <>
            <Button color="inherit" onClick={() => settle("mine")}>
              Keep mine there
            </Button>
            <Button color="inherit" onClick={() => settle("theirs")}>
              Take theirs there
            </Button>
          </>
        }
      >
        {person} and you both changed {what}. All other changes of both are kept; choose whose version of this stays.
        The other one stays in the saved states.
      </Alert>
    );
  }
  if (saveState === "refused" && problem) {
    return (
      <Alert severity="error" sx={{ borderRadius: 0 }}>
        The draft can’t be saved like this: {problem}
      </Alert>
    );
  }
  if (notice && notice !== read) {
    return (
      <Alert severity="info" sx={{ borderRadius: 0 }} onClose={() => setRead(notice)}>
        {notice}
      </Alert>
    );
  }
  return null;
}

const nameOf = (entry: Entry | undefined, setting: string): string =>
  entry ? `${entry.number} ${entry.title}`.trim() : `the form’s ${setting.replaceAll("_", " ")}`;
