// Figures: the worksheet of all values that are worked out, and the one that is selected with all its settings.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { newFigure } from "../../model/new_block";
import { type Figure, FORM } from "../../model/parts";
import { AddMenu } from "../../ui/AddMenu";
import { useBench } from "../workbench/bench";
import { TryingChoice } from "../workbench/TryingChoice";
import { FigureSettings } from "./FigureSettings";
import { KINDS } from "./kinds";
import { Worksheet } from "./Worksheet";

export function Figures() {
  const { form, part, parts, mayEdit } = useBench();
  const entry = part ? parts.get(part) : undefined;
  const figure = entry?.what === "figure" ? entry.part : null;
  return (
    <Box sx={{ height: "100%", display: "flex", flexDirection: "column", p: 2, gap: 1.5, minHeight: 0 }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5 }}>
        <Typography variant="h1">Figures</Typography>
        <Typography color="text.secondary">{form.figures.length} worked out from the answers</Typography>
        <Box sx={{ flex: 1 }} />
        <TryingChoice label="Values for" />
        {mayEdit && <AddFigure />}
      </Box>
      <Box
        component="section"
        aria-label="Worksheet"
        sx={{
          flex: figure ? "0 1 auto" : 1,
          maxHeight: figure ? "46%" : undefined,
          minHeight: 120,
          overflow: "auto",
          border: 1,
          borderColor: "divider",
          borderRadius: 1,
          bgcolor: "background.paper",
        }}
      >
        {form.figures.length === 0 ? (
          <Typography sx={{ p: 3, maxWidth: 640, color: "text.secondary" }}>
            A figure is a named value that is worked out: a total, a price by bands, a score, a profile, a counter.
            Rules, texts and other figures use it by its key. Add one, and its value is shown here for any answers.
          </Typography>
        ) : (
          <Worksheet />
        )}
      </Box>
      {figure && (
        <Box
          component="section"
          aria-label="Selected figure"
          sx={{
            flex: 1,
            minHeight: 0,
            overflow: "auto",
            border: 1,
            borderColor: "divider",
            borderRadius: 1,
            bgcolor: "background.paper",
          }}
        >
          <FigureSettings key={figure.id} figure={figure} />
        </Box>
      )}
    </Box>
  );
}

function AddFigure() {
  const { form, act, select } = useBench();
  const add = (kind: Figure["kind"]) => {
    const figure = newFigure(form, kind, `New ${KINDS[kind].title.toLowerCase()}`);
    act({ do: "add", parts: [figure], into: { holder: FORM, list: "figures" }, at: form.figures.length });
    select(figure.id, "name");
  };
  return <AddMenu label="Add a figure" kinds={KINDS} onAdd={add} />;
}
