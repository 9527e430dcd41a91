// The desk: the team's forms as dense rows, searched, sorted and chosen, and what needs attention.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Chip from "@mui/material/Chip";
import Snackbar from "@mui/material/Snackbar";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import type { DeskView } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { Places } from "../Places";
import { TopBar } from "../TopBar";
import { Waiting } from "../Waiting";
import { mayEdit, useSignedIn } from "../signed_in";
import { Attention } from "./Attention";
import { Bin } from "./Bin";
import { ChosenForms } from "./ChosenForms";
import { ALL, chosen, inState, sorted, STATES } from "./choosing";
import { DeleteQuestion } from "./DeleteQuestion";
import { DeskFilter } from "./DeskFilter";
import { FormTable } from "./FormTable";
import { NewForm } from "./NewForm";
import { openedLately } from "./opened_lately";
import { useDesk } from "./useDesk";

export function Desk() {
  const who = useSignedIn();
  const desk = useQuery(queries.forms());
  const bin = useQuery({ ...queries.bin(), enabled: mayEdit(who) });
  const [view, setView] = useState<DeskView>(ALL);
  const [inBin, setInBin] = useState(false);
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const actions = useDesk();
  const forms = useMemo(() => desk.data?.forms ?? [], [desk.data]);
  const fitting = useMemo(() => chosen(forms, view), [forms, view]);
  const shown = useMemo(
    () => sorted(inState(fitting, view.state), view.sort, openedLately(who.person_id)),
    [fitting, view.state, view.sort, who.person_id],
  );
  const change = (changes: Partial<DeskView>) => {
    setInBin(false);
    setView({ ...view, ...changes });
  };
  const deleted = bin.data?.forms ?? [];
  const picked = forms.filter(({ id }) => ticked.has(id));
  const chips = [
    ...STATES.map(({ state, name }) => ({
      name: `${name} ${inState(fitting, state).length}`,
      on: !inBin && view.state === state,
      choose: () => change({ state }),
    })),
    ...(deleted.length > 0 || inBin
      ? [{ name: `Bin ${deleted.length}`, on: inBin, choose: () => setInBin(true) }]
      : []),
  ];
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
          <DeskFilter forms={forms} view={view} views={desk.data?.views ?? []} onChange={change} />
          <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mb: 2 }} role="group" aria-label="Which forms">
            {chips.map(({ name, on, choose }) => (
              <Chip
                key={name.replace(/ \d+$/, "")}
                label={name}
                aria-pressed={on}
                variant={on ? "filled" : "outlined"}
                onClick={choose}
                sx={
                  on
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
          {inBin && bin.data && <Bin bin={bin.data} actions={actions} />}
          {!inBin && picked.length > 0 && (
            <ChosenForms forms={picked} all={forms} actions={actions} onDone={setTicked} />
          )}
          {!inBin && desk.data && (
            <FormTable
              forms={shown}
              actions={actions}
              empty={forms.length === 0}
              sort={view.sort}
              onSort={(sort) => change({ sort })}
              ticked={ticked}
              onTick={setTicked}
            />
          )}
        </Box>
        <Attention forms={forms} />
      </Box>
      {actions.asked && <DeleteQuestion forms={actions.asked} actions={actions} />}
      <Snackbar
        open={actions.told !== null}
        onClose={(_event, reason) => reason === "timeout" && actions.forgetTold()}
        autoHideDuration={15_000}
        message={actions.told?.words}
        action={
          actions.told?.undo && (
            <Button color="inherit" variant="outlined" onClick={actions.told.undo}>
              Undo
            </Button>
          )
        }
      />
      <Snackbar
        open={actions.problem !== null}
        autoHideDuration={60_000}
        onClose={(_event, why) => why !== "clickaway" && actions.forgetProblem()}
      >
        <Alert severity="error" onClose={actions.forgetProblem} sx={{ whiteSpace: "pre-line", maxWidth: 560 }}>
          {actions.problem}
        </Alert>
      </Snackbar>
    </Box>
  );
}
