// A formula as it is told in the inspector; a click opens the editor in the margin.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useId } from "react";
import { MONO } from "../../theme/theme";
import { useBench } from "../workbench/bench";
import { Sentence } from "./Margin";

interface Props {
  part: string;
  title: string;
  setting: string;
  text: string;
  absent: string;
}

export function FormulaButton({ part, title, setting, text, absent }: Props) {
  const { select, analysis, parts } = useBench();
  const id = useId();
  const note = analysis.notes[part]?.find((each) => each.setting === setting);
  return (
    <Box>
      <Box id={`${id}-title`} sx={{ mb: 0.5 }}>
        <Typography variant="h3" component="p" color="text.secondary">
          {title}
        </Typography>
      </Box>
      <Button
        fullWidth
        color="inherit"
        onClick={() => select(part, setting)}
        id={id}
        aria-labelledby={`${id}-title ${id}`}
        sx={{
          display: "block",
          textAlign: "left",
          minHeight: 34,
          bgcolor: text ? "noteTint.rule" : "background.default",
          fontSize: 13,
          fontWeight: 400,
          overflowWrap: "anywhere",
        }}
      >
        {text && note && <Sentence words={note.words} parts={parts} />}
        <Box component="span" sx={text ? { display: "block", fontFamily: MONO, fontSize: 12 } : undefined}>
          {text || absent}
        </Box>
      </Button>
    </Box>
  );
}
