// A screen of its own beside the desk and the workbench: the bar above, a title, and what it is about.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { PropsWithChildren } from "react";
import { Places } from "./Places";
import { TopBar } from "./TopBar";

export function Single({ title, children }: PropsWithChildren<{ title: string }>) {
  return (
    <Box sx={{ display: "flex", flexDirection: "column", height: "100vh" }}>
      <TopBar>
        <Places />
      </TopBar>
      <Box component="main" tabIndex={0} aria-label={title} sx={{ flex: 1, overflow: "auto", p: 3 }}>
        <Box sx={{ maxWidth: 980, mx: "auto" }}>
          <Typography variant="h1" sx={{ mb: 1 }}>
            {title}
          </Typography>
          {children}
        </Box>
      </Box>
    </Box>
  );
}
