// Text to take away, with a button that copies it.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { MONO } from "../theme/theme";

interface Props {
  label: string;
  text: string;
  /** Whether long lines go on below. */
  wrap?: boolean;
}

export function CopyField({ label, text, wrap = false }: Props) {
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    await navigator.clipboard.writeText(text);
    setCopied(true);
    setTimeout(() => setCopied(false), 2000);
  };
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "flex-start" }}>
      <Box
        component="pre"
        role="group"
        aria-label={label}
        tabIndex={0}
        sx={{
          flex: 1,
          minWidth: 0,
          m: 0,
          px: 1.5,
          py: 1,
          border: 1,
          borderColor: "divider",
          borderRadius: 1,
          bgcolor: "background.default",
          fontFamily: MONO,
          fontSize: 12,
          lineHeight: "18px",
          overflow: "auto",
          ...(wrap ? { whiteSpace: "pre-wrap", overflowWrap: "anywhere" } : {}),
        }}
      >
        {text}
      </Box>
      <Button
        variant="outlined"
        color="inherit"
        onClick={() => void copy()}
        aria-label={`Copy ${label}`}
        sx={{ minWidth: 76 }}
      >
        {copied ? "Copied" : "Copy"}
      </Button>
    </Box>
  );
}
