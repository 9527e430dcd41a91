// The options as a table: label · code · counts as · price. Pasted spreadsheet columns fill it.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import ListItemText from "@mui/material/ListItemText";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { type ClipboardEvent, useState } from "react";
import type { Option, SingleChoiceField } from "../../api/generated/wire";
import { typeOf } from "../../model/blocks";
import { newId } from "../../model/new_block";
import { codeFrom } from "../../model/outline";
import { counted } from "../../text/words";
import { MONO } from "../../theme/theme";
import { CellBox } from "../../ui/CellBox";
import { DecimalBox } from "../../ui/DecimalField";
import { PictureField } from "../../ui/PictureField";
import type { SettingsProps } from "../settings_props";
import { OptionSource } from "./OptionSource";
import { optionsAsText, optionsFromText, pastedOptions, PLAIN_OPTION, wrongNumbers } from "./paste";
import { LongTextField } from "../../ui/LongTextField";
import { tabByKey } from "../../ui/tab_by_key";
import { byAltArrows, CodeBox, ColumnHeads, moved, NewLine } from "../table_pieces";

const MOST_TOLD = 5;
const AT_ONCE = 24; // rows that are drawn: hundreds of text fields at once are slow
const GRID = "minmax(0,1fr) 56px 46px 46px 18px";

export function OptionTable({ block, edit, open, rename, mayFollow }: SettingsProps<SingleChoiceField>) {
  const [asText, setAsText] = useState(false);
  const [wrong, setWrong] = useState<readonly string[]>([]);
  const [most, setMost] = useState(AT_ONCE);
  const { options } = block;
  const put = (next: Option[]) => edit({ options: next });
  const change = (id: string, changes: Partial<Option>) =>
    put(options.map((option) => (option.id === id ? { ...option, ...changes } : option)));
  const codes = options.map((option) => option.code);
  const relabel = (option: Option, label: string) => {
    const others = codes.filter((code) => code !== option.code);
    const follows = option.code === codeFrom(option.label, others) && mayFollow(option.code);
    change(option.id, { label, ...(follows ? { code: codeFrom(label, others) } : {}) });
  };
  const add = (label: string) =>
    put([...options, { id: newId(), code: codeFrom(label, codes), label, counts_as: "0", ...PLAIN_OPTION }]);
  const paste = (event: ClipboardEvent) => {
    // The two that a new field begins with are there to be written over.
    const kept = areSamples(block) ? [] : options;
    const taken = kept.map((option) => option.code);
    const text = event.clipboardData.getData("text/plain");
    const pasted = pastedOptions(text, taken);
    if (pasted.length === 0) return;
    event.preventDefault();
    setWrong(wrongNumbers(text));
    put([...kept, ...pasted.map((option) => ({ ...option, id: newId() }))]);
  };
  return (
    <Box role="group" aria-label="Options" sx={{ display: "grid", gap: 0.5 }}>
      {"taken_from" in block && (
        <OptionSource
          takenFrom={block.taken_from}
          options={areSamples(block) ? [] : options}
          onTake={(taken_from, next) => edit({ taken_from, options: [...next] })}
        />
      )}
      <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "center" }}>
        <Typography variant="h3" component="p" color="text.secondary">
          {options.length} options
        </Typography>
        <Button size="small" onClick={() => setAsText(!asText)} sx={{ py: 0.25 }}>
          {asText ? "As a table" : "All as text"}
        </Button>
      </Box>
      {wrong.length > 0 && (
        <Alert severity="warning" onClose={() => setWrong([])}>
          {wrong.slice(0, MOST_TOLD).map((each) => (
            <div key={each}>{each}</div>
          ))}
          {wrong.length > MOST_TOLD && <div>And {wrong.length - MOST_TOLD} more.</div>}
        </Alert>
      )}
      {asText ? (
        <AsText options={options} onChange={put} onWrong={setWrong} />
      ) : (
        <>
          <ColumnHeads columns={GRID} gap={0.5}>
            <span>Label</span>
            <span>Code</span>
            <Box component="span" sx={{ justifySelf: "end", whiteSpace: "nowrap" }}>
              Counts as
            </Box>
            <Box component="span" sx={{ textAlign: "right" }}>
              Price
            </Box>
          </ColumnHeads>
          {options.slice(0, most).map((option, index) => (
            <OptionRow
              key={option.id}
              option={option}
              number={index + 1}
              onChange={(changes) => change(option.id, changes)}
              onLabel={(label) => relabel(option, label)}
              onCode={(code) => rename(`options.${index}.code`, code)}
              onMove={(by) => put(moved(options, index, index + by))}
              onRemove={() => put(options.filter((each) => each.id !== option.id))}
              onOpen={(setting) => open(`options.${index}.${setting}`)}
            />
          ))}
          {options.length > most && (
            <Button size="small" onClick={() => setMost(most + 4 * AT_ONCE)} sx={{ justifySelf: "start" }}>
              Show more of {options.length}
            </Button>
          )}
          <NewLine name="New option" onAdd={add} onPaste={paste} />
          <Typography variant="caption" color="text.secondary">
            Paste a spreadsheet’s columns into the last line: label, or label and number, or label, code, number and
            price. Formulas use the code, and in arithmetic the number that an option counts as.
          </Typography>
        </>
      )}
    </Box>
  );
}

