// Which columns the table shows, in which order, and which of them stay in sight.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import IconButton from "@mui/material/IconButton";
import Typography from "@mui/material/Typography";
import type { AskedColumnReply, AskingReply } from "../../api/generated/wire";
import { FindByTyping } from "../../ui/FindByTyping";
import { PopoverButton } from "../../ui/PopoverButton";
import { canBeShown, shownColumns } from "./columns";
import { named } from "../filter/asked";
import type { Look } from "./look";

interface Props {
  asking: AskingReply;
  look: Look;
  onLook: (changes: Partial<Look>) => void;
}

const FIND = {
  placeholder: "Add a column …",
  box: "Add a column",
  list: "Columns",
  nothing: "No other column is called so.",
};

export function ColumnsMenu({ asking, look, onLook }: Props) {
  const shown = shownColumns(asking, look);
  const ids = shown.map(({ id }) => id);
  const others = asking.columns.filter((each) => canBeShown(each) && !ids.includes(each.id));
  const put = (columns: string[], fixed = look.fixed) => onLook({ columns, fixed: Math.min(fixed, columns.length) });
  const find = (search: string) =>
    others
      .filter((each) => named(each).toLowerCase().includes(search.trim().toLowerCase()))
      .slice(0, 50)
      .map((each) => ({
        id: each.id,
        group: each.facet ? "Of every response" : "Answers",
        title: named(each),
        detail: "",
      }));
  return (
    <PopoverButton color="inherit" label="Columns …" name="Columns" width={380}>
      {() => (
        <>
          <FindByTyping find={find} onPick={({ id }) => put([...ids, id])} words={FIND} />
          <Typography variant="h3" sx={{ px: 2, pt: 1, borderTop: 1, borderColor: "divider" }}>
            Shown, from the left
          </Typography>
          <Box component="ol" sx={{ m: 0, p: 1, maxHeight: 300, overflow: "auto", listStyle: "none" }}>
            {shown.map((column, at) => (
              <OneColumn
                key={column.id}
                column={column}
                fixed={at < look.fixed}
                first={at === 0}
                last={at === shown.length - 1}
                onFixed={() => put(ids, at < look.fixed ? at : at + 1)}
                onMove={(by) => put(moved(ids, at, by))}
                onRemove={() => put(ids.filter((id) => id !== column.id))}
              />
            ))}
          </Box>
          <Box sx={{ p: 1, borderTop: 1, borderColor: "divider" }}>
            <Button color="inherit" onClick={() => onLook({ columns: null, fixed: 0 })}>
              As at first
            </Button>
          </Box>
        </>
      )}
    </PopoverButton>
  );
}

/** The list with one of its items moved by so many places. */
export function moved<Item>(items: readonly Item[], at: number, by: number): Item[] {
  const rest = items.filter((_, place) => place !== at);
  return [...rest.slice(0, at + by), items[at]!, ...rest.slice(at + by)];
}

interface OneProps {
  column: AskedColumnReply;
  fixed: boolean;
  first: boolean;
  last: boolean;
  onFixed: () => void;
  onMove: (by: number) => void;
  onRemove: () => void;
}

function OneColumn({ column, fixed, first, last, onFixed, onMove, onRemove }: OneProps) {
  const name = named(column);
  return (
    <Box component="li" sx={{ display: "flex", alignItems: "center" }}>
      <Checkbox
        size="small"
        checked={fixed}
        onChange={onFixed}
        title="Stays in sight, with those before it"
        slotProps={{ input: { "aria-label": `${name} stays in sight` } }}
        sx={{ p: 0.5 }}
      />
      <Typography variant="body2" noWrap sx={{ flex: 1 }}>
        {name}
      </Typography>
      <IconButton aria-label={`Move ${name} to the left`} disabled={first} onClick={() => onMove(-1)} sx={SMALL}>
        ↑
      </IconButton>
      <IconButton aria-label={`Move ${name} to the right`} disabled={last} onClick={() => onMove(1)} sx={SMALL}>
        ↓
      </IconButton>
      <IconButton aria-label={`Don’t show ${name}`} onClick={onRemove} sx={SMALL}>
        ×
      </IconButton>
    </Box>
  );
}

const SMALL = { width: 26, height: 26, fontSize: 14 };
