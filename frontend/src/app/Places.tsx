// Where the team's work is: the places that the bar leads to.
import Box from "@mui/material/Box";
import { NavLink } from "react-router";
import { useSignedIn } from "./signed_in";

export function Places() {
  const who = useSignedIn();
  const places = [["/", "Forms"], ...(who.role === "viewer" ? [] : [["/tables", "Tables"]])];
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
      {places.map(([to, name]) => (
        <NavLink key={to} to={to!} end={to === "/"}>
          {name}
        </NavLink>
      ))}
    </Box>
  );
}
