import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Chip from "@mui/material/Chip";
import IconButton from "@mui/material/IconButton";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Paper from "@mui/material/Paper";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TableSortLabel from "@mui/material/TableSortLabel";
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
import type { Column } from "./choosing";
import { stateOf, thisWeek } from "./state";
import { MoveForm } from "./MoveForm";
import type { DeskActions } from "./useDesk";

interface Props {
  forms: readonly FormRowReply[];
  actions: DeskActions;
  empty: boolean;
  sort: string;
  onSort: (sort: string) => void;
  ticked: ReadonlySet<string>;
  onTick: (ticked: ReadonlySet<string>) => void;
}

/** Rows that are drawn at first, and more of them at a press: a thousand at once would be slow. */
const AT_ONCE = 60;

const COLUMNS: readonly { title: string; sorts?: Column; right?: boolean; hint?: string }[] = [
  { title: "Form", sorts: "name" },
  { title: "State" },
  { title: "This week", sorts: "week", right: true },
  { title: "Last 14 days" },
  { title: "Responses", sorts: "responses", right: true },
  { title: "Sent it", sorts: "sent", right: true, hint: "Of those who saw it in the last 30 days" },
  { title: "Open", sorts: "open", hint: "What waits for a decision, and follow-ups that did not work" },
  { title: "Changed", sorts: "changed" },
];

// Numbers and days begin with the most and the latest.
const DOWN_FIRST: ReadonlySet<Column> = new Set(["week", "responses", "sent", "open", "changed"]);

function nextSort(sort: string, column: Column): string {
  const [first, second] = DOWN_FIRST.has(column) ? [`-${column}`, column] : [column, `-${column}`];
  return sort === first ? second! : sort === second ? "" : first!;
}

export function FormTable({ forms, actions, empty, sort, onSort, ticked, onTick }: Props) {
  const [most, setMost] = useState(AT_ONCE);
  if (empty) return <FirstForm actions={actions} />;
  const shown = forms.slice(0, most);
  const all = forms.length > 0 && forms.every(({ id }) => ticked.has(id));
  const tick = (ids: readonly string[], on: boolean) => {
    const next = new Set(ticked);
    for (const id of ids)
      if (on) next.add(id);
      else next.delete(id);
    onTick(next);
  };
  return (
    <Paper variant="outlined" sx={{ overflow: "auto" }}>
      <Table
        size="small"
        sx={{
          "& th": { color: "text.secondary", fontWeight: 650, fontSize: 12 },
          "& td": { py: 0.75 },
          "& th, & td": { px: 1 },
          "& th:nth-of-type(2)": { width: "26%" },
        }}
      >
        <TableHead>
          <TableRow>
            <TableCell padding="checkbox">
              <Checkbox
                size="small"
                checked={all}
                indeterminate={!all && ticked.size > 0}
                onChange={() =>
                  tick(
                    forms.map(({ id }) => id),
                    !all,
                  )
                }
                slotProps={{ input: { "aria-label": "Tick all of these forms" } }}
              />
            </TableCell>
            {COLUMNS.map(({ title, sorts, right, hint }) => (
              <TableCell
                key={title}
                align={right ? "right" : "left"}
                title={hint}
                sortDirection={
                  sorts && sort.replace("-", "") === sorts ? (sort.startsWith("-") ? "desc" : "asc") : false
                }
                sx={{ whiteSpace: "nowrap" }}
              >
                {sorts ? (
                  <TableSortLabel
                    active={sort.replace("-", "") === sorts}
                    direction={sort.startsWith("-") ? "desc" : "asc"}
                    onClick={() => onSort(nextSort(sort, sorts))}
                  >
                    {title}
                  </TableSortLabel>
                ) : (
                  title
                )}
              </TableCell>
            ))}
            <TableCell>
              <Box component="span" sx={visuallyHidden}>
                Actions
              </Box>
            </TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {shown.map((form) => (
            <FormRow
              key={form.id}
              form={form}
              actions={actions}
              ticked={ticked.has(form.id)}
              onTick={(on) => tick([form.id], on)}
            />
          ))}
        </TableBody>
      </Table>
      {forms.length > most && (
        <Button onClick={() => setMost(most + 4 * AT_ONCE)} sx={{ m: 1 }}>
          Show more of {forms.length}
        </Button>
      )}
      {forms.length === 0 && <Typography sx={{ p: 3, color: "text.secondary" }}>No form is like this.</Typography>}
    </Paper>
  );
}

interface RowProps {
  form: FormRowReply;
  actions: DeskActions;
  ticked: boolean;
  onTick: (on: boolean) => void;
}

function FormRow({ form, actions, ticked, onTick }: RowProps) {
  const navigate = useNavigate();
  const who = useSignedIn();
  const compose = `/forms/${form.id}/compose`;
  const colour = form.unreadable
    ? "error.main"
    : form.live_edition === null
      ? "text.secondary"
      : form.changed
        ? "warning.main"
        : "primary.main";
  return (
    <TableRow
      hover
      selected={ticked}
      onClick={() => void navigate(compose)}
      sx={{ cursor: "pointer", "&:last-child td": { border: 0 } }}
    >
      <TableCell padding="checkbox" onClick={(event) => event.stopPropagation()} sx={{ cursor: "default" }}>
        <Checkbox
          size="small"
          checked={ticked}
          onChange={(event) => onTick(event.target.checked)}
          slotProps={{ input: { "aria-label": `Tick ${form.name}` } }}
        />
      </TableCell>
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
        <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 0.75 }}>
          <Typography variant="caption" sx={{ color: "text.secondary" }}>
            /{form.slug}
            {form.owner && form.owner !== who.person_name && ` · ${form.owner}`}
          </Typography>
          {form.labels.map((label) => (
            <Chip key={label} size="small" variant="outlined" label={label} sx={{ height: 18, fontSize: 11 }} />
          ))}
        </Box>
      </TableCell>
      <TableCell>
        <Box sx={{ display: "flex", alignItems: "baseline", gap: 1, minWidth: 104 }}>
          <Box
            component="span"
            aria-hidden="true"
            sx={{ flex: "none", width: 8, height: 8, borderRadius: 0.25, bgcolor: colour }}
          />
          {stateOf(form)}
        </Box>
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
      <TableCell sx={{ whiteSpace: "nowrap" }} onClick={(event) => event.stopPropagation()}>
        <OpenThings form={form} />
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

const TO_DECIDE = encodeURIComponent(JSON.stringify([["response.decision", "any_of", "asked"]]));

/** What people have to see to in a form, each leading to where that is done. */
function OpenThings({ form: { id, deciding, failed } }: { form: FormRowReply }) {
  const who = useSignedIn();
  const things = [
    { words: `${deciding} to decide`, to: `responses?where=${TO_DECIDE}`, is: deciding > 0 },
    { words: `${failed} failed`, to: "follow-ups", is: failed > 0 },
  ];
  return things
    .filter(({ is }) => is)
    .map(({ words, to }) => (
      <div key={to}>
        {who.role === "viewer" ? (
          words
        ) : (
          <Typography component={Link} to={`/forms/${id}/${to}`} variant="body2" sx={{ color: "primary.main" }}>
            {words}
          </Typography>
        )}
      </div>
    ));
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
        <MenuItem onClick={then(() => actions.exportFiles([form]))}>Save as a file</MenuItem>
        {who.role === "owner" && <MenuItem onClick={then(() => setMoving(true))}>Move to another team …</MenuItem>}
        {mayEdit(who) && <MenuItem onClick={then(() => actions.remove([form]))}>Delete</MenuItem>}
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
