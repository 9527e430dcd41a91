// Bands: what they look at, the table of thresholds, and a number line that shows gaps and overlaps.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import Typography from "@mui/material/Typography";
import { ColumnHeads } from "../../fields/table_pieces";
import { DecimalBox, DecimalField } from "../../ui/DecimalField";
import { RenamedBox } from "../../ui/RenamedField";
import { Findings } from "../compose/Findings";
import { FormulaEditor } from "../compose/FormulaEditor";
import { useFindings } from "../compose/useFindings";
import { useBench } from "../workbench/bench";
import { FormulaEditorOfFigure } from "./FormulaEditorOfFigure";
import type { Bands } from "./bands";
import type { EditorProps } from "./editor_props";
import { NumberLine } from "./NumberLine";

type Band = Bands["bands"][number];

export function BandsEditor({ figure, edit }: EditorProps<Bands>) {
  const { actions } = useBench();
  const { bands } = figure;
  const put = (next: Band[]) => edit({ bands: next });
  const change = (at: number, changes: Partial<Band>) =>
    put(bands.map((band, index) => (index === at ? { ...band, ...changes } : band)));
  const last = bands.at(-1);
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) minmax(0, 1fr)", gap: 3 }}>
      <Box>
        <Typography variant="h3" component="p" color="text.secondary" sx={{ mb: 0.5 }}>
          Looks at
        </Typography>
        <FormulaEditorOfFigure figure={figure} edit={edit} />
        <NumberLine figure={figure} />
      </Box>
      <Box role="group" aria-label="Bands" sx={{ display: "grid", gap: 0.5, alignContent: "start" }}>
        <ColumnHeads columns={GRID} gap={1}>
          <span>From</span>
          <span>Name</span>
          <span>Value</span>
        </ColumnHeads>
        {bands.map((band, at) => (
          <Box
            key={at}
            sx={{
              display: "grid",
              gridTemplateColumns: GRID,
              gap: 1,
              alignItems: "start",
            }}
          >
            <DecimalBox
              label={`Band ${at + 1} begins at; empty for everything below the next`}
              value={band.start}
              onChange={(start) => change(at, { start })}
            />
            <RenamedBox
              name={`Name of band ${at + 1}`}
              value={band.label}
              mayBeEmpty
              onRename={(name) => actions.rename(figure.id, `bands.${at}.label`, name)}
            />
            <BandValue figure={figure.id} at={at} text={band.value} onChange={(value) => change(at, { value })} />
            <IconButton
              aria-label={`Remove band ${at + 1}`}
              onClick={() => put(bands.filter((_band, index) => index !== at))}
              sx={{ width: 24, height: 28, fontSize: 14 }}
            >
              ×
            </IconButton>
          </Box>
        ))}
        <Button
          sx={{ justifySelf: "start" }}
          onClick={() => put([...bands, { start: bands.length === 0 ? null : nextStart(last), value: "0", label: "" }])}
        >
          Add a band
        </Button>
        <Box sx={{ maxWidth: 220 }}>
          <DecimalField
            label="The last band ends before"
            help="Empty for never; from there on the figure is blank"
            value={figure.end}
            onChange={(end) => edit({ end })}
          />
        </Box>
        <Typography variant="caption" color="text.secondary">
          Each band starts at its number and ends under the next. Its value is a number, or a formula such as 12 +
          distance * 0.85. Formulas name the value {figure.key}, its name {figure.key}.label.
        </Typography>
      </Box>
    </Box>
  );
}

const GRID = "84px minmax(0,1fr) minmax(0,1fr) 24px";

interface ValueProps {
  figure: string;
  at: number;
  text: string;
  onChange: (text: string) => void;
}

/** What a band is worth: a number, or a formula that is worked out only there. */
function BandValue({ figure, at, text, onChange }: ValueProps) {
  const { mayEdit, setting: opened } = useBench();
  const setting = `bands.${at}.value`;
  const findings = useFindings(figure, setting, text);
  return (
    <Box>
      <FormulaEditor
        label={`Value of band ${at + 1}`}
        hint=""
        text={text}
        findings={findings}
        rowKind={null}
        readOnly={!mayEdit}
        focused={opened === setting}
        onChange={onChange}
        onDone={nothing}
      />
      <Findings findings={findings} />
    </Box>
  );
}

const nothing = () => undefined;

const nextStart = (last: Band | undefined): string => String(Number(last?.start ?? 0) + 10);
