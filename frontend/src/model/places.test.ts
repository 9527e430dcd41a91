import { expect, it } from "vitest";
import type { Form } from "../api/generated/wire";
import { A_FORM, block } from "../testing/a_form";
import { apply } from "./draft";
import { sayProblems } from "./places";

const choice = block("single_choice", "show", {
  label: "Show",
  options: ["deep", "near"].map((id) => ({ id, code: id, label: id })),
});
const FORM: Form = apply(A_FORM, { do: "add", parts: [choice], into: { holder: "p2", list: "blocks" }, at: 0 });

it.each([
  ["name", "name"],
  ["wording.next", "wording next"],
  ["pages.1.title", "2 Two, title"],
  ["pages.1.blocks.0.single_choice.options.1.counts_as", "2.1 Show, options 2 counts as"],
  ["pages.0.blocks.1.group.blocks.0.short_text.key", "1.2.1 teacher, key"],
  ["pages.0.blocks.2.repeat.kinds.0.blocks.0.number.maximum", "1.3.1.1 amount, maximum"],
  ["confirmations.0.paragraphs.2.text", "C.1 For all, paragraphs 3 text"],
  ["pages.9.blocks.0.title", "pages 10 blocks 1 title"],
])("says where %s is", (path, place) => {
  expect(sayProblems(FORM, [{ path, message: "this is wrong" }])).toBe(`${place}: this is wrong.`);
});
