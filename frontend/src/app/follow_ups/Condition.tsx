// A condition, or another formula that may be absent, told in a line and opened where it stands.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { FormulaField } from "../compose/FormulaField";
import { Sentence } from "../compose/Margin";
import { useBench } from "../workbench/bench";

interface Props {
  part: string;
  setting: string;
  text: string;
  /** What is said while there is none, and while there is one before its words. */
  absent: string;
  title: string;
  /** What it is marked with: that of a rule, where nothing else is said. */
  sign?: string;
  onChange: (text: string) => void;
}

export function Condition({ part, setting, text, absent, title, sign = "◇", onChange }: Props) {
  const { analysis, parts, mayEdit } = useBench();
  const [open, setOpen] = useState(false);
  const note = analysis.notes[part]?.find((each) => each.setting === setting);
  if (!open)
    return (
      <Button
        size="small"
        color="inherit"
        disabled={!mayEdit}
        onClick={() => setOpen(true)}
        sx={{ justifyContent: "start", textAlign: "left", fontWeight: 400 }}
      >
        <span>
          {sign} {text ? note ? <Sentence words={note.words} parts={parts} /> : `${title} ${text}` : absent}
        </span>
      </Button>
    );
  return (
    <Box role="group" aria-label={title} data-editor sx={{ borderLeft: 2, borderColor: "note.rule", pl: 1.5, pt: 3.5 }}>
      <FormulaField
        focused
        part={part}
        setting={setting}
        text={text}
        rowKind={null}
        readOnly={!mayEdit}
        onChange={onChange}
      />
      <Button onClick={() => setOpen(false)}>Done</Button>
      {text !== "" && (
        <Button
          color="inherit"
          onClick={() => {
            onChange("");
            setOpen(false);
          }}
        >
          Remove
        </Button>
      )}
    </Box>
  );
}
