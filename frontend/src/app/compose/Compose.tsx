// Compose: outline · sheet with its margin · inspector.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { visuallyHidden } from "@mui/utils";
import { useEffect, useState } from "react";
import type { BlockKind } from "../../model/blocks";
import { useBench } from "../workbench/bench";
import { AddBlock, type AddAt } from "./AddBlock";
import { Inspector } from "./Inspector";
import { Outline } from "./Outline";
import { Sheet } from "./Sheet";
import { type ComposeActions, useComposeActions } from "./useComposeActions";

export function Compose() {
  const { form } = useBench();
  const actions = useComposeActions();
  const [adding, setAdding] = useState<AddAt | null>(null);
  const startAdding = (at: Partial<AddAt> = {}) =>
    setAdding({ anchor: at.anchor ?? document.body, place: at.place ?? actions.afterSelection() });
  useComposeKeys(actions, () => startAdding());
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "228px minmax(0,1fr) 300px", height: "100%" }}>
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
    </Box>
  );
}

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName));

/** Keys that work wherever nothing is being typed. */
function useComposeKeys(actions: ComposeActions, startAdding: () => void) {
  const { block, mayEdit, select } = useBench();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event.target) || event.defaultPrevented || document.querySelector("[role=menu],[role=dialog]"))
        return;
      const command = keyCommand(event, block);
      if (!command) return;
      if (command !== "clear" && command !== "next" && command !== "previous" && command !== "find" && !mayEdit) return;
      event.preventDefault();
      const run: Record<Command, () => void> = {
        add: startAdding,
        find: () => document.getElementById("find-block")?.focus(),
        up: () => actions.shift(-1),
        down: () => actions.shift(1),
        next: () => actions.step(1),
        previous: () => actions.step(-1),
        duplicate: actions.duplicate,
        remove: actions.remove,
        clear: () => select(null),
      };
      run[command]();
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  });
}

type Command = "add" | "find" | "up" | "down" | "next" | "previous" | "duplicate" | "remove" | "clear";

function keyCommand(event: KeyboardEvent, selected: string | null): Command | null {
  const { key, altKey, ctrlKey, metaKey } = event;
  if (altKey) return key === "ArrowUp" ? "up" : key === "ArrowDown" ? "down" : null;
  if (ctrlKey || metaKey) return key.toLowerCase() === "d" && selected ? "duplicate" : null;
  if (key === "a" || key === "A") return "add";
  if (key === "/") return "find";
  if (key === "ArrowDown") return "next";
  if (key === "ArrowUp") return "previous";
  if (!selected) return null;
  return key === "Delete" || key === "Backspace" ? "remove" : key === "Escape" ? "clear" : null;
}
