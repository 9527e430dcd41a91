// Rules: every rule as a sentence, and the map of what leads where; both walked with answers.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { visuallyHidden } from "@mui/utils";
import { useMemo, useState } from "react";
import type { OutcomeReply } from "../../api/generated/wire";
import type { Parts } from "../../model/parts";
import { SERIF } from "../../theme/theme";
import { Sentence } from "../compose/Margin";
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
import { SidePanel } from "../../ui/SideList";
import { Walk } from "./Walk";

export function Rules() {
  const { form, parts, analysis } = useBench();
  const outcome = useOutcome();
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
                  onPoint={() => setPointed(rule.owner.id)}
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
  onPoint: () => void;
}

function RuleSentence({ rule, parts, outcome, pointed, onPoint }: SentenceProps) {
  const openPart = useOpenPart();
  const { owner, note } = rule;
  const holds = outcome?.holding[owner.id]?.[note.setting];
  const open = () => openPart(owner.id, note.setting);
  return (
    <Box
      sx={{
        position: "relative",
        px: 2,
        py: 0.75,
        borderLeft: 3,
        borderColor: pointed ? "note.rule" : "transparent",
        bgcolor: pointed ? "noteTint.rule" : undefined,
        "&:hover .open-rule, & .open-rule:focus-visible": { opacity: 1 },
      }}
    >
      <Box
        component="button"
        type="button"
        aria-pressed={pointed}
        onClick={onPoint}
        onDoubleClick={open}
        sx={{
          display: "block",
          width: "100%",
          p: 0,
          font: "inherit",
          textAlign: "left",
          color: "inherit",
          background: "none",
          border: 0,
          cursor: "pointer",
        }}
      >
        <span style={{ fontFamily: SERIF }}>{owner.number}</span> <b>{owner.title}</b>{" "}
        <Sentence words={note.words} parts={parts} />
      </Box>
      {/* Room for the button that opens it, whatever is known of it. */}
      <Typography variant="body2" sx={{ minHeight: 20, color: holds ? "note.rule" : "text.secondary" }}>
        {note.condition ? nowWords(owner.id, note, outcome) : nowValue(owner.id, outcome)}
      </Typography>
      <Button
        className="open-rule"
        size="small"
        onClick={open}
        aria-label={`Open in Compose: ${owner.number} ${owner.title}`}
        sx={{ position: "absolute", right: 8, bottom: 2, py: 0, opacity: 0, bgcolor: "background.paper" }}
      >
        Open
      </Button>
    </Box>
  );
}
