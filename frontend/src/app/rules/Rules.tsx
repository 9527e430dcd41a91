// Rules: every rule as a sentence, and the map of what leads where; both walked with answers.
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { visuallyHidden } from "@mui/utils";
import { memo, useMemo, useState } from "react";
import type { OutcomeReply } from "../../api/generated/wire";
import type { Parts } from "../../model/parts";
import { Sentence } from "../compose/Margin";
import { SidePanel } from "../../ui/SideList";
import { useStable } from "../../ui/useStable";
import { useBench } from "../workbench/bench";
import { useOpenPart } from "../workbench/useOpenPart";
import { useOutcome } from "../workbench/useOutcome";
import { DecisionMap } from "./DecisionMap";
import {
  fitsFilter,
  groupsOf,
  isListed,
  nowValue,
  nowWords,
  type Rule,
  RULE_WORDS,
  type RuleFilter,
  rulesOf,
} from "./rules";
import { Walk } from "./Walk";

export function Rules() {
  const { form, parts, analysis } = useBench();
  const outcome = useOutcome();
  const open = useStable(useOpenPart());
  const [filter, setFilter] = useState<RuleFilter>({ search: "", reads: "", fact: "" });
  const [pointed, setPointed] = useState("");
  const rules = useMemo(() => rulesOf(parts, analysis.notes, isListed), [parts, analysis.notes]);
  const found = rules.filter((rule) => fitsFilter(rule, filter, parts));
  const read = [...new Set(rules.flatMap((rule) => rule.note.reads))].flatMap((id) => parts.get(id) ?? []);
  const facts = [...new Set(rules.map((rule) => rule.fact))];
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(320px, 35%) minmax(0, 1fr)", height: "100%" }}>
      <Typography component="h1" sx={visuallyHidden}>
        Rules of {form.name}
      </Typography>
      <SidePanel name="All rules">
        <Box
          sx={{
            display: "grid",
            gridTemplateColumns: "1fr 1fr 1fr",
            gap: 1,
            p: 1.5,
            borderBottom: 1,
            borderColor: "divider",
          }}
        >
          <TextField
            label="Find in rules"
            value={filter.search}
            onChange={(event) => setFilter({ ...filter, search: event.target.value })}
          />
          <TextField
            select
            label="Reads"
            value={filter.reads}
            onChange={(event) => setFilter({ ...filter, reads: event.target.value })}
            slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
          >
            <MenuItem value="">anything</MenuItem>
            {read.map((entry) => (
              <MenuItem key={entry.id} value={entry.id}>
                {entry.number} {entry.title}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label="Does"
            value={filter.fact}
            onChange={(event) => setFilter({ ...filter, fact: event.target.value })}
            slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
          >
            <MenuItem value="">anything</MenuItem>
            {facts.map((fact) => (
              <MenuItem key={fact} value={fact}>
                {RULE_WORDS[fact] ?? fact}
              </MenuItem>
            ))}
          </TextField>
        </Box>
        <Box sx={{ flex: 1, overflow: "auto", pb: 2 }} tabIndex={0} role="region" aria-label="List of rules">
          {rules.length === 0 && (
            <Typography sx={{ p: 2, color: "text.secondary" }}>
              A rule shows, requires, locks or leads on when something holds. Select a block in Compose and add one in
              its margin; every rule of the form is then told here.
            </Typography>
          )}
          {rules.length > 0 && found.length === 0 && (
            <Typography sx={{ p: 2, color: "text.secondary" }}>No rule fits these filters.</Typography>
          )}
          {groupsOf(found, parts).map((group) => (
            <Box key={group.title} component="section" aria-label={group.title}>
              <Box sx={{ display: "flex", justifyContent: "space-between", px: 2, pt: 1.5, pb: 0.5 }}>
                <Typography variant="h3" component="h2" color="text.secondary">
                  {group.title}
                </Typography>
                <Typography variant="body2" color="text.secondary">
                  {group.rules.length}
                </Typography>
              </Box>
              {group.rules.map((rule) => (
                <RuleSentence
                  key={`${rule.owner.id} ${rule.note.setting}`}
                  rule={rule}
                  parts={parts}
                  outcome={outcome}
                  pointed={pointed === rule.owner.id}
                  onPoint={setPointed}
                  onOpen={open}
                />
              ))}
            </Box>
          ))}
        </Box>
      </SidePanel>
      <Box component="section" aria-label="Map" sx={{ position: "relative", minWidth: 0 }}>
        <DecisionMap highlighted={pointed} onPoint={setPointed} />
        <Walk />
      </Box>
    </Box>
  );
}

interface SentenceProps {
  rule: Rule;
  parts: Parts;
  outcome: OutcomeReply | undefined;
  pointed: boolean;
  onPoint: (part: string) => void;
  onOpen: (part: string, setting: string) => void;
}

const RuleSentence = memo(function RuleSentence({ rule, parts, outcome, pointed, onPoint, onOpen }: SentenceProps) {
  const { owner, note } = rule;
  const holds = outcome?.holding[owner.id]?.[note.setting];
  const open = () => onOpen(owner.id, note.setting);
  return (
    <div className="rl-rule" data-pointed={pointed || undefined}>
      <button
        type="button"
        className="rl-sentence"
        aria-pressed={pointed}
        onClick={() => onPoint(owner.id)}
        onDoubleClick={open}
      >
        <span className="nt-number">{owner.number}</span> <b>{owner.title}</b>{" "}
        <Sentence words={note.words} parts={parts} />
      </button>
      <div className="rl-now" data-holds={holds || undefined}>
        {note.condition ? nowWords(owner.id, note, outcome) : nowValue(owner.id, outcome)}
      </div>
      <button
        type="button"
        className="rl-open"
        onClick={open}
        aria-label={`Open in Compose: ${owner.number} ${owner.title}`}
      >
        Open
      </button>
    </div>
  );
});
