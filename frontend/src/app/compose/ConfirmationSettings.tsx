// A confirmation: when it follows, and what visitors read then, or where they go on to.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { newParagraph } from "../../model/new_block";
import type { Confirmation, Entry, Paragraph as Piece } from "../../model/parts";
import { PictureButton, usePictureUpload } from "../../ui/PictureButton";
import { PictureField } from "../../ui/PictureField";
import { type SettingRow, SettingRows } from "../../ui/SettingRows";
import { moved } from "../../fields/table_pieces";
import { RichTextField } from "../../ui/RichTextField";
import { useBench } from "../workbench/bench";
import { FormulaButton } from "./FormulaButton";
import { Heading, InspectorFrame } from "./InspectorFrame";
import type { ComposeActions } from "./actions";

interface Props {
  entry: Extract<Entry, { what: "confirmation" }>;
  actions: ComposeActions;
}

export function ConfirmationSettings({ entry, actions }: Props) {
  const confirmation = entry.part;
  // Chosen while there is no address; then the address says it, after an undo too.
  const [chosen, setChosen] = useState<"message" | "redirect">("message");
  const way = confirmation.redirect ? "redirect" : chosen;
  const edit = (changes: Partial<Confirmation>) => actions.edit(confirmation.id, changes);
  const put = (paragraphs: Piece[]) => edit({ paragraphs });
  const { paragraphs } = confirmation;
  return (
    <InspectorFrame number={entry.number} what="Confirmation" title={entry.title} actions={actions} duplicable>
      <TextField
        label="Name"
        value={confirmation.name}
        helperText="For the team; in rules and trials"
        onChange={(event) => edit({ name: event.target.value })}
      />
      <FormulaButton
        part={confirmation.id}
        title="Follows when"
        setting="when"
        text={confirmation.when}
        absent="Always, unless one above it follows"
      />
      <ToggleButtonGroup
        exclusive
        fullWidth
        size="small"
        value={way}
        aria-label="What follows"
        onChange={(_event, next: "message" | "redirect" | null) => {
          if (!next) return;
          setChosen(next);
          if (next === "message") edit({ redirect: "" });
        }}
      >
        <ToggleButton value="message" sx={{ textTransform: "none" }}>
          Message
        </ToggleButton>
        <ToggleButton value="redirect" sx={{ textTransform: "none" }}>
          Another address
        </ToggleButton>
      </ToggleButtonGroup>
      {way === "redirect" && <Redirect key={confirmation.id} value={confirmation.redirect} edit={edit} />}
      {way === "message" && (
        <>
          <TextField
            label="Heading"
            slotProps={{ htmlInput: { "data-values": "" } }}
            value={confirmation.title}
            onChange={(event) => edit({ title: event.target.value })}
          />
          {paragraphs.map((piece, at) => (
            <Paragraph
              key={at}
              part={confirmation.id}
              piece={piece}
              at={at}
              onUp={at > 0 ? () => put(moved(paragraphs, at, at - 1)) : null}
              onChange={(changes) =>
                put(paragraphs.map((each, index) => (index === at ? { ...each, ...changes } : each)))
              }
              onRemove={() => put(paragraphs.filter((_each, index) => index !== at))}
            />
          ))}
          <Box>
            <Button onClick={() => put([...paragraphs, newParagraph({ text: "<p></p>" })])}>Add a text</Button>
            <AddChart onAdd={(chart) => put([...paragraphs, newParagraph({ chart })])} />
            <AddPicture onAdd={(picture) => put([...paragraphs, newParagraph({ picture })])} />
          </Box>
        </>
      )}
    </InspectorFrame>
  );
}

function Redirect({ value, edit }: { value: string; edit: (changes: Partial<Confirmation>) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const isAddress = (text: string) => text === "" || /^https?:\/\/\S{1,2000}$/.test(text);
  const wrong = typed !== null && !isAddress(typed);
  return (
    <TextField
      label="Address to go on to"
      value={typed ?? value}
      error={wrong}
      helperText={
        wrong
          ? "Begin with https:// and leave out spaces"
          : "{ inserts a value: https://www.example.org/?n={response.number}"
      }
      slotProps={{ htmlInput: { "data-values": "" } }}
      onChange={(event) => {
        setTyped(event.target.value);
        if (isAddress(event.target.value)) edit({ redirect: event.target.value });
      }}
      onBlur={() => {
        // What was typed without its beginning is meant; what is no address at all stays, with what is wrong.
        const whole = `https://${typed}`;
        if (wrong && !typed.includes("://") && isAddress(whole)) edit({ redirect: whole });
        else if (wrong) return;
        setTyped(null);
      }}
    />
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
      <PictureButton label="Picture for the confirmation" upload={upload}>
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
  part: string;
  piece: Piece;
  at: number;
  /** Moves it one place up, unless it is the first. */
  onUp: (() => void) | null;
  onChange: (changes: Partial<Piece>) => void;
  onRemove: () => void;
}

function Paragraph({ part, piece, at, onUp, onChange, onRemove }: ParagraphProps) {
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
      <FormulaButton
        part={part}
        title="Shown when"
        setting={`paragraphs.${at}.shown`}
        text={piece.shown}
        absent="Always; add a rule"
      />
      {piece.chart && !charts.some((figure) => figure.id === piece.chart && figure.shown_to_visitors) && (
        <Typography variant="caption" color="error">
          Show this figure to visitors, in Figures.
        </Typography>
      )}
    </Box>
  );
}
