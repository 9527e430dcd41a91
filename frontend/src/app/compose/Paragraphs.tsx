// The pieces of a confirmation or a mail: texts, charts and pictures, each with a condition.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { moved } from "../../fields/table_pieces";
import { newParagraph } from "../../model/new_block";
import type { Paragraph as Piece } from "../../model/parts";
import { PictureButton, usePictureUpload } from "../../ui/PictureButton";
import { PictureField } from "../../ui/PictureField";
import { RichTextField } from "../../ui/RichTextField";
import { type SettingRow, SettingRows } from "../../ui/SettingRows";
import { useBench } from "../workbench/bench";
import { Heading } from "./InspectorFrame";

interface Props {
  paragraphs: readonly Piece[];
  onChange: (paragraphs: Piece[]) => void;
  /** What edits the condition of one of them. */
  condition: (at: number, text: string) => ReactNode;
}

export function Paragraphs({ paragraphs, onChange, condition }: Props) {
  return (
    <>
      {paragraphs.map((piece, at) => (
        <Paragraph
          key={at}
          piece={piece}
          at={at}
          condition={condition(at, piece.shown)}
          onUp={at > 0 ? () => onChange(moved(paragraphs, at, at - 1)) : null}
          onChange={(changes) =>
            onChange(paragraphs.map((each, index) => (index === at ? { ...each, ...changes } : each)))
          }
          onRemove={() => onChange(paragraphs.filter((_each, index) => index !== at))}
        />
      ))}
      <Box>
        <Button onClick={() => onChange([...paragraphs, newParagraph({ text: "<p></p>" })])}>Add a text</Button>
        <AddChart onAdd={(chart) => onChange([...paragraphs, newParagraph({ chart })])} />
        <AddPicture onAdd={(picture) => onChange([...paragraphs, newParagraph({ picture })])} />
      </Box>
    </>
  );
}

/** Figures that can be charted: scores and profiles. */
const useCharts = () => useBench().form.figures.filter(({ kind }) => kind === "score" || kind === "profile");

function AddChart({ onAdd }: { onAdd: (figure: string) => void }) {
  const first = useCharts()[0]?.id;
  return (
    <Button
      disabled={!first}
      title={first ? "" : "There is no score and no profile yet"}
      onClick={() => first && onAdd(first)}
    >
      Add a chart
    </Button>
  );
}

function AddPicture({ onAdd }: { onAdd: (source: string) => void }) {
  const upload = usePictureUpload(onAdd);
  return (
    <>
      <PictureButton label="Picture for this text" upload={upload}>
        Add a picture
      </PictureButton>
      {upload.isError && (
        <Typography variant="caption" color="error" role="alert">
          {upload.error.message}
        </Typography>
      )}
    </>
  );
}

type PieceProps = Pick<ParagraphProps, "piece" | "onChange">;

function PictureSettings({ piece, onChange }: PieceProps) {
  return (
    <>
      <PictureField label="Picture" value={piece.picture} onChange={(picture) => onChange({ picture })} />
      <TextField
        label="What it shows, in words"
        value={piece.alternative}
        helperText="Read out to those who can’t see it; empty for mere decoration"
        onChange={(event) => onChange({ alternative: event.target.value })}
      />
    </>
  );
}

const PROFILE_ROWS: readonly SettingRow[] = [
  {
    entry: "choice",
    setting: "order",
    label: "Bars stand",
    options: { largest: "The largest first", given: "In the order of the profiles" },
  },
  {
    entry: "whole",
    blank: true,
    least: 1,
    most: 100,
    setting: "first",
    label: "Only the first",
    help: "Empty for all",
  },
];

const looksFor = (kind: "score" | "profile"): readonly SettingRow[] => [
  {
    entry: "choice",
    setting: "says",
    label: "Each bar says",
    options: { "": kind === "score" ? "Points of the greatest" : "Percent", points: "Points", percent: "Percent" },
  },
  {
    entry: "whole",
    blank: true,
    most: 10,
    setting: "decimals",
    label: "Decimals",
    help: "Empty for those that the figure has",
  },
  ...(kind === "profile" ? PROFILE_ROWS : []),
];

function ChartSettings({ piece, onChange }: PieceProps) {
  const charts = useCharts();
  const kind = charts.find(({ id }) => id === piece.chart)?.kind === "profile" ? "profile" : "score";
  return (
    <>
      <TextField
        select
        label="Chart of"
        value={piece.chart}
        onChange={(event) => onChange({ chart: event.target.value })}
      >
        {charts.map((figure) => (
          <MenuItem key={figure.id} value={figure.id}>
            {figure.name || figure.key}
          </MenuItem>
        ))}
      </TextField>
      <SettingRows
        rows={looksFor(kind)}
        of={piece.chart_look}
        edit={(changes) => onChange({ chart_look: { ...piece.chart_look, ...changes } })}
      />
    </>
  );
}

interface ParagraphProps {
  piece: Piece;
  at: number;
  /** Moves it one place up, unless it is the first. */
  onUp: (() => void) | null;
  condition: ReactNode;
  onChange: (changes: Partial<Piece>) => void;
  onRemove: () => void;
}

function Paragraph({ piece, at, onUp, condition, onChange, onRemove }: ParagraphProps) {
  const charts = useCharts();
  return (
    <Box
      role="group"
      aria-label={`Paragraph ${at + 1}`}
      sx={{ display: "grid", gap: 1, pt: 1, borderTop: 1, borderColor: "divider" }}
    >
      <Box sx={{ display: "flex", justifyContent: "space-between" }}>
        <Heading>Paragraph {at + 1}</Heading>
        <Box sx={{ flex: 1 }} />
        {onUp && (
          <Button
            size="small"
            color="inherit"
            aria-label={`Move paragraph ${at + 1} up`}
            onClick={onUp}
            sx={{ py: 0, minWidth: 28 }}
          >
            ↑
          </Button>
        )}
        <Button size="small" color="inherit" onClick={onRemove} sx={{ py: 0 }}>
          Remove
        </Button>
      </Box>
      {piece.chart && <ChartSettings piece={piece} onChange={onChange} />}
      {piece.picture && <PictureSettings piece={piece} onChange={onChange} />}
      {!piece.chart && !piece.picture && (
        <RichTextField
          label={`Text of paragraph ${at + 1}`}
          value={piece.text}
          onChange={(text) => onChange({ text })}
        />
      )}
      {condition}
      {piece.chart && !charts.some((figure) => figure.id === piece.chart && figure.shown_to_visitors) && (
        <Typography variant="caption" color="error">
          Show this figure to visitors, in Figures.
        </Typography>
      )}
    </Box>
  );
}
