// The side of an area: its panel, and the rows in it that are chosen one at a time.
import Box from "@mui/material/Box";
import type { PropsWithChildren } from "react";

export function SidePanel({ name, children }: PropsWithChildren<{ name: string }>) {
  return (
    <Box
      component="section"
      aria-label={name}
      sx={{
        display: "flex",
        flexDirection: "column",
        minHeight: 0,
        borderRight: 1,
        borderColor: "divider",
        bgcolor: "background.paper",
      }}
    >
      {children}
    </Box>
  );
}

export function SideRow({ chosen, onChoose, children }: PropsWithChildren<{ chosen: boolean; onChoose: () => void }>) {
  return (
    <Box
      component="button"
      type="button"
      aria-pressed={chosen}
      onClick={onChoose}
      sx={{
        display: "block",
        width: "100%",
        px: 2,
        py: 1,
        font: "inherit",
        textAlign: "left",
        color: "inherit",
        cursor: "pointer",
        background: "none",
        border: 0,
        borderLeft: 3,
        borderColor: chosen ? "primary.main" : "transparent",
        bgcolor: chosen ? "noteTint.calculation" : undefined,
      }}
    >
      {children}
    </Box>
  );
}
