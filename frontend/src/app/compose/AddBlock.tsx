// The list of blocks to add: searched by typing, grouped by what is asked for.
import Box from "@mui/material/Box";
import Dialog from "@mui/material/Dialog";
import InputBase from "@mui/material/InputBase";
import Popover from "@mui/material/Popover";
import Typography from "@mui/material/Typography";
import { type KeyboardEvent, useId, useState } from "react";
import { BLOCK_TYPES, type BlockKind, type BlockType } from "../../model/blocks";
import type { Target } from "./useComposeActions";

export interface AddAt {
  anchor: HTMLElement;
  place: Target;
}

interface Props {
  at: AddAt;
  onPick: (kind: BlockKind) => void;
  onClose: () => void;
}

/** The types that a search means: by their own name first, then by what they are for. */
function findTypes(search: string): BlockType[] {
  const wanted = search.trim().toLowerCase();
  const named = BLOCK_TYPES.filter((type) => type.title.toLowerCase().includes(wanted));
  const meant = BLOCK_TYPES.filter((type) => `${type.family} ${type.purpose}`.toLowerCase().includes(wanted));
  return [...new Set([...named, ...meant])];
}

export function AddBlock({ at, onPick, onClose }: Props) {
  const list = <TypeList onPick={onPick} />;
  if (at.anchor === document.body) {
    return (
      <Dialog open onClose={onClose} aria-label="Add a block" slotProps={{ paper: { sx: { width: 420 } } }}>
        {list}
      </Dialog>
    );
  }
  return (
    <Popover
      open
      anchorEl={at.anchor}
      onClose={onClose}
      anchorOrigin={{ vertical: "bottom", horizontal: "left" }}
      slotProps={{ paper: { role: "dialog", "aria-label": "Add a block", sx: { width: 420 } } }}
    >
      {list}
    </Popover>
  );
}

function TypeList({ onPick }: { onPick: (kind: BlockKind) => void }) {
  const [search, setSearch] = useState("");
  const [active, setActive] = useState(0);
  const id = useId();
  const found = findTypes(search);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      setActive((index) => Math.max(0, Math.min(found.length - 1, index + (event.key === "ArrowDown" ? 1 : -1))));
    }
    if (event.key === "Enter" && found[active]) {
      event.preventDefault();
      onPick(found[active].type);
    }
  };
  return (
    <>
      <InputBase
        autoFocus
        fullWidth
        placeholder="What do you want to ask for?"
        value={search}
        onChange={(event) => {
          setSearch(event.target.value);
          setActive(0);
        }}
        onKeyDown={onKeyDown}
        inputProps={{
          role: "combobox",
          "aria-label": "Find a kind of block",
          "aria-expanded": true,
          "aria-controls": id,
          "aria-activedescendant": found[active] ? `${id}-${found[active].type}` : undefined,
        }}
        sx={{ px: 2, py: 1, borderBottom: 1, borderColor: "divider" }}
      />
      <Box id={id} role="listbox" aria-label="Kinds of blocks" sx={{ py: 1, maxHeight: 380, overflow: "auto" }}>
        {found.map((type, index) => (
          <Box key={type.type} role="presentation">
            {type.family !== found[index - 1]?.family && (
              <Typography
                variant="caption"
                role="presentation"
                sx={{ display: "block", px: 2, pt: 1, pb: 0.25, fontWeight: 650, color: "text.secondary" }}
              >
                {type.family}
              </Typography>
            )}
            <Box
              id={`${id}-${type.type}`}
              role="option"
              aria-selected={index === active}
              onMouseMove={() => setActive(index)}
              onClick={() => onPick(type.type)}
              sx={{ px: 2, py: 0.5, cursor: "pointer", bgcolor: index === active ? "noteTint.calculation" : undefined }}
            >
              <Typography component="span" sx={{ fontWeight: 600 }}>
                {type.title}
              </Typography>
              <Typography component="span" variant="body2" sx={{ ml: 1, color: "text.secondary" }}>
                {type.purpose}
              </Typography>
            </Box>
          </Box>
        ))}
        {found.length === 0 && (
          <Typography sx={{ px: 2, py: 1, color: "text.secondary" }}>
            No kind of block fits. Try a plainer word.
          </Typography>
        )}
      </Box>
    </>
  );
}
