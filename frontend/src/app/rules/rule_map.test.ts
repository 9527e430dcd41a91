import { KINDS } from "../follow_ups/kinds";
import { gridOf } from "./grid";
import { describe, expect, it } from "vitest";
import type { Form, Note, OutcomeReply, Words } from "../../api/generated/wire";
import { apply } from "../../model/draft";
import { newConfirmation } from "../../model/new_block";
import { FORM, partsOf } from "../../model/parts";
import { A_FIGURE, A_FORM } from "../../testing/a_form";
import { litBy, ruleMap, THE_END, USUAL_END } from "./rule_map";
import { fitsFilter, groupsOf, nowWords, rulesOf } from "./rules";

const words = (...pieces: (string | [string])[]): Words[] =>
  pieces.map((piece) =>
    typeof piece === "string"
      ? { text: piece, block: null, code: false, strong: false }
      : { text: "", block: piece[0], code: false, strong: false },
  );

const note = (setting: string, reads: string[], said: Words[], more: Partial<Note> = {}): Note => ({
  condition: true,
  fact: setting.split(".")[0]!,
  kind: "rule",
  reads,
  setting,
  type: "boolean",
  words: said,
  ...more,
});

// The school is shown for more than 12 adults; page 1 leads to page 2 for a teacher; the total reads the adults.
const NOTES: Record<string, Note[]> = {
  school: [
    note(
      "shown",
      ["adults", "note"],
      words("shown", " when ", ["adults"], " is more than 12", " and ", ["note"], " is answered"),
    ),
  ],
  p1: [
    note("next.0.when", ["teacher"], words("goes on to ", ["p2"], " when ", ["teacher"], " is answered"), {
      fact: "next",
    }),
  ],
  phone: [note("required", [], words("must be answered"), { fact: "required" })],
  festival: [
    note("when", ["total"], words("follows", " when ", "the label of ", ["total"], " is more than 500"), {
      fact: "confirmation",
    }),
  ],
  total: [note("formula", ["adults"], words("= ", ["adults"], " × 2"), { condition: false, kind: "calculation" })],
};

const withFigure = apply(A_FORM, { do: "add", parts: [A_FIGURE], into: { holder: FORM, list: "figures" }, at: 0 });
const festival = { ...newConfirmation("A festival"), id: "festival", when: "total > 500" };
const form = apply(withFigure, {
  do: "add",
  parts: [festival],
  into: { holder: FORM, list: "confirmations" },
  at: 0,
});
const parts = partsOf(form);

describe("rules", () => {
  it("are conditions that read something, told by the page they act on", () => {
    const rules = rulesOf(parts, NOTES);
    expect(rules.map(({ owner, fact }) => `${owner.id} ${fact}`)).toEqual([
      "p1 next",
      "school shown",
      "festival confirmation",
    ]);
    expect(groupsOf(rules, parts).map(({ title, rules }) => `${title}: ${rules.length}`)).toEqual([
      "Page 1 · One: 2",
      "Confirmations, the first that holds: 1",
    ]);
  });

  it.each([
    [{ search: "MORE THAN", reads: "", fact: "" }, ["school", "festival"]],
    [{ search: "2.1 adults", reads: "", fact: "" }, ["school"]],
    [{ search: "", reads: "teacher", fact: "" }, ["p1"]],
    [{ search: "", reads: "adults", fact: "confirmation" }, []],
    [{ search: "", reads: "", fact: "shown" }, ["school"]],
  ])("are found by what they say, read and do: %o", (filter, expected) => {
    const found = rulesOf(parts, NOTES).filter((rule) => fitsFilter(rule, filter, parts));
    expect(found.map(({ owner }) => owner.id)).toEqual(expected);
  });
});

describe("what answers make of a rule", () => {
  const outcome = (holds: boolean | undefined, values: Record<string, string>) =>
    ({ values, holding: holds === undefined ? {} : { school: { shown: holds } } }) as unknown as OutcomeReply;
  const note = NOTES["school"]!.find(({ fact }) => fact === "shown")!;

  it.each([
    [outcome(true, { adults: "64" }), "now 64: holds"],
    [outcome(false, { adults: "" }), "now: does not hold"],
    [outcome(undefined, { adults: "64" }), "not looked at now"],
    [undefined, ""],
  ])("is told with what it reads", (found, words) => {
    expect(nowWords("school", note, found)).toBe(words);
  });

  it("is told of rules alone", () => {
    const limit: Note = { ...note, condition: false, fact: "", setting: "limits", reads: [] };
    expect(nowWords("school", limit, outcome(true, {}))).toBe("");
  });
});

