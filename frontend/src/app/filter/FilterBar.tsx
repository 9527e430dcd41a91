// The filter as a sentence above all views: each condition a chip that is edited in place; and one box for all text.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import InputBase from "@mui/material/InputBase";
import Popover from "@mui/material/Popover";
import Typography from "@mui/material/Typography";
import { useEffect, useMemo, useState } from "react";
import type { AskedColumnReply, Condition } from "../../api/generated/wire";
import { SERIF } from "../../theme/theme";
import { FindByTyping } from "../../ui/FindByTyping";
import { ConditionEditor } from "./ConditionEditor";
import { begun, conditionInWords, isWhole } from "./conditions";
import { type Asked, columnsById, named } from "./asked";

interface Props {
  /** What is filtered: "Responses". */
  of: string;
  columns: readonly AskedColumnReply[];
  asked: Asked;
  /** The place of the condition that the server refused, and why. */
  refused: { at: number; message: string } | null;
  onAsk: (changes: Partial<Asked>) => void;
}

export function FilterBar({ of, columns, asked, refused, onAsk }: Props) {
  const byId = useMemo(() => columnsById(columns), [columns]);
  const { conditions } = asked;
  const put = (at: number, condition: Condition | null) =>
    onAsk({ conditions: conditions.flatMap((each, place) => (place !== at ? [each] : condition ? [condition] : [])) });
  return (
    <Box role="search" aria-label="Filter" sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 1 }}>
      <Typography component="h1" sx={{ fontFamily: SERIF, fontSize: 18 }}>
        {of}
        {conditions.length > 0 && " where"}
      </Typography>
      {conditions.map((condition, at) => (
        <Box key={`${at} ${condition.column}`} sx={{ display: "contents" }}>
          {at > 0 && <Joined asked={asked} onAsk={onAsk} />}
          <Chip
            column={byId.get(condition.column)}
            condition={condition}
            refused={refused?.at === at ? refused.message : ""}
            onChange={(changed) => put(at, changed)}
          />
        </Box>
      ))}
      <Add
        columns={columns}
        first={conditions.length === 0}
        onAdd={(added) => onAsk({ conditions: [...conditions, added] })}
      />
      <Words words={asked.words} onWords={(words) => onAsk({ words })} />
    </Box>
  );
}

function Joined({ asked, onAsk }: Pick<Props, "asked" | "onAsk">) {
  const word = asked.match === "all" ? "and" : "or";
  return (
    <Button
      color="inherit"
      aria-label={`${word}: press for ${word === "and" ? "any of them" : "all of them"}`}
      onClick={() => onAsk({ match: asked.match === "all" ? "any" : "all" })}
      sx={{ fontFamily: SERIF, fontSize: 18, fontWeight: 400, minWidth: 0, px: 0.5, py: 0 }}
    >
      {word}
    </Button>
  );
}

interface ChipProps {
  column: AskedColumnReply | undefined;
  condition: Condition;
  refused: string;
  onChange: (condition: Condition | null) => void;
}

function Chip({ column, condition, refused, onChange }: ChipProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const name = column ? named(column) : "a field that is gone";
  const said = column ? conditionInWords(condition, column) : "";
  return (
    <>
      <Button
        variant="outlined"
        color={refused || !column ? "error" : "inherit"}
        aria-haspopup="dialog"
        title={refused}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ py: 0.25, px: 1, borderColor: "divider", bgcolor: "background.paper", maxWidth: 420 }}
      >
        <Box component="span" sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
          {name}{" "}
          <Box component="span" sx={{ textDecoration: "underline", textUnderlineOffset: 3 }}>
            {said}
          </Box>
        </Box>
      </Button>
      {anchor && (
        <Editing
          anchor={anchor}
          column={column}
          condition={condition}
          refused={refused}
          onClose={() => setAnchor(null)}
          onChange={onChange}
        />
      )}
    </>
  );
}

interface EditingProps extends Omit<ChipProps, "onChange"> {
  anchor: HTMLElement;
  onClose: () => void;
  onChange: (condition: Condition | null) => void;
}

