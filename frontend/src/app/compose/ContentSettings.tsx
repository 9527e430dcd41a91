// What a block says: label, help, placeholder, and the key that formulas use.
import TextField from "@mui/material/TextField";
import { useEffect, useRef, useState } from "react";
import type { Block } from "../../model/blocks";
import { MONO } from "../../theme/theme";
import type { ComposeActions } from "./useComposeActions";

interface Props {
  block: Block;
  actions: ComposeActions;
  focusLabel: boolean;
}

export function ContentSettings({ block, actions, focusLabel }: Props) {
  const label = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!focusLabel) return;
    label.current?.focus();
    label.current?.select();
  }, [focusLabel]);
  const text = (setting: string, title: string, value: string, help?: string, multiline = false) => (
    <TextField
      label={title}
      value={value}
      helperText={help}
      multiline={multiline}
      onChange={(event) => actions.edit(block.id, { [setting]: event.target.value })}
    />
  );
  return (
    <>
      {"label" in block || "text" in block ? (
        <TextField
          inputRef={label}
          label={"label" in block ? "Label" : "Text"}
          value={"label" in block ? block.label : block.text}
          multiline={!("label" in block)}
          onChange={(event) => actions.editLabel(block, event.target.value)}
        />
      ) : null}
      {"help" in block && text("help", "Help below the field", block.help, undefined, true)}
      {"lead" in block && text("lead", "Line below the heading", block.lead, undefined, true)}
      {"placeholder" in block &&
        text("placeholder", "Placeholder", block.placeholder, "An example that goes away on typing")}
      <KeySetting block={block} actions={actions} />
    </>
  );
}

/** The key is renamed when it is left, with every formula that uses it. */
function KeySetting({ block, actions }: Pick<Props, "block" | "actions">) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const keep = async () => {
    const key = typed?.trim();
    if (!key || key === block.key) return setTyped(null);
    try {
      await actions.renameKey(block, key);
      setTyped(null);
      setProblem(null);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <TextField
      label="Key"
      value={typed ?? block.key}
      error={problem !== null}
      helperText={problem ?? "What formulas call it; changing it rewrites them"}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => void keep()}
      onKeyDown={(event) => {
        if (event.key === "Enter") void keep();
        if (event.key === "Escape") {
          setTyped(null);
          setProblem(null);
        }
      }}
      slotProps={{ htmlInput: { spellCheck: false, style: { fontFamily: MONO, fontSize: 13 } } }}
    />
  );
}
