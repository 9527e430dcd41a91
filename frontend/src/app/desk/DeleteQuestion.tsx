// Before forms are deleted on which something hangs: what that is, form by form.
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Typography from "@mui/material/Typography";
import type { FormRowReply } from "../../api/generated/wire";
import { counted } from "../../text/words";
import type { DeskActions } from "./useDesk";

const MOST_NAMED = 12;

interface Props {
  forms: readonly FormRowReply[];
  actions: Pick<DeskActions, "removeAsked" | "leaveThem">;
}

export function DeleteQuestion({ forms, actions }: Props) {
  const what = forms.length === 1 ? `“${forms[0]!.name}”` : counted(forms.length, "form");
  return (
    <Dialog open onClose={actions.leaveThem} aria-labelledby="delete-title" maxWidth="sm" fullWidth>
      <DialogTitle id="delete-title">Delete {what}?</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 1.5 }}>
        <ul style={{ margin: 0, paddingLeft: 20 }}>
          {forms.slice(0, MOST_NAMED).map((form) => (
            <li key={form.id}>
              {forms.length > 1 && <b>{form.name}: </b>}
              {hangsOn(form)}
            </li>
          ))}
          {forms.length > MOST_NAMED && <li>and {forms.length - MOST_NAMED} more</li>}
        </ul>
        <Typography>
          Visitors will read that there is no such form. It lies in the bin for 30 days, with all that came in, and can
          be brought back from there.
        </Typography>
      </DialogContent>
      <DialogActions>
        <Button color="inherit" autoFocus onClick={actions.leaveThem}>
          Leave {forms.length === 1 ? "it" : "them"}
        </Button>
        <Button color="error" variant="contained" onClick={actions.removeAsked}>
          Delete {what}
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** What hangs on a form: who finds it, what came in, where it stands. */
function hangsOn({ live_edition: live, responses, sites }: FormRowReply): string {
  const said = [
    live === null ? "never published" : `edition ${live} is live`,
    counted(responses, "response"),
    ...(sites.length > 0 ? [`may stand on ${sites.map((site) => site.replace(/^https?:\/\//, "")).join(", ")}`] : []),
  ];
  return said.join(", ");
}
