// Compose: outline · sheet with its margin · inspector.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Snackbar from "@mui/material/Snackbar";
import Typography from "@mui/material/Typography";
import { visuallyHidden } from "@mui/utils";
import { useState } from "react";
import type { BlockKind } from "../../model/blocks";
import { useBench } from "../workbench/bench";
import { AddBlock, type AddAt } from "./AddBlock";
import { useBlockClipboard } from "./clipboard";
import "./compose.css";
import { Inspector } from "./Inspector";
import { useComposeKeys } from "./keys";
import { Outline } from "./Outline";
import { Sheet } from "./Sheet";

export function Compose() {
  const { form, actions } = useBench();
  const [adding, setAdding] = useState<AddAt | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const startAdding = (at: Partial<AddAt> = {}) =>
    setAdding({ anchor: at.anchor ?? document.body, place: at.place ?? actions.afterSelection() });
  useComposeKeys(actions, () => startAdding());
  useBlockClipboard(actions, setProblem);
  return (
    <Box className="cm-areas">
      <Typography component="h1" sx={visuallyHidden}>
        Compose {form.name}
      </Typography>
      <Outline actions={actions} onAdd={(anchor) => startAdding({ anchor })} />
      <Sheet actions={actions} onAdd={startAdding} />
      <Inspector actions={actions} />
      {adding && (
        <AddBlock
          at={adding}
          onClose={() => setAdding(null)}
          onPick={(kind: BlockKind) => {
            setAdding(null);
            actions.add(kind, adding.place);
          }}
        />
      )}
      <Snackbar open={problem !== null} autoHideDuration={12_000} onClose={() => setProblem(null)}>
        <Alert severity="warning" onClose={() => setProblem(null)}>
          {problem}
        </Alert>
      </Snackbar>
    </Box>
  );
}
