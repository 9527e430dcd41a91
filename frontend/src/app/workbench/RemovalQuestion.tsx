// Asked before something is removed that others read: who they are, at that moment.
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import type { Removal } from "../compose/actions";
import { useBench } from "./bench";

interface Props {
  removal: Removal;
  onClose: () => void;
}

const MOST_NAMED = 8;

export function RemovalQuestion({ removal, onClose }: Props) {
  const { parts } = useBench();
  const nameOf = (id: string) => {
    const { number = "", title = "the form itself" } = parts.get(id) ?? {};
    return `${number} ${title}`.trim();
  };
  const more = removal.readers.length - MOST_NAMED;
  const what = removal.parts.length === 1 ? nameOf(removal.parts[0]!) : `${removal.parts.length} parts`;
  return (
    <Dialog open onClose={onClose} aria-labelledby="removal-title">
      <DialogTitle id="removal-title">Remove “{what}”</DialogTitle>
      <DialogContent>
        Read by {removal.readers.slice(0, MOST_NAMED).map(nameOf).join(", ")}
        {more > 0 && ` and ${more} more`}. These will have an error, and the form can’t be published, until they are
        changed.
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose} autoFocus>
          Keep it
        </Button>
        <Button
          color="error"
          onClick={() => {
            removal.go();
            onClose();
          }}
        >
          Remove it all the same
        </Button>
      </DialogActions>
    </Dialog>
  );
}
