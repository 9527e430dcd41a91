// The dark bar above every screen: the mark, what stands in it, and the person's menu.
import Avatar from "@mui/material/Avatar";
import Box from "@mui/material/Box";
import IconButton from "@mui/material/IconButton";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type PropsWithChildren, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api } from "../api/client";
import { queries } from "../api/queries";
import { Mark } from "../ui/Mark";
import { useSignedIn } from "./signed_in";

export function TopBar({ children }: PropsWithChildren) {
  return (
    <Box
      component="header"
      sx={{
        height: 48,
        px: 2,
        display: "flex",
        alignItems: "center",
        gap: 1.5,
        color: "bar.text",
        bgcolor: "bar.main",
        "& :focus-visible": { outlineColor: "var(--mui-palette-bar-text)" },
        "& > .MuiButton-root": { flexShrink: 0, whiteSpace: "nowrap" },
      }}
    >
      <Link to="/" aria-label="Codexa: to the desk" style={{ display: "flex" }}>
        <Mark />
      </Link>
      {children}
      <PersonMenu />
    </Box>
  );
}

function PersonMenu() {
  const who = useSignedIn();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  const signOut = async () => {
    await api.signOut();
    queryClient.setQueryData(queries.session().queryKey, null);
    queryClient.removeQueries({ predicate: (query) => query.queryKey[0] !== "session" });
    await navigate("/sign-in");
  };
  const teams = useQuery({ ...queries.teams(), enabled: anchor !== null });
  const others = (teams.data?.teams ?? []).filter(({ id }) => id !== who.team_id);
  /** To another team, or to a desk of one's own that is yet to be made. */
  const go = async (team: string | null) => {
    const there = await (team ? api.goToTeam(team) : api.goToOwnDesk());
    queryClient.setQueryData(queries.session().queryKey, there);
    queryClient.removeQueries({ predicate: (query) => query.queryKey[0] !== "session" });
    setAnchor(null);
    await navigate("/");
  };
  const initials = who.person_name
    .split(" ")
    .map((word) => word[0])
    .slice(0, 2)
    .join("");
  return (
    <>
      <IconButton
        aria-label={`${initials}: you, ${who.person_name}`}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ p: 0 }}
      >
        <Avatar sx={{ width: 28, height: 28, fontSize: 12, fontWeight: 650, color: "bar.main", bgcolor: "bar.quiet" }}>
          {initials}
        </Avatar>
      </IconButton>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <Box sx={{ px: 2, py: 1 }}>
          <Typography sx={{ fontWeight: 600 }}>{who.person_name}</Typography>
          <Typography variant="body2" color="text.secondary">
            {who.email} · {who.role}
          </Typography>
        </Box>
        <MenuItem component={Link} to="/account">
          Your account
        </MenuItem>
        {others.map(({ id, name, personal }) => (
          <MenuItem key={id} onClick={() => void go(id)}>
            {personal ? "To your own desk" : `To the team ${name}`}
          </MenuItem>
        ))}
        {teams.data && !teams.data.teams.some(({ personal }) => personal) && (
          <MenuItem onClick={() => void go(null)}>To a desk of your own</MenuItem>
        )}
        {who.role === "owner" && (
          <MenuItem component={Link} to="/jobs">
            Jobs and mail
          </MenuItem>
        )}
        {who.role === "owner" && (
          <MenuItem component={Link} to="/programs">
            Keys for programs
          </MenuItem>
        )}
        {who.role === "owner" && (
          <MenuItem component={Link} to="/person">
            Everything about a person
          </MenuItem>
        )}
        <MenuItem onClick={() => void signOut()}>Sign out</MenuItem>
      </Menu>
    </>
  );
}
