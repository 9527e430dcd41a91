// What the inspector offers for each type of block beside what all have. One line per type; see CONTRIBUTING.md.
import type { ComponentType } from "react";
import type { Block, BlockKind } from "../model/blocks";
import { ALIGNMENTS, type SettingRow, SIZES } from "../ui/SettingRows";
import { COUNTRIES } from "./address/countries";
import { GridQuestions } from "./grid/Settings";
import { OptionTable } from "./options/OptionTable";
import { PictureSource } from "./picture/Settings";
import { ProductPicture, ProductPrices } from "./product/Settings";
import type { SettingsProps } from "./settings_props";
import { RichTextSetting } from "./text/Settings";

export type SettingsTab = "content" | "answers" | "behaviour" | "checks" | "look";

export interface BlockSettings {
  content?: readonly SettingRow[];
  answers?: readonly SettingRow[];
  checks?: readonly SettingRow[];
  look?: readonly SettingRow[];
  /** What is more than a row: above the rows of its tab. */
  Content?: ComponentType<SettingsProps>;
  Answers?: ComponentType<SettingsProps>;
}

const of = <Kind extends Block>(Panel: ComponentType<SettingsProps<Kind>>) =>
  Panel as unknown as ComponentType<SettingsProps>;

const COUNTRY_NAMES = new Intl.DisplayNames("en", { type: "region" });
const COUNTRIES_TOLD = Object.fromEntries(
  COUNTRIES.map((code) => [code, `Is of ${COUNTRY_NAMES.of(code) ?? code}`] as const).sort(([, one], [, other]) =>
    one.localeCompare(other),
  ),
);

const PLACEHOLDER: SettingRow = {
  entry: "text",
  setting: "placeholder",
  label: "Placeholder",
  help: "An example that goes away on typing, such as 12 Harbour Road",
};
const RANGE: readonly SettingRow[] = [
  { entry: "decimal", setting: "minimum", label: "Minimum", help: "The smallest number that is taken" },
  { entry: "decimal", setting: "maximum", label: "Maximum", help: "The largest number that is taken" },
];
const UNIT: SettingRow = {
  entry: "text",
  setting: "unit",
  label: "Unit",
  help: "Shown behind the number: km, m, people",
};
const TEXT_CHECKS: readonly SettingRow[] = [
  { entry: "whole", blank: true, setting: "min_length", label: "At least so many characters" },
  { entry: "whole", blank: true, least: 1, setting: "max_length", label: "At most so many characters" },
  {
    entry: "text",
    mono: true,
    setting: "pattern",
    label: "Pattern",
    help: "A regular expression that the whole text must fit: [A-Z]{2}-[0-9]{4} for AB-1234",
  },
  { entry: "text", setting: "pattern_message", label: "What visitors are told where it does not fit" },
];
const ARRANGEMENT: SettingRow = {
  entry: "choice",
  setting: "arrangement",
  label: "Options stand",
  options: { column: "one under another", row: "side by side" },
};
const OPTION_ROWS: readonly SettingRow[] = [
  {
    entry: "switch",
    setting: "shuffled",
    label: "Shuffle for each visitor",
    help: "In another order for each, the same on each visit",
  },
  {
    entry: "switch",
    setting: "other",
    label: "Let them write their own",
    help: "Adds an option with a box; its code is other",
  },
  { entry: "text", setting: "other_label", label: "Label of that option" },
  {
    entry: "switch",
    setting: "prices_shown",
    label: "Show prices beside the options",
    help: "Where options have any",
  },
];
const SEVERAL = { setting: "several", values: ["true"] };
const RECORD_ROWS: readonly SettingRow[] = [
  {
    entry: "choice",
    setting: "look",
    label: "Visitors choose",
    options: { dropdown: "in a list that opens", list: "in a list in sight", search: "by typing what they look for" },
    help: "Where more than 200 fit, they are searched by typing, whatever is set here.",
  },
  { entry: "switch", setting: "several", label: "Several may be chosen" },
];
const OPTIONED: BlockSettings = { Answers: of(OptionTable), answers: OPTION_ROWS };
const PIECES: readonly SettingRow[] = [
  { entry: "whole", blank: true, most: 99_999, setting: "least", label: "At least so many, if any" },
  { entry: "whole", blank: true, most: 99_999, setting: "most", label: "At most so many" },
];
const FORMATS = {
  number: "Number",
  percent: "Percent",
  money: "Money in the form’s currency",
  text: "Text",
  date: "Date",
};
/** How many decimals a computed number is shown with. */
export const DECIMALS: SettingRow = {
  entry: "whole",
  most: 10,
  setting: "decimals",
  label: "Decimals shown",
  only: { setting: "format", values: ["number", "percent"] },
};

