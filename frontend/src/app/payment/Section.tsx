// A part of the payment area, under its title.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { PropsWithChildren } from "react";

export const Section = ({ title, children }: PropsWithChildren<{ title: string }>) => (
  <Box component="section" aria-label={title} sx={{ display: "grid", gap: 1.25, maxWidth: 560 }}>
    <Typography variant="h2">{title}</Typography>
    {children}
  </Box>
);
