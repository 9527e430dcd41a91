// The desk: the team's forms as dense rows, and what needs attention.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Chip from "@mui/material/Chip";
import Snackbar from "@mui/material/Snackbar";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { FormRowReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { Places } from "../Places";
import { TopBar } from "../TopBar";
import { Waiting } from "../Waiting";
import { mayEdit, useSignedIn } from "../signed_in";
import { Attention } from "./Attention";
import { FormTable } from "./FormTable";
import { NewForm } from "./NewForm";
import { useDesk } from "./useDesk";

const FILTERS: { name: string; holds: (form: FormRowReply) => boolean }[] = [
  { name: "All", holds: () => true },
  { name: "Live", holds: (form) => form.live_edition !== null },
  { name: "Drafts", holds: (form) => form.live_edition === null },
  { name: "Changed since publishing", holds: (form) => form.changed },
];

export function Desk() {
  const who = useSignedIn();
  const desk = useQuery(queries.forms());
  const [filter, setFilter] = useState(FILTERS[0]!);
  const actions = useDesk();
  const forms = desk.data?.forms ?? [];
  return (
    <Box sx={{ display: "flex", flexDirection: "column", height: "100vh" }}>
      <TopBar>
        <Places />
      </TopBar>
      <Box
        sx={{ flex: 1, display: "grid", gridTemplateColumns: { xs: "1fr", md: "minmax(0,1fr) 308px" }, minHeight: 0 }}
      >
        <Box component="main" sx={{ p: 3, overflow: "auto" }}>
          <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, mb: 1.5 }}>
            <Typography variant="h1" sx={{ flex: 1 }}>
              {who.team_name}
            </Typography>
            {who.role !== "viewer" && (
              <Button component={Link} to="/payments" color="inherit">
                Payments
              </Button>
            )}
            {mayEdit(who) && <NewForm actions={actions} />}
          </Box>
          <Box sx={{ display: "flex", gap: 1, mb: 2 }} role="group" aria-label="Which forms">
            {FILTERS.map((each) => (
              <Chip
                key={each.name}
                label={`${each.name} ${forms.filter(each.holds).length}`}
                aria-pressed={each === filter}
                variant={each === filter ? "filled" : "outlined"}
                onClick={() => setFilter(each)}
                sx={
                  each === filter
                    ? { bgcolor: "bar.main", color: "bar.text", "&:hover": { bgcolor: "bar.raised" } }
                    : { bgcolor: "background.paper" }
                }
              />
            ))}
          </Box>
          {desk.isPending && <Waiting />}
          {desk.isError && (
            <Alert severity="error" action={<Button onClick={() => void desk.refetch()}>Try again</Button>}>
              {desk.error.message}
            </Alert>
          )}
          {desk.data && <FormTable forms={forms.filter(filter.holds)} actions={actions} empty={forms.length === 0} />}
        </Box>
        <Attention forms={forms} />
      </Box>
      <Snackbar
        open={actions.deleted !== null}
        onClose={(_event, reason) => reason === "timeout" && actions.forgetDeleted()}
        autoHideDuration={15_000}
        message={`${actions.deleted?.name} was deleted.`}
        action={
          <Button color="inherit" variant="outlined" onClick={actions.undoDelete}>
            Undo
          </Button>
        }
      />
      <Snackbar open={actions.problem !== null} autoHideDuration={10_000} onClose={actions.forgetProblem}>
        <Alert severity="error" onClose={actions.forgetProblem}>
          {actions.problem}
        </Alert>
      </Snackbar>
    </Box>
  );
}
