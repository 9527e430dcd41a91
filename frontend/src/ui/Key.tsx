// A key of the keyboard, as it is told in lists and buttons.
import Box from "@mui/material/Box";

export function Key({ children }: { children: string }) {
  return (
    <Box
      component="kbd"
      aria-hidden="true"
      sx={{
        px: 0.75,
        fontFamily: "inherit",
        fontSize: 11,
        lineHeight: "18px",
        whiteSpace: "nowrap",
        color: "text.secondary",
        border: 1,
        borderColor: "divider",
        borderRadius: 0.5,
        bgcolor: "background.default",
      }}
    >
      {children}
    </Box>
  );
}
