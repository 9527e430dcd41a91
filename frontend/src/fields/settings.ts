// What the inspector offers for each type of block beside what all have. One line per type; see CONTRIBUTING.md.
import type { ComponentType } from "react";
import type { Block, BlockKind } from "../model/blocks";
import { CalculatedAnswers } from "./calculated/Settings";
import { NumberAnswers, NumberChecks } from "./number/Settings";
import { ShortTextChecks } from "./short_text/Settings";
import { SingleChoiceAnswers, SingleChoiceLook } from "./single_choice/Settings";

export type SettingsTab = "content" | "answers" | "behaviour" | "checks" | "look";

export interface SettingsProps<Kind extends Block = Block> {
  block: Kind;
  edit: (changes: Partial<Kind>) => void;
}

export interface BlockSettings {
  answers?: ComponentType<SettingsProps>;
  checks?: ComponentType<SettingsProps>;
  look?: ComponentType<SettingsProps>;
}

const of = <Kind extends Block>(Panel: ComponentType<SettingsProps<Kind>>) =>
  Panel as unknown as ComponentType<SettingsProps>;

export const SETTINGS: Record<BlockKind, BlockSettings> = {
  short_text: { checks: of(ShortTextChecks) },
  long_text: { checks: of(ShortTextChecks) },
  number: { answers: of(NumberAnswers), checks: of(NumberChecks) },
  money: { checks: of(NumberChecks) },
  calculated: { answers: of(CalculatedAnswers) },
  single_choice: { answers: of(SingleChoiceAnswers), look: of(SingleChoiceLook) },
  dropdown: { answers: of(SingleChoiceAnswers) },
  several_choices: { answers: of(SingleChoiceAnswers), look: of(SingleChoiceLook) },
  date: {},
  time: {},
  date_time: {},
  yes_no: {},
  rating: {},
  scale: {},
  slider: {},
  grid: {},
  name: {},
  email: {},
  phone: {},
  web_address: {},
  address: {},
  consent: {},
  signature: {},
  file_upload: {},
  heading: {},
  text: {},
  picture: {},
  divider: {},
  group: {},
  repeat: {},
  hidden: {},
};
