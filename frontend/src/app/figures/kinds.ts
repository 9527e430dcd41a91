// The kinds of figures: what each is called and for, how it is told in one line. One entry per kind.
import type { ComponentType } from "react";
import { DECIMALS, FORMAT_ROWS } from "../../fields/settings";
import type { Figure, Parts } from "../../model/parts";
import type { SettingRow } from "../../ui/SettingRows";
import { BandsEditor } from "./BandsEditor";
import { CounterEditor } from "./CounterEditor";
import type { EditorProps } from "./editor_props";
import { FormulaEditorOfFigure } from "./FormulaEditorOfFigure";
import { ProfileEditor } from "./ProfileEditor";
import { ScoreEditor } from "./ScoreEditor";

interface FigureKind {
  title: string;
  purpose: string;
  /** How its value is shown. */
  format: readonly SettingRow[];
  told: (figure: Figure, parts: Parts) => string;
  Editor: ComponentType<EditorProps>;
}

const of = <Kind extends Figure>(Editor: ComponentType<EditorProps<Kind>>) =>
  Editor as unknown as ComponentType<EditorProps>;

const told =
  <Kind extends Figure>(tell: (figure: Kind, parts: Parts) => string) =>
  (figure: Figure, parts: Parts) =>
    tell(figure as Kind, parts);

type Of<Kind extends Figure["kind"]> = Extract<Figure, { kind: Kind }>;

export const KINDS: Record<Figure["kind"], FigureKind> = {
  formula: {
    title: "Formula",
    purpose: "Worked out like in a spreadsheet: adults * 9.50 + SUM(lines.amount)",
    format: FORMAT_ROWS,
    told: told<Of<"formula">>(({ formula }) => formula),
    Editor: of<Of<"formula">>(FormulaEditorOfFigure),
  },
  bands: {
    title: "Bands",
    purpose: "A table of thresholds to values: from 6 points 390, from 10.5 points 560",
    format: FORMAT_ROWS,
    told: told<Of<"bands">>(({ bands }) =>
      bands.map(({ start, value }) => (start === null ? value : `from ${start}: ${value}`)).join(" · "),
    ),
    Editor: of(BandsEditor),
  },
  score: {
    title: "Score",
    purpose: "Points for right answers, or for each option",
    format: [{ ...DECIMALS, help: "It is kept exactly all the same" }],
    told: told<Of<"score">>(({ questions }, parts) =>
      questions.map(({ field }) => parts.get(field)?.number ?? "?").join(", "),
    ),
    Editor: of(ScoreEditor),
  },
  profile: {
    title: "Profile",
    purpose: "Answers speak for profiles; the one with the most points wins",
    format: [{ ...DECIMALS, label: "Decimals of the shares", help: "They add up to 100 all the same" }],
    told: told<Of<"profile">>(({ profiles }) => profiles.map(({ label }) => label).join(" · ")),
    Editor: of(ProfileEditor),
  },
  counter: {
    title: "Counter",
    purpose: "Counts how many conditions hold, each with its own step",
    format: [DECIMALS],
    told: told<Of<"counter">>(({ counts }) => counts.map(({ when }) => when).join(" · ")),
    Editor: of(CounterEditor),
  },
};
