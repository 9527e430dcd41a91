// A note opened where it stands: its formula, what is wrong with it, and what it may say.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useEffect, useMemo, useRef } from "react";
import type { FindingReply, NoteKind } from "../../api/generated/wire";
import type { Block } from "../../model/blocks";
import { NOTE_KINDS } from "../../text/words";
import { useBench } from "../workbench/bench";
import { FormulaEditor } from "./FormulaEditor";
import type { ComposeActions } from "./useComposeActions";

interface FormulaSetting {
  kind: NoteKind;
  title: string;
  /** What the margin says while the setting is empty. */
  absent: string;
  example: string;
}

export const FORMULA_SETTINGS: Record<string, FormulaSetting> = {
  shown: {
    kind: "rule",
    title: "shown when",
    absent: "◇ always shown; add a rule",
    example: 'adults > 12, or arrival = "coach"',
  },
  required: {
    kind: "check",
    title: "must be answered when",
    absent: "! may stay blank; make it required",
    example: "TRUE for always, or adults > 12",
  },
  locked: {
    kind: "rule",
    title: "locked when",
    absent: "◇ can be changed; lock it",
    example: "TRUE for always, or NOT(ISBLANK(link.code))",
  },
  default: {
    kind: "data",
    title: "begins as",
    absent: "begins blank",
    example: '"email", TODAY() + 7, or link.code',
  },
  offered: {
    kind: "rule",
    title: "offers an option when",
    absent: "◇ offers every option",
    example: "option.belongs_to = site",
  },
  earliest: {
    kind: "check",
    title: "not before",
    absent: "! as early as you like",
    example: "TODAY() + 2, or arrival",
  },
  latest: {
    kind: "check",
    title: "not after",
    absent: "! as late as you like",
    example: "EDATE(TODAY(), 6)",
  },
  formula: {
    kind: "calculation",
    title: "= is worked out by",
    absent: "ƒ no formula yet; write one",
    example: "adults * 9.50 + children * 4",
  },
};

interface Props {
  block: Block;
  setting: string;
  actions: ComposeActions;
}

const textOf = (block: Block | undefined, setting: string): string =>
  String((block as unknown as Record<string, unknown> | undefined)?.[setting] ?? "");

export function NoteEditor({ block, setting, actions }: Props) {
  const { select, analysis, analysed, mayEdit } = useBench();
  const { kind, title, example } = FORMULA_SETTINGS[setting]!;
  const text = textOf(block, setting);
  const known = analysed.pages.flatMap((page) => page.blocks).find((each) => each.id === block.id);
  // A place in the formula is right only for the very text that the core has seen.
  const current = textOf(known, setting) === text;
  const findings = useMemo(
    () => (current ? analysis.findings.filter((each) => each.block === block.id && each.setting === setting) : []),
    [current, analysis, block.id, setting],
  );
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // Not returned: newer browsers give a promise here.
    box.current?.scrollIntoView({ block: "nearest" });
  }, []);
  useEffect(() => {
    const closeOutside = (event: PointerEvent) => {
      const target = event.target as Element;
      if (!box.current?.contains(target) && !target.closest(".cm-tooltip")) select(block.id);
    };
    addEventListener("pointerdown", closeOutside);
    return () => removeEventListener("pointerdown", closeOutside);
  });
  return (
    <Box
      ref={box}
      role="group"
      aria-label={`${title}: formula`}
      sx={{
        p: 1.25,
        my: 0.5,
        borderLeft: 2,
        borderColor: `note.${kind}`,
        bgcolor: "background.paper",
        boxShadow: 2,
        borderRadius: "0 6px 6px 0",
      }}
    >
      <Typography variant="body2" sx={{ mb: 0.5, fontWeight: 650, color: `note.${kind}` }}>
        {NOTE_KINDS[kind].sign} {title}
      </Typography>
      <FormulaEditor
        label={`Formula: ${title}`}
        text={text}
        findings={findings}
        readOnly={!mayEdit}
        onChange={(changed) => actions.edit(block.id, { [setting]: changed })}
        onDone={() => select(block.id)}
      />
      <Findings findings={findings} />
      <Typography variant="caption" sx={{ display: "block", mt: 0.5, color: "text.secondary" }}>
        For example: {example}
      </Typography>
      <Box sx={{ display: "flex", justifyContent: "space-between", mt: 0.5 }}>
        <Button onClick={() => select(block.id)}>Done</Button>
        {mayEdit && setting === "required" && text.trim().toUpperCase() !== "TRUE" && (
          <Button color="inherit" onClick={() => actions.edit(block.id, { required: "TRUE" })}>
            Always
          </Button>
        )}
        {mayEdit && text !== "" && (
          <Button
            color="inherit"
            onClick={() => {
              actions.edit(block.id, { [setting]: "" });
              select(block.id);
            }}
          >
            Remove
          </Button>
        )}
      </Box>
    </Box>
  );
}

function Findings({ findings }: { findings: FindingReply[] }) {
  return (
    <Box aria-live="polite">
      {findings.map((finding, index) => (
        <Typography
          key={index}
          variant="body2"
          sx={{ mt: 0.5, color: finding.severity === "error" ? "note.check" : "note.money" }}
        >
          {finding.message}
        </Typography>
      ))}
    </Box>
  );
}
