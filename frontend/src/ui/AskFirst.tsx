// A button for what can't be undone: it says what will happen, and does it on a second press.
import Box from "@mui/material/Box";
import Button, { type ButtonProps } from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";

interface Props {
  label: string;
  color: ButtonProps["color"];
  /** What will happen, as a sentence; null where nothing needs to be asked. */
  warning: string | null;
  onDone: () => void;
}

export function AskFirst({ label, color, warning, onDone }: Props) {
  const [asking, setAsking] = useState(false);
  // Who was asked goes on at the button, not at the page's beginning.
  const [asked, setAsked] = useState(false);
  const press = (does: boolean) => () => {
    setAsking(false);
    setAsked(true);
    if (does) onDone();
  };
  if (!asking)
    return (
      <Button color={color} autoFocus={asked} onClick={warning === null ? onDone : () => setAsking(true)}>
        {label}
      </Button>
    );
  return (
    <Box role="alert" sx={{ borderLeft: 3, borderColor: "note.check", pl: 1.5, my: 1 }}>
      <Typography variant="body2">{warning}</Typography>
      <Button autoFocus color={color} onClick={press(true)}>
        {label}
      </Button>
      <Button color="inherit" onClick={press(false)}>
        Leave it
      </Button>
    </Box>
  );
}
