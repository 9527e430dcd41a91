// A key: renamed when it is left, with every formula that uses it.
import TextField from "@mui/material/TextField";
import { useRef, useState } from "react";
import { ApiError } from "../../api/client";
import { MONO } from "../../theme/theme";
import type { ComposeActions } from "./actions";

/** A key is wrong in one way, and where it stands is seen. */
function sayWhy(error: unknown): string {
  if (error instanceof ApiError && error.problems[0]) return `${error.problems[0].message}.`;
  return error instanceof Error ? error.message : String(error);
}

interface Props {
  id: string;
  value: string;
  actions: Pick<ComposeActions, "renameKey">;
}

export function KeySetting({ id, value, actions }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const renaming = useRef(false);
  const forget = () => {
    setTyped(null);
    setProblem(null);
  };
  const keep = async () => {
    const key = typed?.trim();
    // Enter, and leaving the field while the core still renames, are one wish.
    if (renaming.current) return;
    if (!key || key === value) return forget();
    renaming.current = true;
    try {
      await actions.renameKey(id, key);
      forget();
    } catch (error) {
      setProblem(sayWhy(error));
    } finally {
      renaming.current = false;
    }
  };
  return (
    <TextField
      label="Key"
      value={typed ?? value}
      error={problem !== null}
      helperText={problem ?? "What formulas call it; changing it rewrites them"}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => void keep()}
      onKeyDown={(event) => {
        if (event.key === "Enter") void keep();
        if (event.key === "Escape") forget();
      }}
      slotProps={{ htmlInput: { spellCheck: false, style: { fontFamily: MONO, fontSize: 13 } } }}
    />
  );
}
