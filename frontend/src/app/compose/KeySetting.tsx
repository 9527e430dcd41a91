// A key: renamed when it is left, with every formula that uses it.
import TextField from "@mui/material/TextField";
import { useRef, useState } from "react";
import { reasonOf } from "../../api/client";
import { MONO } from "../../theme/theme";
import type { ComposeActions } from "./actions";

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
      setProblem(reasonOf(error));
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