describe("the map of rules", () => {
  const map = ruleMap(form, parts, NOTES);
  const arrows = map.arrows.map(({ from, kind, to, label }) => `${from} ${kind} ${to}${label && `: ${label}`}`);

  it("has the pages, the confirmations and what rules act on or read, and nothing else", () => {
    expect(map.boxes.map(({ id }) => id)).toEqual(
      ["p1", "school", "teacher", "note", "p2", "adults", "c1", "festival", "total"].sort(
        (one, other) => [...parts.keys()].indexOf(one) - [...parts.keys()].indexOf(other),
      ),
    );
  });

  it("draws the order of pages, what stands in groups, and each rule with its words", () => {
    expect(arrows).toEqual(
      [
        "p1 following p2",
        "p2 following festival",
        "p2 following c1",
        "school holds teacher",
        "p1 leads p2: 1.2.1 teacher is answered",
        "adults rule school: is more than 12",
        "note rule school: is answered",
        "total rule festival: is more than 500",
        "adults rule total",
      ].sort((one, other) => arrows.indexOf(one) - arrows.indexOf(other)),
    );
  });

  it("gives every box a cell of its own, follow-ups beside the confirmations", () => {
    const mail = { ...KINDS.email.made(), id: "mail" };
    const mailing = apply(form, { do: "add", parts: [mail], into: { holder: FORM, list: "follow_ups" }, at: 0 });
    const only = note("only_when", ["adults"], words("done when ", ["adults"], " is more than 3"), {
      fact: "follow_up",
    });
    const drawn = ruleMap(mailing, partsOf(mailing), { ...NOTES, mail: [only] });
    const { cells } = gridOf(drawn, 3);
    expect(new Set(drawn.boxes.map(({ id }) => JSON.stringify(cells.get(id)))).size).toBe(drawn.boxes.length);
    expect(cells.get("mail")!.row).toBe(cells.get("c1")!.row);
  });

  it("ends with the form's usual words where no confirmation always follows", () => {
    const without = apply(form, { do: "remove", parts: ["c1"] });
    const { boxes, arrows } = ruleMap(without, partsOf(without), NOTES);
    expect(boxes.at(-1)!.id).toBe(USUAL_END);
    expect(arrows.filter(({ to }) => to === USUAL_END).map(({ from }) => from)).toEqual(["p2"]);
  });

  it("has an end of its own where a rule ends the form early, and lights the way over it", () => {
    const ending = apply(form, {
      do: "edit",
      parts: ["p1"],
      changes: { next: [{ when: "ISBLANK(teacher)", to: "" }] },
    });
    const notes = {
      ...NOTES,
      p1: [
        note("next.0.when", ["teacher"], words("goes to the end when ", ["teacher"], " is blank"), { fact: "next" }),
      ],
    };
    const drawn = ruleMap(ending, partsOf(ending), notes);
    const arrows = drawn.arrows.filter(({ from, to }) => from === THE_END || to === THE_END);
    expect(arrows.map(({ kind, from, to, label }) => [kind, from, to, label])).toEqual([
      ["following", "p2", THE_END, ""],
      ["following", THE_END, "festival", ""],
      ["following", THE_END, "c1", ""],
      ["leads", "p1", THE_END, "1.2.1 teacher is blank"],
    ]);
    const early = { path: ["p1"], confirmation: "c1" };
    const reply = { outcome: early, holding: { p1: { "next.0.when": true } }, values: {}, charts: {} };
    const lit = litBy(drawn, reply as unknown as OutcomeReply, () => true);
    expect(arrows.map(({ id }) => lit.has(id))).toEqual([false, false, true, true]);
  });

  describe("with answers tried", () => {
    const lit = (form: Form, outcome: object, holding: object) => {
      const reply = { outcome, holding, values: { total: "30" }, charts: {} } as unknown as OutcomeReply;
      const drawn = ruleMap(form, partsOf(form), NOTES);
      return [...litBy(drawn, reply, (id) => id !== "school")];
    };

    it("lights the way that was gone and the rules that held", () => {
      const found = lit(form, { path: ["p1", "p2"], confirmation: "c1" }, { p1: { "next.0.when": true } });
      const expected = ["p1", "p2", "c1", "teacher", "note", "adults", "total"];
      expect(found.filter((id) => parts.has(id)).sort()).toEqual(expected.sort());
      expect(found.filter((id) => !parts.has(id))).toEqual([
        "following p1 p2 ",
        "following p2 c1 ",
        "leads p1 p2 1.2.1 teacher is answered",
        "rule adults total ",
      ]);
    });

    it("lights nothing before there is an outcome", () => {
      expect(litBy(map, undefined, () => true).size).toBe(0);
    });
  });
});

describe("a rule that speaks twice of one answer", () => {
  const labelOf = (joined: string) => {
    const said = words("shown", " when ", ["adults"], " is less than 3", joined, ["adults"], " is more than 9");
    const map = ruleMap(A_FORM, partsOf(A_FORM), { school: [note("shown", ["adults"], said)] });
    return map.arrows.find(({ from, to }) => from === "adults" && to === "school")!.label;
  };

  it("says both, joined as the rule joins them", () => {
    expect(labelOf(" and ")).toBe("is less than 3 and is more than 9");
    expect(labelOf(", or ")).toBe("is less than 3 or is more than 9");
  });
});
