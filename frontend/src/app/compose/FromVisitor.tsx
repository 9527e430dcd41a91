// A field that is filled in from who is signed in: once, to be changed by hand, or always and locked.
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { type Block, isQuestion } from "../../model/blocks";
import { VISITOR_FACTS } from "../../model/visitor";

type Question = Extract<Block, { default: string }>;

const TYPES: readonly string[] = ["short_text", "name", "email", "hidden"];

interface Props {
  part: Block;
  edit: (changes: Record<string, unknown>) => void;
}

export function FromVisitor({ part, edit }: Props) {
  if (!isQuestion(part) || !TYPES.includes(part.type)) return null;
  const field = part as Question;
  const fact = field.default.trim().toLowerCase();
  const isFact = fact in VISITOR_FACTS;
  // Whoever is not signed in types it themselves.
  const held = `NOT(ISBLANK(${fact}))`;
  const isHeld = isFact && field.locked.trim().toLowerCase() === held.toLowerCase() && field.default_follows;
  return (
    <>
      <TextField
        select
        label="Filled in from who is signed in"
        value={isFact ? fact : ""}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        onChange={(event) => {
          const chosen = event.target.value;
          edit({
            default: chosen,
            default_follows: isHeld && chosen !== "",
            locked: isHeld ? (chosen ? `NOT(ISBLANK(${chosen}))` : "") : field.locked,
          });
        }}
      >
        <MenuItem value="">{field.default.trim() && !isFact ? "no: it begins as something else" : "no"}</MenuItem>
        {Object.entries(VISITOR_FACTS).map(([name, words]) => (
          <MenuItem key={name} value={name}>
            their {words}
          </MenuItem>
        ))}
      </TextField>
      {isFact && (
        <TextField
          select
          label="And then"
          value={isHeld ? "held" : "open"}
          onChange={(event) =>
            edit(
              event.target.value === "held"
                ? { locked: held, default_follows: true }
                : { locked: isHeld ? "" : field.locked, default_follows: false },
            )
          }
        >
          <MenuItem value="open">they may change it</MenuItem>
          <MenuItem value="held">it stays so; guests type it</MenuItem>
        </TextField>
      )}
    </>
  );
}
