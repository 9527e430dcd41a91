// What every way to start a form has: the bar, a title, and the way back.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { PropsWithChildren } from "react";
import { Link } from "react-router";
import { TopBar } from "../TopBar";
import { useSignedIn } from "../signed_in";

interface Props {
  title: string;
  lead: string;
}

export function StartPage({ title, lead, children }: PropsWithChildren<Props>) {
  const who = useSignedIn();
  return (
    <Box sx={{ height: "100vh", display: "flex", flexDirection: "column", minWidth: 1000 }}>
      <TopBar>
        <Typography
          component={Link}
          to="/"
          sx={{ color: "bar.quiet", textDecoration: "none", "&:hover": { color: "bar.text" } }}
        >
          {who.team_name}
        </Typography>
        <Box aria-hidden="true" sx={{ color: "bar.quiet" }}>
          /
        </Box>
        <Typography sx={{ fontSize: 16, fontWeight: 650 }}>New form</Typography>
        <Box sx={{ flex: 1 }} />
      </TopBar>
      <Box component="main" sx={{ flex: 1, minHeight: 0, display: "flex", flexDirection: "column", p: 3, gap: 2 }}>
        <Box>
          <Typography variant="h1">{title}</Typography>
          <Typography color="text.secondary">{lead}</Typography>
        </Box>
        {children}
      </Box>
    </Box>
  );
}