/** Whether the options are still those that a new field of its type begins with. */
function areSamples({ type, options }: SingleChoiceField): boolean {
  const { blank } = typeOf(type);
  const samples = "options" in blank ? blank.options : [];
  const words = (each: { label: string; code: string }) => `${each.label} ${each.code}`;
  return samples.length > 0 && samples.map(words).join("\n") === options.map(words).join("\n");
}

/** All options at once, a line each, for a spreadsheet and back; kept when it is left. */
interface TextProps {
  options: readonly Option[];
  onChange: (options: Option[]) => void;
  onWrong: (wrong: readonly string[]) => void;
}

function AsText({ options, onChange, onWrong }: TextProps) {
  const [text, setText] = useState(() => optionsAsText(options));
  return (
    <LongTextField
      label="Label, code, number and price, with tabs between"
      lines={6}
      value={text}
      helperText={`${counted(text.split("\n").filter((line) => line.trim()).length, "option")}. A code that stays keeps its option, with its rules. Lines in a new order are options in a new order. Ctrl+I or the tab of a pasted line divides columns; Tab leaves.`}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => {
        onWrong(wrongNumbers(text));
        onChange(optionsFromText(text, options, newId));
      }}
      onKeyDown={(event) => tabByKey(event, setText)}
      attributes={{
        spellCheck: false,
        style: { fontFamily: MONO, fontSize: 12, whiteSpace: "pre", tabSize: 12 },
      }}
    />
  );
}

interface RowProps {
  option: Option;
  number: number;
  onChange: (changes: Partial<Option>) => void;
  onLabel: (label: string) => void;
  onCode: (code: string) => Promise<void>;
  onMove: (by: -1 | 1) => void;
  onRemove: () => void;
  onOpen: (setting: "shown" | "locked") => void;
}

function OptionRow({ option, number, onChange, onLabel, onCode, onMove, onRemove, onOpen }: RowProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const does = (run: () => void) => () => {
    setAnchor(null);
    run();
  };
  return (
    <Box
      onKeyDown={byAltArrows(onMove)}
      sx={{
        display: "grid",
        gridTemplateColumns: GRID,
        gap: 0.5,
        alignItems: "start",
      }}
    >
      <Box sx={{ display: "flex", alignItems: "center", gap: 0.5 }}>
        {option.picture && <Box component="img" src={option.picture} alt="" sx={{ width: 22, height: 22 }} />}
        <CellBox
          name={`Label of option ${number}`}
          value={option.label}
          onChange={(event) => onLabel(event.target.value)}
        />
      </Box>
      <CodeBox name={`Code of option ${number}`} code={option.code} onCode={onCode} />
      <DecimalBox
        label={`Option ${number} counts as`}
        value={option.counts_as}
        onChange={(value) => onChange({ counts_as: value ?? "0" })}
      />
      <DecimalBox
        blank
        least={0}
        label={`Price of option ${number}`}
        value={option.price}
        onChange={(price) => onChange({ price })}
      />
      <IconButton
        aria-label={`More for option ${number}`}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ width: 18, height: 28, fontSize: 14, color: option.shown || option.locked ? "note.rule" : undefined }}
      >
        {option.shown || option.locked ? "◇" : "⋮"}
      </IconButton>
      {anchor && (
        <Menu anchorEl={anchor} open onClose={() => setAnchor(null)}>
          <MenuItem onClick={does(() => onOpen("shown"))}>
            <ListItemText primary={option.shown ? "Shown when …" : "Show it by a rule"} secondary={option.shown} />
          </MenuItem>
          <MenuItem onClick={does(() => onOpen("locked"))}>
            <ListItemText primary={option.locked ? "Locked when …" : "Lock it by a rule"} secondary={option.locked} />
          </MenuItem>
          <MenuItem onKeyDown={(event) => event.stopPropagation()} disableRipple>
            <PictureField label="Picture" value={option.picture} onChange={(picture) => onChange({ picture })} />
          </MenuItem>
          <MenuItem onKeyDown={(event) => event.stopPropagation()} disableRipple>
            <TextField
              label="Belongs to"
              value={option.belongs_to}
              helperText="For filters: option.belongs_to"
              onChange={(event) => onChange({ belongs_to: event.target.value })}
            />
          </MenuItem>
          <MenuItem onClick={does(() => onMove(-1))}>Move up (Alt+↑)</MenuItem>
          <MenuItem onClick={does(() => onMove(1))}>Move down (Alt+↓)</MenuItem>
          <MenuItem onClick={does(onRemove)}>Remove option {number}</MenuItem>
        </Menu>
      )}
    </Box>
  );
}
