// Where the team's work is: the places that the bar leads to.
import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { queries } from "../api/queries";
import { NavLink } from "react-router";

export const PLACES = [
  ["/", "Forms"],
  ["/tables", "Tables"],
  ["/decisions", "Decisions"],
  ["/team", "Team"],
] as const;

export function Places() {
  const inbox = useQuery(queries.decisions()).data;
  const waiting =
    (inbox?.waiting.length ?? 0) + (inbox?.parts.length ?? 0) + (useQuery(queries.tasks()).data?.tasks.length ?? 0);
  return (
    <Box
      component="nav"
      aria-label="Places"
      sx={{
        display: "flex",
        gap: 2.5,
        flex: 1,
        ml: 1,
        "& a": { color: "bar.quiet", textDecoration: "none", fontWeight: 650, fontSize: 15, py: 1.5 },
        "& a[aria-current]": { color: "bar.text", boxShadow: "inset 0 -2px var(--mui-palette-bar-text)" },
      }}
    >
      {PLACES.map(([to, name]) => (
        <NavLink key={to} to={to!} end={to === "/"}>
          {name}
          {name === "Decisions" && waiting > 0 && (
            <Box
              component="span"
              sx={{ ml: 0.75, px: 0.75, borderRadius: 2, fontSize: 12, bgcolor: "bar.text", color: "bar.main" }}
            >
              {waiting}
            </Box>
          )}
        </NavLink>
      ))}
    </Box>
  );
}
