// Confirmations by a result: by ranges of a score, by bands, by profiles, made in one step.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { FigureRange } from "../../api/generated/wire";
import type { Action } from "../../model/draft";
import {
  byChoices,
  byRanges,
  type NumberRange,
  ownChoices,
  proposedRanges,
  rangeName,
  wrongRanges,
} from "../../model/by_figure";
import type { Figure } from "../../model/parts";
import { DecimalField } from "../../ui/DecimalField";
import { useBench } from "../workbench/bench";

const UNBOUNDED: FigureRange = { least: null, greatest: null };
const WORDS = { bands: "band", profile: "profile" } as const;

/** Figures that tell visitors apart: all but those that are text or a day. */
const tellsApart = (figure: Figure): boolean =>
  figure.kind !== "formula" || ["number", "money", "percent"].includes(figure.format);

export function ByFigure({ onClose }: { onClose: () => void }) {
  const { form, act, analysis } = useBench();
  const figures = form.figures.filter(tellsApart);
  const [chosen, setChosen] = useState(figures.find(({ kind }) => kind !== "formula")?.id ?? figures[0]?.id ?? "");
  const figure = figures.find(({ id }) => id === chosen);
  const bounds = analysis.ranges[chosen] ?? UNBOUNDED;
  const take = (action: Action) => {
    act(action);
    onClose();
  };
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>Confirmations by a result</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 2 }}>
        {figures.length === 0 ? (
          <Typography>There is no figure yet. Add a score, bands or a profile in Figures first.</Typography>
        ) : (
          <TextField
            select
            label="The result"
            value={chosen}
            onChange={(event) => setChosen(event.target.value)}
            sx={{ mt: 1 }}
          >
            {figures.map(({ id, name, key }) => (
              <MenuItem key={id} value={id}>
                {name || key}
              </MenuItem>
            ))}
          </TextField>
        )}
        {figure && (figure.kind === "bands" || figure.kind === "profile") && (
          <Choices
            figure={figure}
            what={WORDS[figure.kind]}
            onClose={onClose}
            onTake={() => take(byChoices(form, figure))}
          />
        )}
        {figure && figure.kind !== "bands" && figure.kind !== "profile" && (
          <Ranges
            key={figure.id}
            bounds={bounds}
            onClose={onClose}
            onTake={(ranges) => take(byRanges(form, figure, ranges))}
          />
        )}
      </DialogContent>
    </Dialog>
  );
}

interface ChoicesProps {
  figure: Figure;
  what: string;
  onClose: () => void;
  onTake: () => void;
}

function Choices({ figure, what, onClose, onTake }: ChoicesProps) {
  const choices = ownChoices(figure);
  return (
    <>
      <Typography>
        {choices.length > 0
          ? `One confirmation for each ${what}: ${choices.map(({ label }) => label).join(", ")}.`
          : `No ${what} of it has a name yet. Name them in Figures first.`}
      </Typography>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Leave it
        </Button>
        <Button variant="contained" disabled={choices.length === 0} onClick={onTake}>
          Make {choices.length} confirmations
        </Button>
      </DialogActions>
    </>
  );
}

interface RangesProps {
  bounds: FigureRange;
  onClose: () => void;
  onTake: (ranges: readonly NumberRange[]) => void;
}

function Ranges({ bounds, onClose, onTake }: RangesProps) {
  const [ranges, setRanges] = useState(() => proposedRanges(bounds, 3));
  const { least, greatest } = bounds;
  const wrong = wrongRanges(ranges);
  const put = (next: readonly NumberRange[], before = ranges) =>
    // A name that nobody typed follows the numbers.
    setRanges(
      next.map((range, at) => {
        const old = before[at];
        const usual = old && old.name === rangeName(old.from, before[at + 1]?.from ?? null);
        return usual ? { ...range, name: rangeName(range.from, next[at + 1]?.from ?? null) } : range;
      }),
    );
  const change = (at: number, changes: Partial<NumberRange>) => {
    const next = ranges.map((each, index) => (index === at ? { ...each, ...changes } : each));
    if ("name" in changes) setRanges(next);
    else put(next);
  };
  return (
    <>
      <Typography>
        {greatest === null
          ? "Where each range begins; it ends where the next begins."
          : `It goes from ${least ?? "…"} to ${greatest}. Where each range begins; it ends where the next begins.`}
      </Typography>
      <TextField
        select
        label="How many"
        value={ranges.length}
        onChange={(event) => setRanges(proposedRanges(bounds, Number(event.target.value)))}
        sx={{ width: 120 }}
      >
        {[2, 3, 4, 5, 6].map((count) => (
          <MenuItem key={count} value={count}>
            {count}
          </MenuItem>
        ))}
      </TextField>
      {ranges.map((range, at) => (
        <Box key={at} sx={{ display: "grid", gridTemplateColumns: "120px minmax(0,1fr)", gap: 1 }}>
          {at === 0 ? (
            <TextField label="From" value="the lowest" disabled />
          ) : (
            <DecimalField label={`Range ${at + 1} from`} value={range.from} onChange={(from) => change(at, { from })} />
          )}
          <TextField
            label={`Name of range ${at + 1}`}
            value={range.name}
            onChange={(event) => change(at, { name: event.target.value })}
          />
        </Box>
      ))}
      {wrong && (
        <Typography variant="body2" role="alert" sx={{ color: "note.check" }}>
          {wrong}
        </Typography>
      )}
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Leave it
        </Button>
        <Button variant="contained" disabled={wrong !== null} onClick={() => onTake(ranges)}>
          Make {ranges.length} confirmations
        </Button>
      </DialogActions>
    </>
  );
}
