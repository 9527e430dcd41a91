import Box from "@mui/material/Box";
import { NavLink } from "react-router";
import { useSignedIn } from "../signed_in";
import { useBench } from "./bench";

export function AreaTabs({ area, formId }: { area: string; formId: string }) {
  const { reply } = useBench();
  const who = useSignedIn();
  const areas = [
    { name: "compose", title: "Compose", count: "" },
    { name: "publish", title: "Publish", count: "" },
    ...(who.role === "viewer"
      ? []
      : [{ name: "responses", title: "Responses", count: reply.responses ? String(reply.responses) : "" }]),
  ];
  return (
    <Box
      component="nav"
      aria-label="Areas"
      sx={{
        display: "flex",
        gap: 0.5,
        px: 1.5,
        height: 38,
        borderBottom: 1,
        borderColor: "divider",
        bgcolor: "background.paper",
      }}
    >
      {areas.map(({ name, title, count }) => (
        <Box
          key={name}
          component={NavLink}
          to={`/forms/${formId}/${name}`}
          aria-current={name === area ? "page" : undefined}
          sx={{
            display: "flex",
            alignItems: "center",
            gap: 0.75,
            px: 1.25,
            color: name === area ? "text.primary" : "text.secondary",
            fontWeight: name === area ? 650 : 600,
            fontSize: 14,
            textDecoration: "none",
            borderBottom: 3,
            borderColor: name === area ? "primary.main" : "transparent",
            "&:hover": { color: "text.primary" },
          }}
        >
          {title}
          {count && (
            <Box component="span" sx={{ fontSize: 12, fontWeight: 400, color: "text.secondary" }}>
              {count}
            </Box>
          )}
        </Box>
      ))}
    </Box>
  );
}
