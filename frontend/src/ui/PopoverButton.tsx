// A button that opens a dialog below it; what stands in it may close it.
import Button, { type ButtonProps } from "@mui/material/Button";
import Popover from "@mui/material/Popover";
import { type ReactNode, useState } from "react";

interface Props extends Pick<ButtonProps, "variant" | "color"> {
  label: ReactNode;
  /** What the dialog is called, how wide it is, and the room at its edge. */
  name: string;
  width: number;
  room?: number;
  children: (close: () => void) => ReactNode;
}

export function PopoverButton({ label, name, width, room = 0, children, ...button }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = () => setAnchor(null);
  return (
    <>
      <Button {...button} aria-haspopup="dialog" onClick={(event) => setAnchor(event.currentTarget)}>
        {label}
      </Button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={close}
        anchorOrigin={{ vertical: "bottom", horizontal: "right" }}
        transformOrigin={{ vertical: "top", horizontal: "right" }}
        slotProps={{ paper: { role: "dialog", "aria-label": name, sx: { width, p: room } } }}
      >
        {children(close)}
      </Popover>
    </>
  );
}
