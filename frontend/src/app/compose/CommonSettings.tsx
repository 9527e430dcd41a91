// What several selected blocks have in common: their rules, who fills them in, and the settings that all have alike.
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { ReactNode } from "react";
import { SETTINGS } from "../../fields/settings";
import { type Block, isQuestion } from "../../model/blocks";
import type { Entry } from "../../model/parts";
import { type SettingRow, SettingRows } from "../../ui/SettingRows";
import { useBench } from "../workbench/bench";
import { KEEPING } from "./BehaviourSettings";
import { WIDTH } from "./BlockSettings";
import { Heading } from "./InspectorFrame";
import { Sentence } from "./Margin";

interface Props {
  entries: readonly Extract<Entry, { what: "block" }>[];
  edit: (changes: Record<string, unknown>) => void;
}

export function CommonSettings({ entries, edit }: Props) {
  const { form } = useBench();
  const blocks = entries.map(({ part }) => part);
  const [first, ...others] = blocks;
  if (!first) return null;
  const parts = form.parts.map(({ id, name }) => ({ text: id, words: name || "Untitled part" }));
  return (
    <>
      <Heading>In all of them</Heading>
      <RuleOfAll setting="shown" label="Shown" absent="always" entries={entries} edit={edit} />
      <RuleOfAll setting="locked" label="Locked" absent="never" entries={entries} edit={edit} />
      {parts.length > 0 && (
        <OneForAll
          label="Filled in by"
          values={blocks.map(({ part }) => part)}
          options={[{ text: "", words: "as what they stand in" }, ...parts]}
          onChoose={(part) => edit({ part })}
        />
      )}
      <SettingRows rows={commonRows(blocks)} of={first} others={others} edit={edit} />
    </>
  );
}

const rowsOf = (block: Block): readonly SettingRow[] => {
  const { answers = [], checks = [], look = [] } = SETTINGS[block.type];
  return [WIDTH, ...answers, ...checks, ...look, ...(isQuestion(block) ? KEEPING : [])];
};

/** The settings that blocks of several types have alike. */
function commonRows(blocks: readonly Block[]): SettingRow[] {
  const [first, ...others] = blocks.map(rowsOf);
  const isIn = (rows: readonly SettingRow[], row: SettingRow) =>
    rows.some(({ setting, entry, label }) => setting === row.setting && entry === row.entry && label === row.label);
  return (first ?? []).filter((row) => others.every((rows) => isIn(rows, row)));
}

interface RuleProps extends Props {
  setting: "shown" | "locked";
  label: string;
  absent: string;
}

/** A rule that one of them has can be given to all. */
function RuleOfAll({ setting, label, absent, entries, edit }: RuleProps) {
  const { analysis, parts } = useBench();
  const having = entries.flatMap(({ id, number, part }) =>
    setting in part ? [{ id, number, text: String(part[setting as keyof typeof part]).trim() }] : [],
  );
  if (having.length < entries.length) return null;
  const rules = having.filter(({ text }, at) => text && having.findIndex((each) => each.text === text) === at);
  const wordsOf = ({ id, number, text }: (typeof rules)[number]) => {
    const note = analysis.notes[id]?.find((each) => each.setting === setting);
    return (
      <span>
        as {number}: {note ? <Sentence words={note.words} parts={parts} /> : text}
      </span>
    );
  };
  return (
    <OneForAll
      label={label}
      values={having.map(({ text }) => text)}
      options={[{ text: "", words: absent }, ...rules.map((rule) => ({ text: rule.text, words: wordsOf(rule) }))]}
      onChoose={(text) => edit({ [setting]: text })}
    />
  );
}

interface OneProps {
  label: string;
  values: readonly string[];
  options: readonly { text: string; words: ReactNode }[];
  onChoose: (text: string) => void;
}

const DIFFER = "they differ"; // no formula and no id

function OneForAll({ label, values, options, onChoose }: OneProps) {
  const differ = values.some((each) => each !== values[0]);
  return (
    <TextField
      select
      label={label}
      value={differ ? DIFFER : (values[0] ?? "")}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      onChange={(event) => onChoose(event.target.value)}
    >
      {differ && (
        <MenuItem value={DIFFER} disabled>
          They differ
        </MenuItem>
      )}
      {options.map(({ text, words }) => (
        <MenuItem key={text} value={text} sx={{ whiteSpace: "normal" }}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  );
}
