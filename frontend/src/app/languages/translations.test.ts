// What a text reads in another language, by the draft and by what the core said of it.
import { describe, expect, it } from "vitest";
import type { TextToTranslate } from "../../api/generated/wire";
import { byOwner, type Language, sameElsewhere, shownOf, withTexts } from "./translations";

const text = (at: string, changes: Partial<TextToTranslate> = {}): TextToTranslate => ({
  at,
  owner: at.split(".")[0]!,
  what: "label",
  source: "Adults",
  how: "text",
  has_words: true,
  text: "",
  of: "",
  standing: "missing",
  lost: [],
  unknown: [],
  same: "",
  ...changes,
});
const german = (texts: Language["texts"] = {}): Language => ({ locale: "de", texts });

describe("a translation", () => {
  it("is the draft's as long as the words are those it was made of, else what the core knows", () => {
    const moved = text("a.label", { text: "Erwachsene", standing: "done" });
    expect(shownOf(moved, german())).toEqual({ text: "Erwachsene", standing: "done" });
    const written = german({ "a.label": { of: "Adults", text: "Große" } });
    expect(shownOf(moved, written)).toEqual({ text: "Große", standing: "done" });
    const emptied = german({ "a.label": { of: "Adults", text: "" } });
    expect(shownOf(moved, emptied)).toEqual({ text: "", standing: "missing" });
    const older = text("a.label", { text: "Alt", of: "Grown-ups", standing: "changed" });
    expect(shownOf(older, german({ "a.label": { of: "Grown-ups", text: "Alt" } })).standing).toBe("changed");
  });

  it("goes into its language alone", () => {
    const french: Language = { locale: "fr", texts: {} };
    const [de, fr] = withTexts([german({ b: { of: "B", text: "b" } }), french], "de", { a: { of: "A", text: "a" } });
    expect(Object.keys(de!.texts)).toEqual(["b", "a"]);
    expect(fr).toBe(french);
  });

  it("of the same words elsewhere fills in what is missing, and nothing else", () => {
    const texts = [text("a.label", { same: "Erwachsene" }), text("b.label", { same: "Erwachsene" }), text("c.label")];
    const found = sameElsewhere(texts, german({ "b.label": { of: "Adults", text: "Große" } }));
    expect(found).toEqual({ "a.label": { of: "Adults", text: "Erwachsene" } });
  });

  it("stands with what it belongs to, in the order of the form", () => {
    const found = byOwner([text("b.label"), text("a.label"), text("b.help")]);
    expect(found.map(([owner, texts]) => [owner, texts.length])).toEqual([
      ["b", 2],
      ["a", 1],
    ]);
  });
});
