// A dialog in which something is found by typing, and done once it is picked.
import Dialog from "@mui/material/Dialog";
import type { ComponentProps } from "react";
import { FindByTyping, type Listed } from "./FindByTyping";

export interface Doable extends Listed {
  run: () => void;
}

interface Props extends Omit<ComponentProps<typeof FindByTyping<Doable>>, "onPick"> {
  name: string;
  onClose: () => void;
}

export function FindDialog({ name, onClose, ...finding }: Props) {
  return (
    <Dialog
      open
      onClose={onClose}
      slotProps={{ paper: { "aria-label": name, sx: { width: 520, alignSelf: "start" } } }}
    >
      <FindByTyping
        {...finding}
        onPick={(found) => {
          onClose();
          found.run();
        }}
      />
    </Dialog>
  );
}
