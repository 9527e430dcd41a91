// Asks what becomes of records that others name or live forms offer, before they are removed.
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Typography from "@mui/material/Typography";
import type { Way } from "./useRecords";

interface Props {
  /** What refers to them, as the server says it. */
  words: string;
  onChoose: (way: Way) => void;
  onClose: () => void;
}

export function NamedElsewhere({ words, onChoose, onClose }: Props) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="named-elsewhere">
      <DialogTitle id="named-elsewhere">Remove them, or offer them no more?</DialogTitle>
      <DialogContent>
        <Typography>{words}</Typography>
        <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
          What is offered no more stays where it is named, and nobody can choose it any more; it can be offered again
          beside the worksheet. Responses keep what they have in any case.
        </Typography>
      </DialogContent>
      <DialogActions sx={{ flexWrap: "wrap" }}>
        <Button color="inherit" onClick={onClose}>
          Remove nothing
        </Button>
        <Button color="inherit" onClick={() => onChoose("empty")}>
          Remove them, and empty what names them
        </Button>
        <Button variant="contained" onClick={() => onChoose("keep")}>
          Offer them no more
        </Button>
      </DialogActions>
    </Dialog>
  );
}
