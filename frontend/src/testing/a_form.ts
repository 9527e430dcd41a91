// A small form for unit tests: a page with a group and rows, a second page, a confirmation, figures.
import type { BlockState, Brand, Form } from "../api/generated/wire";
import { type Block, typeOf } from "../model/blocks";
import { newConfirmation, newFigure, newPage, newRowKind } from "../model/new_block";
import { partsOf } from "../model/parts";

/** A block as it is when just added, but for an id and a key that tests can name. */
export const block = (kind: Block["type"], id: string, more: object = {}): Block => {
  const { blank } = typeOf(kind);
  return { ...blank, id, key: id, ...("label" in blank ? { label: id } : {}), ...more } as Block;
};

const row = { ...newRowKind([]), id: "row", key: "row", label: "Row", blocks: [block("number", "amount")] };

/**
 * p1: name, school (a group: teacher, phone), lines (rows: amount), note; p2: adults; then a confirmation and a
 * figure.
 */
export const A_FORM = {
  name: "Visit",
  title: "Visit",
  presentation: "whole",
  enter: "next",
  locale: "en",
  currency: "EUR",
  time_zone: "Europe/Berlin",
  pages: [
    {
      ...newPage("One"),
      id: "p1",
      blocks: [
        block("short_text", "name"),
        block("group", "school", { blocks: [block("short_text", "teacher"), block("phone", "phone")] }),
        block("repeat", "lines", { kinds: [row] }),
        block("long_text", "note"),
      ],
    },
    { ...newPage("Two"), id: "p2", blocks: [block("number", "adults")] },
  ],
  confirmations: [{ ...newConfirmation("For all"), id: "c1" }],
  figures: [],
  checks: [],
  order: { discounts: [], code_field: "", shipping: "", taxes: [], refuse_empty: false },
  payment: {
    plans: [],
    on: false,
    when: "",
    amount: "",
    practice: true,
    account: "",
    cards: [],
    payer_name: "",
    payer_email: "",
    delivery: "",
    in_frame: true,
    hours: 24,
  },
  parts: [],
  follow_ups: [],
  wording: { messages: {} },
  trials: [],
  tables: [],
  feedback: { when: "never", shows_right: true, again: false },
} as unknown as Form;

export const A_FIGURE = { ...newFigure(A_FORM, "formula", "Total"), id: "total", formula: "adults * 2" };

export const A_BRAND = {
  accent: "#1B4D3E",
  layout: "banner",
  width: "normal",
  labels: "above",
  text_size: "normal",
  density: "normal",
  choices: "list",
  title_align: "start",
  title_size: "normal",
  title_italic: false,
  title_underlined: false,
  on_accent: null,
  on_banner: null,
  banner: null,
  ground: "#EDF0F7",
  paper: "#FFFFFF",
  ink: "#16202B",
  typeface: "lora",
  heading_typeface: "source_serif",
  corner: "round",
  fields: "outlined",
  button: "pill",
  button_width: "full",
  logo: "",
  header_picture: "",
  background_picture: '/pictures/a"b',
} as unknown as Brand;

/** What is true of a block that is simply there, but for these. */
export const factsWith = (more: Partial<BlockState> = {}): BlockState => ({
  shown: true,
  required: false,
  value: null,
  error: null,
  ...more,
});

/** The blocks of a form in the order of the outline, those in groups and rows too. */
export const everyBlock = (form: Form): Block[] =>
  [...partsOf(form).values()].flatMap((entry) => (entry.what === "block" ? [entry.part] : []));
