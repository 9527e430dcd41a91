// What there is of the team: its people, groups, members, and what was done.
import Box from "@mui/material/Box";
import { NavLink } from "react-router";
import { useSignedIn } from "../signed_in";

const PLACES = [
  { to: "/team", name: "People", owners: false },
  { to: "/team/groups", name: "Groups", owners: false },
  { to: "/team/members", name: "Members", owners: false },
  { to: "/team/calendars", name: "Calendars", owners: false },
  { to: "/team/audit", name: "Audit log", owners: true },
] as const;

export function TeamPlaces() {
  const { role } = useSignedIn();
  return (
    <Box
      component="nav"
      aria-label="Of the team"
      sx={{
        display: "flex",
        gap: 2.5,
        mb: 2,
        borderBottom: 1,
        borderColor: "divider",
        "& a": { color: "text.secondary", textDecoration: "none", fontWeight: 650, py: 1 },
        "& a[aria-current]": { color: "primary.main", boxShadow: "inset 0 -2px var(--mui-palette-primary-main)" },
      }}
    >
      {PLACES.filter(({ owners }) => !owners || role === "owner").map(({ to, name }) => (
        <NavLink key={to} to={to} end>
          {name}
        </NavLink>
      ))}
    </Box>
  );
}
