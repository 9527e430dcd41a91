// What tables of options, questions and bands share: heads, codes, their order, and the line that makes another one.
import Box from "@mui/material/Box";
import InputBase from "@mui/material/InputBase";
import { type ClipboardEvent, type KeyboardEvent, type ReactNode, useState } from "react";
import { RenamedBox } from "../ui/RenamedField";

/** The same items with one of them elsewhere; as they are where there is no such place. */
export const moved = <Item,>(items: readonly Item[], from: number, to: number): Item[] => {
  const rest = items.filter((_item, index) => index !== from);
  return to < 0 || to >= items.length ? [...items] : [...rest.slice(0, to), items[from]!, ...rest.slice(to)];
};

/** What stands above the columns of such a table; its boxes have names of their own. */
export const ColumnHeads = ({ columns, gap, children }: { columns: string; gap: number; children: ReactNode }) => (
  <Box
    aria-hidden="true"
    sx={{ display: "grid", gridTemplateColumns: columns, gap, fontSize: 12, fontWeight: 650, color: "text.secondary" }}
  >
    {children}
  </Box>
);

/** Alt+↑ and Alt+↓ move a line of the table, not the block. */
export const byAltArrows = (onMove: (by: -1 | 1) => void) => (event: KeyboardEvent) => {
  if (!event.altKey || (event.key !== "ArrowUp" && event.key !== "ArrowDown")) return;
  event.preventDefault();
  event.stopPropagation();
  onMove(event.key === "ArrowUp" ? -1 : 1);
};

interface CodeBoxProps {
  name: string;
  code: string;
  onCode: (code: string) => Promise<void> | void;
}

/** A code, changed when it is left; what is blank is not kept. */
export const CodeBox = ({ name, code, onCode }: CodeBoxProps) => (
  <RenamedBox code name={name} value={code} onRename={onCode} />
);

interface NewLineProps {
  name: string;
  onAdd: (label: string) => void;
  onPaste: (event: ClipboardEvent) => void;
}

/** The last line: Enter, or leaving it, makes what it says; what is pasted makes several. */
export function NewLine({ name, onAdd, onPaste }: NewLineProps) {
  const [label, setLabel] = useState("");
  const keep = () => {
    if (label.trim()) onAdd(label.trim());
    setLabel("");
  };
  return (
    <InputBase
      value={label}
      placeholder={name}
      onChange={(event) => setLabel(event.target.value)}
      onPaste={onPaste}
      onBlur={keep}
      onKeyDown={(event) => event.key === "Enter" && keep()}
      inputProps={{ "aria-label": name }}
      sx={{ px: 0.75, borderBottom: 1, borderColor: "divider" }}
    />
  );
}
