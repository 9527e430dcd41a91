// The list of blocks to add: searched by typing, grouped by what is asked for.
import Dialog from "@mui/material/Dialog";
import Popover from "@mui/material/Popover";
import { BLOCK_TYPES, type BlockKind, type BlockType } from "../../model/blocks";
import { type Listed, FindByTyping } from "../../ui/FindByTyping";
import type { Target } from "./actions";

export interface AddAt {
  anchor: HTMLElement;
  place: Target;
}

interface Props {
  at: AddAt;
  onPick: (kind: BlockKind) => void;
  onClose: () => void;
}

/** How well a name fits what was typed: the very word first, then what begins so. */
const fit = (title: string, wanted: string): number => (title === wanted ? 0 : title.startsWith(wanted) ? 1 : 2);

/** The types that a search means: by their own name first, then by what they are for. */
function findTypes(search: string): (BlockType & Listed)[] {
  const wanted = search.trim().toLowerCase();
  const called = BLOCK_TYPES.filter((type) => type.title.toLowerCase().includes(wanted));
  // All of them in their own order while nothing is typed.
  const named = !wanted
    ? called
    : called.sort((one, other) => fit(one.title.toLowerCase(), wanted) - fit(other.title.toLowerCase(), wanted));
  const meant = BLOCK_TYPES.filter((type) => `${type.family} ${type.purpose}`.toLowerCase().includes(wanted));
  return [...new Set([...named, ...meant])].map((type) => ({
    ...type,
    id: type.type,
    group: type.family,
    detail: type.purpose,
  }));
}

const WORDS = {
  placeholder: "What do you want to ask for?",
  box: "Find a kind of block",
  list: "Kinds of blocks",
  nothing: "No kind of block fits. Try a plainer word.",
};

export function AddBlock({ at, onPick, onClose }: Props) {
  const list = <FindByTyping find={findTypes} words={WORDS} onPick={({ type }) => onPick(type)} />;
  if (at.anchor === document.body) {
    return (
      <Dialog open onClose={onClose} slotProps={{ paper: { "aria-label": "Add a block", sx: { width: 420 } } }}>
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