/** How a computed value is settled and shown: of calculated fields and of figures. */
export const FORMAT_ROWS: readonly SettingRow[] = [
  { entry: "choice", setting: "format", label: "Shown as", options: FORMATS },
  { ...DECIMALS },
  {
    entry: "whole",
    blank: true,
    most: 10,
    setting: "kept_decimals",
    label: "Decimals kept",
    help: "Empty keeps it exactly; else it is rounded where it is worked out, half up, for all that reads it",
    only: { setting: "format", values: ["number", "percent"] },
  },
];

export const SETTINGS: Record<BlockKind, BlockSettings> = {
  short_text: { content: [PLACEHOLDER], checks: TEXT_CHECKS },
  long_text: {
    content: [PLACEHOLDER],
    checks: TEXT_CHECKS,
    look: [
      {
        entry: "whole",
        least: 2,
        most: 30,
        setting: "lines",
        label: "Lines at first",
        help: "The box grows with what is typed",
      },
    ],
  },
  number: {
    content: [PLACEHOLDER],
    answers: [
      { entry: "whole", most: 10, setting: "decimals", label: "Decimals", help: "0 takes whole numbers only" },
      UNIT,
      {
        entry: "decimal",
        blank: true,
        setting: "price",
        label: "Price of each",
        help: "Then it orders so many pieces",
      },
    ],
    checks: [...RANGE, { entry: "decimal", setting: "step", label: "In steps of", help: "5 takes 0, 5, 10 …" }],
  },
  money: { content: [PLACEHOLDER], checks: RANGE },
  calculated: {
    answers: FORMAT_ROWS,
    look: [
      {
        entry: "switch",
        setting: "hidden_when_blank",
        label: "Hide it while it is blank",
        help: 'A formula that gives "" leaves nothing on the page then, not even the label.',
      },
    ],
  },
  product: {
    Content: of(ProductPicture),
    content: [{ entry: "text", setting: "alternative", label: "What the picture shows, in words" }],
    Answers: of(ProductPrices),
    answers: [
      {
        entry: "choice",
        setting: "quantity",
        label: "How many",
        options: { here: "is asked here", apart: "is asked by a quantity field" },
      },
      {
        entry: "whole",
        blank: true,
        most: 99_999,
        setting: "stock",
        label: "Stock",
        help: "How many there are to sell in all; empty for any number",
      },
      { entry: "switch", setting: "left_shown", label: "Show how many are left" },
      { entry: "text", setting: "sold_out", label: "Words when nothing is left", help: "Sold out." },
      { entry: "decimal", setting: "weight", label: "Weight of one", help: "For shipping: order.weight adds them up" },
    ],
    checks: PIECES,
  },
  quantity: { content: [PLACEHOLDER], checks: PIECES },
  order_summary: {},
  all_answers: {},
  date: {},
  time: {},
  date_time: {},
  slot: {
    answers: [
      { entry: "whole", setting: "notice", label: "Not within so many hours", most: 8_784 },
      { entry: "whole", blank: true, least: 1, most: 3_660, setting: "ahead", label: "At most so many days ahead" },
      {
        entry: "whole",
        blank: true,
        most: 8_784,
        setting: "change_until",
        label: "Visitors may change it until so many hours before",
        help: "By the private address {response.page} in a mail; blank: not at all",
      },
      { entry: "whole", blank: true, least: 1, most: 1_000, setting: "most_each", label: "Places for one person" },
    ],
  },
  yes_no: {
    answers: [
      { entry: "text", setting: "yes", label: "Word for yes" },
      { entry: "text", setting: "no", label: "Word for no" },
    ],
  },
  single_choice: { ...OPTIONED, look: [ARRANGEMENT] },
  dropdown: { ...OPTIONED, content: [PLACEHOLDER] },
  several_choices: {
    ...OPTIONED,
    look: [ARRANGEMENT],
    checks: [
      { entry: "whole", blank: true, setting: "minimum", label: "At least so many options" },
      { entry: "whole", blank: true, least: 1, setting: "maximum", label: "At most so many options" },
    ],
  },
  record_choice: {
    content: [PLACEHOLDER],
    answers: RECORD_ROWS,
    checks: [
      {
        entry: "whole",
        blank: true,
        least: 1,
        most: 100,
        setting: "minimum",
        label: "At least so many",
        only: SEVERAL,
      },
      { entry: "whole", blank: true, least: 1, most: 100, setting: "maximum", label: "At most so many", only: SEVERAL },
    ],
  },
  rating: {
    answers: [
      {
        entry: "choice",
        setting: "icon",
        label: "Sign",
        options: { star: "Star", heart: "Heart", moon: "Moon", dot: "Dot" },
      },
      { entry: "whole", least: 2, most: 10, setting: "count", label: "How many" },
    ],
  },
  scale: {
    answers: [
      { entry: "whole", setting: "least", label: "From" },
      { entry: "whole", least: 1, setting: "most", label: "To" },
      { entry: "text", setting: "least_label", label: "Words at the lower end", help: "Not at all" },
      { entry: "text", setting: "most_label", label: "Words at the upper end", help: "Very much" },
    ],
  },
  slider: {
    answers: [
      { entry: "decimal", blank: false, setting: "least", label: "From" },
      { entry: "decimal", blank: false, setting: "most", label: "To" },
      { entry: "decimal", blank: false, setting: "step", label: "In steps of" },
      UNIT,
    ],
  },
  grid: { Content: of(GridQuestions), Answers: of(OptionTable) },
  name: {
    answers: [
      {
        entry: "choice",
        setting: "parts",
        label: "Asked in",
        options: { one: "One box", first_last: "First and last name" },
      },
    ],
    content: [
      { ...PLACEHOLDER, help: "In the first box, or the only one" },
      {
        ...PLACEHOLDER,
        setting: "placeholder_last",
        label: "Placeholder of the last name",
        help: undefined,
        only: { setting: "parts", values: ["first_last"] },
      },
    ],
  },
  email: { content: [PLACEHOLDER] },
  phone: {
    content: [PLACEHOLDER],
    answers: [
      {
        entry: "choice",
        setting: "country",
        label: "A number without + and country code",
        options: { "": "Is kept as the visitor writes it", ...COUNTRIES_TOLD },
        help: "With + it is of its own country, whatever is chosen here.",
      },
    ],
  },
  web_address: { content: [PLACEHOLDER] },
  address: {
    content: [
      { ...PLACEHOLDER, setting: "placeholder_street", label: "Placeholder of the street", help: undefined },
      { ...PLACEHOLDER, setting: "placeholder_postal_code", label: "Placeholder of the postal code", help: undefined },
      { ...PLACEHOLDER, setting: "placeholder_town", label: "Placeholder of the town", help: undefined },
    ],
    answers: [{ entry: "switch", setting: "country", label: "Ask for the country" }],
  },
  consent: {
    content: [
      {
        entry: "text",
        multiline: true,
        setting: "statement",
        label: "What visitors agree to",
        help: "{ inserts a value",
        values: true,
      },
    ],
  },
  signature: {},
  file_upload: {
    answers: [
      {
        entry: "several",
        setting: "kinds",
        label: "Kinds of files",
        options: {
          picture: "Pictures",
          pdf: "PDF",
          document: "Text documents",
          table: "Tables",
          sound: "Sound",
          film: "Film",
          archive: "Archives (zip)",
        },
        help: "What a file is, is found inside it, not by its name",
      },
      {
        entry: "several",
        setting: "picture_types",
        label: "Types of pictures",
        options: {
          jpeg: "JPEG",
          png: "PNG",
          gif: "GIF",
          webp: "WebP",
          heic: "HEIC (photos of some phones)",
          avif: "AVIF",
        },
        none: "None",
      },
      {
        entry: "switch",
        setting: "heic_as_jpeg",
        label: "Keep HEIC photos as JPEG",
        help: "Every program opens them then; what the camera wrote beside the picture is left out.",
      },
      { entry: "whole", least: 1, most: 50, setting: "most", label: "At most so many files" },
      { entry: "whole", least: 1, most: 100, setting: "megabytes", label: "Megabytes each, at most" },
    ],
  },
  heading: {
    content: [{ entry: "text", multiline: true, setting: "lead", label: "Line below the heading", values: true }],
    look: [
      {
        entry: "choice",
        setting: "align",
        label: "Stands",
        options: ALIGNMENTS,
      },
      {
        entry: "choice",
        setting: "size",
        label: "Size",
        options: SIZES,
      },
      { entry: "switch", setting: "italic", label: "Italic" },
      { entry: "switch", setting: "underlined", label: "Underlined" },
      { entry: "switch", setting: "accent", label: "In the accent colour" },
    ],
  },
  text: { Content: of(RichTextSetting) },
  picture: {
    Content: of(PictureSource),
    content: [
      {
        entry: "text",
        setting: "alternative",
        label: "What it shows, in words",
        help: "Read out to those who can’t see it; empty for mere decoration",
      },
      { entry: "text", setting: "caption", label: "Caption", values: true },
    ],
    look: [
      {
        entry: "choice",
        setting: "size",
        label: "Size",
        options: { small: "Small", medium: "Medium", full: "The whole width" },
      },
    ],
  },
  divider: {},
  group: {
    look: [
      {
        entry: "whole",
        least: 1,
        most: 4,
        setting: "columns",
        label: "Columns",
        help: "Its blocks fill them one after another where they fit; on phones they stand one below another.",
      },
    ],
  },
  repeat: {
    checks: [
      { entry: "whole", setting: "min_rows", label: "At least so many rows" },
      { entry: "whole", least: 1, most: 500, setting: "max_rows", label: "At most so many rows" },
    ],
  },
  hidden: {},
};
