// How a section is laid out: what is set in the middle, the live picture at the right.
import Box from "@mui/material/Box";
import Paper from "@mui/material/Paper";
import Typography from "@mui/material/Typography";
import type { PropsWithChildren, ReactNode } from "react";

interface Props {
  title: string;
  lead: string;
  picture: ReactNode;
}

export function Layout({ title, lead, picture, children }: PropsWithChildren<Props>) {
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0,1fr) minmax(360px, 38%)", minHeight: 0 }}>
      <Box sx={{ overflow: "auto", p: 2.5, display: "grid", gap: 2, alignContent: "start" }}>
        <Box>
          <Typography variant="h1" component="h2">
            {title}
          </Typography>
          <Typography color="text.secondary">{lead}</Typography>
        </Box>
        {children}
      </Box>
      <Box
        component="section"
        aria-label="Live picture"
        sx={{
          minHeight: 0,
          overflow: "auto",
          borderLeft: 1,
          borderColor: "divider",
          bgcolor: "background.default",
          p: 2,
          display: "flex",
          flexDirection: "column",
          gap: 1.5,
        }}
      >
        {picture}
      </Box>
    </Box>
  );
}

export function Panel({ title, lead, children }: PropsWithChildren<{ title: string; lead?: string }>) {
  return (
    <Paper component="section" aria-label={title} variant="outlined" sx={{ p: 2, minWidth: 0 }}>
      <Typography variant="h2" component="h3">
        {title}
      </Typography>
      {lead && (
        <Typography variant="body2" color="text.secondary">
          {lead}
        </Typography>
      )}
      <Box sx={{ display: "grid", gap: 1.5, mt: 1.5, minWidth: 0 }}>{children}</Box>
    </Paper>
  );
}
