import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Paper from "@mui/material/Paper";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import { visuallyHidden } from "@mui/utils";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { FormRowReply } from "../../api/generated/wire";
import { share } from "../../text/visits";
import { asDay, counted } from "../../text/words";
import { SERIF } from "../../theme/theme";
import { Sparkline } from "../../ui/Sparkline";
import { mayEdit, useSignedIn } from "../signed_in";
import { stateOf, thisWeek } from "./state";
import { MoveForm } from "./MoveForm";
import type { DeskActions } from "./useDesk";

interface Props {
  forms: FormRowReply[];
  actions: DeskActions;
  empty: boolean;
}

export function FormTable({ forms, actions, empty }: Props) {
  if (empty) return <FirstForm actions={actions} />;
  return (
    <Paper variant="outlined" sx={{ overflow: "auto" }}>
      <Table
        size="small"
        sx={{ "& th": { color: "text.secondary", fontWeight: 650, fontSize: 12 }, "& td": { py: 0.75 } }}
      >
        <TableHead>
          <TableRow>
            <TableCell>Form</TableCell>
            <TableCell>State</TableCell>
            <TableCell align="right">This week</TableCell>
            <TableCell>Last 14 days</TableCell>
            <TableCell align="right">Responses</TableCell>
            <TableCell align="right" title="Of those who saw it in the last 30 days">
              Sent it
            </TableCell>
            <TableCell>Changed</TableCell>
            <TableCell>
              <Box component="span" sx={visuallyHidden}>
                Actions
              </Box>
            </TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {forms.map((form) => (
            <FormRow key={form.id} form={form} actions={actions} />
          ))}
        </TableBody>
      </Table>
      {forms.length === 0 && <Typography sx={{ p: 3, color: "text.secondary" }}>No form is in this state.</Typography>}
    </Paper>
  );
}

function FormRow({ form, actions }: { form: FormRowReply; actions: DeskActions }) {
  const navigate = useNavigate();
  const compose = `/forms/${form.id}/compose`;
  const colour = form.unreadable
    ? "error.main"
    : form.live_edition === null
      ? "text.secondary"
      : form.changed
        ? "warning.main"
        : "primary.main";
  return (
    <TableRow hover onClick={() => void navigate(compose)} sx={{ cursor: "pointer", "&:last-child td": { border: 0 } }}>
      <TableCell>
        <Typography
          component={Link}
          to={compose}
          onClick={(event) => event.stopPropagation()}
          sx={{
            fontWeight: 650,
            fontSize: 15,
            color: "inherit",
            textDecoration: "none",
            "&:hover": { textDecoration: "underline" },
          }}
        >
          {form.name}
        </Typography>
        <Typography variant="caption" sx={{ display: "block", color: "text.secondary" }}>
          /{form.slug}
        </Typography>
      </TableCell>
      <TableCell>
        <Box
          component="span"
          aria-hidden="true"
          sx={{ display: "inline-block", width: 8, height: 8, mr: 1, borderRadius: 0.25, bgcolor: colour }}
        />
        {stateOf(form)}
      </TableCell>
      <NumberCell number={form.live_edition === null ? null : thisWeek(form)} />
      <TableCell>
        {form.live_edition !== null && (
          <Sparkline numbers={form.days} label={`Responses on each of the last 14 days: ${form.days.join(", ")}`} />
        )}
      </TableCell>
      <NumberCell number={form.live_edition === null ? null : form.responses} />
      <TableCell align="right" sx={{ whiteSpace: "nowrap" }} title={`${form.sent} of ${form.seen} in the last 30 days`}>
        {share(form.sent, form.seen)}
      </TableCell>
      <TableCell sx={{ whiteSpace: "nowrap" }}>
        {asDay(form.changed_at)}
        {form.changed_by && `, ${form.changed_by.split(" ")[0]}`}
      </TableCell>
      <TableCell align="right" onClick={(event) => event.stopPropagation()} sx={{ cursor: "default" }}>
        <RowMenu form={form} actions={actions} />
      </TableCell>
    </TableRow>
  );
}

function NumberCell({ number }: { number: number | null }) {
  return (
    <TableCell align="right" sx={{ fontFamily: SERIF, fontSize: 15, fontVariantNumeric: "tabular-nums lining-nums" }}>
      {number ?? "–"}
    </TableCell>
  );
}

function RowMenu({ form, actions }: { form: FormRowReply; actions: DeskActions }) {
  const who = useSignedIn();
  const navigate = useNavigate();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [moving, setMoving] = useState(false);
  const then = (work: () => void) => () => {
    setAnchor(null);
    work();
  };
  return (
    <>
      <IconButton
        aria-label={`What to do with ${form.name}`}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ width: 28, height: 28, fontSize: 16 }}
      >
        ⋯
      </IconButton>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {who.role !== "viewer" && (
          <MenuItem onClick={then(() => void navigate(`/forms/${form.id}/responses`))}>
            Open {counted(form.responses, "response")}
          </MenuItem>
        )}
        {mayEdit(who) && <MenuItem onClick={then(() => actions.duplicate(form))}>Duplicate</MenuItem>}
        {who.role === "owner" && <MenuItem onClick={then(() => setMoving(true))}>Move to another team …</MenuItem>}
        {mayEdit(who) && <MenuItem onClick={then(() => actions.remove(form))}>Delete</MenuItem>}
        {who.role === "viewer" && (
          <MenuItem onClick={then(() => void navigate(`/forms/${form.id}/compose`))}>Look at it</MenuItem>
        )}
      </Menu>
      {moving && <MoveForm form={form} onClose={() => setMoving(false)} />}
    </>
  );
}

function FirstForm({ actions }: { actions: DeskActions }) {
  const who = useSignedIn();
  return (
    <Paper variant="outlined" sx={{ p: 4, display: "grid", gap: 1.5, justifyItems: "start" }}>
      <Typography variant="h2">This is where your team’s forms lie</Typography>
      <Typography color="text.secondary">
        A form is composed on its sheet, with its rules and formulas beside it. Start with a blank one.
      </Typography>
      {mayEdit(who) && (
        <Button variant="contained" onClick={actions.make}>
          Make the first form
        </Button>
      )}
    </Paper>
  );
}