/** What is typed counts once it is whole, and the editor closes or Enter is pressed. */
function Editing({ anchor, column, condition, refused, onClose, onChange }: EditingProps) {
  const [draft, setDraft] = useState(condition);
  const close = () => {
    onClose();
    if (isWhole(draft) && JSON.stringify(draft) !== JSON.stringify(condition)) onChange(draft);
  };
  return (
    <Popover
      open
      anchorEl={anchor}
      onClose={close}
      anchorOrigin={{ vertical: "bottom", horizontal: "left" }}
      slotProps={{ paper: { role: "dialog", "aria-label": "Condition", sx: { p: 2, width: 320 } } }}
    >
      <Box component="form" onSubmit={(event) => (event.preventDefault(), close())} sx={{ display: "grid", gap: 1.5 }}>
        {refused && (
          <Typography role="alert" color="error" variant="body2">
            {refused}
          </Typography>
        )}
        {column ? (
          <ConditionEditor column={column} condition={draft} onChange={setDraft} />
        ) : (
          <Typography variant="body2">The field that this asks for is gone. Remove it.</Typography>
        )}
        <Box sx={{ display: "flex", gap: 1 }}>
          {column && (
            <Button type="submit" variant="contained" disabled={!isWhole(draft)}>
              Apply
            </Button>
          )}
          <Button color="inherit" onClick={() => (onClose(), onChange(null))}>
            Remove
          </Button>
        </Box>
      </Box>
    </Popover>
  );
}

interface AddProps {
  columns: readonly AskedColumnReply[];
  first: boolean;
  onAdd: (condition: Condition) => void;
}

function Add({ columns, first, onAdd }: AddProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [pickedId, setPickedId] = useState<string | null>(null);
  // As it is now: a tag may have come since it was picked.
  const picked = useMemo(
    () => (pickedId === null ? undefined : columnsById(columns).get(pickedId)),
    [columns, pickedId],
  );
  const close = () => {
    setAnchor(null);
    setPickedId(null);
  };
  return (
    <>
      <Button aria-haspopup="dialog" onClick={(event) => setAnchor(event.currentTarget)} sx={{ px: 0.5, minWidth: 0 }}>
        {first ? "+ where" : "+ condition"}
      </Button>
      {anchor && picked && (
        <Editing
          anchor={anchor}
          column={picked}
          condition={begun(picked)}
          refused=""
          onClose={close}
          onChange={(added) => added && onAdd(added)}
        />
      )}
      <Popover
        open={anchor !== null && picked === undefined}
        anchorEl={anchor}
        onClose={close}
        anchorOrigin={{ vertical: "bottom", horizontal: "left" }}
        slotProps={{ paper: { role: "dialog", "aria-label": "Field to ask for", sx: { width: 340 } } }}
      >
        <FindByTyping find={finder(columns)} onPick={({ column }) => setPickedId(column.id)} words={FIND} />
      </Popover>
    </>
  );
}

const FIND = {
  placeholder: "Find a field …",
  box: "Find a field",
  list: "Fields",
  nothing: "No field is called so.",
};

/** Finds what can be asked for: fields and their parts first, then what every response has. */
export function finder(columns: readonly AskedColumnReply[]) {
  const all = columns.flatMap((column) => [
    ...(column.hows.length > 0 ? [{ column, group: groupOf(column), title: named(column), detail: "" }] : []),
    ...column.parts.map((part) => ({ column: part, group: groupOf(column), title: part.label, detail: named(column) })),
  ]);
  const items = all.map((each) => ({ ...each, id: each.column.id }));
  return (search: string) => {
    const wanted = search.trim().toLowerCase();
    return items.filter((each) => `${each.title} ${each.detail}`.toLowerCase().includes(wanted)).slice(0, 100);
  };
}

const groupOf = (column: AskedColumnReply): string =>
  column.facet
    ? "Of every response"
    : column.earlier
      ? "Of earlier editions"
      : column.calculated
        ? "Worked out"
        : column.number
          ? "Answers"
          : "Columns";

const TYPING_PAUSE = 350;

function Words({ words, onWords }: { words: string; onWords: (words: string) => void }) {
  const [typed, setTyped] = useState(words);
  const [known, setKnown] = useState(words);
  if (known !== words) {
    setKnown(words);
    setTyped(words);
  }
  useEffect(() => {
    if (typed === words) return;
    const timer = setTimeout(() => onWords(typed), TYPING_PAUSE);
    return () => clearTimeout(timer);
  }, [typed, words, onWords]);
  return (
    <InputBase
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      placeholder="Search all text …"
      inputProps={{ "aria-label": "Search all text", maxLength: 200, type: "search" }}
      sx={{ border: 1, borderColor: "divider", borderRadius: 1, bgcolor: "background.paper", px: 1, width: 180 }}
    />
  );
}
