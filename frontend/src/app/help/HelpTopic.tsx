// One answer: what to do, step by step, and the way there; and a button that opens it where it is set up.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useState } from "react";
import { Link } from "react-router";
import { useBench } from "../workbench/bench";
import { type Topic, TOPICS } from "./topics";

interface Props {
  topic: Topic;
  /** The form to whose area it leads; outside of a form there is none. */
  form?: string;
  onClose: () => void;
}

export function HelpTopic({ topic, form, onClose }: Props) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="help-title" maxWidth="sm" fullWidth>
      <DialogTitle id="help-title">{topic.question}</DialogTitle>
      <DialogContent>
        <Box component="ol" sx={{ m: 0, pl: 2.5, display: "grid", gap: 1 }}>
          {topic.steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </Box>
      </DialogContent>
      <DialogActions>
        {form && (
          <Button component={Link} to={`/forms/${form}/${topic.area}`} onClick={onClose} color="inherit">
            Go to {topic.area}
          </Button>
        )}
        <Button autoFocus onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  );
}

export function HelpButton({ topic }: { topic: string }) {
  const { reply } = useBench();
  const [open, setOpen] = useState(false);
  const found = TOPICS.find(({ id }) => id === topic)!;
  return (
    <>
      <Button
        size="small"
        color="inherit"
        onClick={() => setOpen(true)}
        sx={{ justifySelf: "start", color: "text.secondary" }}
      >
        ? {found.question}
      </Button>
      {open && <HelpTopic topic={found} form={reply.id} onClose={() => setOpen(false)} />}
    </>
  );
}
