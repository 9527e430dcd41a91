// Titles, corners, fields, buttons and the way of showing progress.
import { ALIGNMENTS, type SettingRow, SettingRows, SIZES } from "../../ui/SettingRows";
import { useBench } from "../workbench/bench";
import type { BrandProps } from "./BrandArea";

const SHAPES: readonly SettingRow[] = [
  {
    entry: "choice",
    setting: "title_align",
    label: "Titles stand",
    options: ALIGNMENTS,
  },
  {
    entry: "choice",
    setting: "title_size",
    label: "Size of titles",
    options: SIZES,
  },
  { entry: "switch", setting: "title_italic", label: "Titles in italics" },
  { entry: "switch", setting: "title_underlined", label: "Titles underlined" },
  {
    entry: "choice",
    setting: "corner",
    label: "Corners",
    options: { square: "Square", slight: "Slightly rounded", round: "Round" },
  },
  {
    entry: "choice",
    setting: "fields",
    label: "Fields",
    options: { outlined: "Outlined", filled: "Filled", underlined: "Underlined" },
  },
  {
    entry: "choice",
    setting: "button",
    label: "Buttons",
    options: { like_fields: "With the corners of fields", pill: "With round ends" },
  },
  {
    entry: "choice",
    setting: "button_size",
    label: "Size of buttons",
    options: SIZES,
  },
  {
    entry: "choice",
    setting: "button_width",
    label: "Width of buttons",
    options: { words: "As wide as their words", full: "As wide as the form" },
  },
];
const PROGRESS: readonly SettingRow[] = [
  {
    entry: "several",
    setting: "progress",
    label: "Progress",
    none: "None",
    help: "As many as you like, on the confirmation too.",
    options: {
      steps: "Steps with the pages’ titles",
      bar: "A bar",
      count: "“Page 2 of 5”",
      percent: "Percent",
      left: "Questions left",
    },
  },
];

export function Shapes({ brand, edit }: BrandProps) {
  const { form, act } = useBench();
  return (
    <>
      <SettingRows rows={SHAPES} of={brand} edit={edit} />
      <SettingRows rows={PROGRESS} of={form} edit={(changes) => act({ do: "edit_form", changes })} />
    </>
  );
}
