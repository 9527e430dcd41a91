import { describe, expect, it } from "vitest";
import type { FormState } from "../../api/generated/wire";
import { answerIn, asked, caughtUp, type Entry, nextToAsk, withSums } from "./conversation";

const PATH = ["who", "many", "when"];
const nothingWrong = () => false;
const answered = (...steps: string[]): Entry[] => steps.map((step) => ({ kind: "answered", step }));
const steps = (entries: readonly Entry[]) =>
  entries.map((each) => (each.kind === "sum" ? each.text : `${each.kind} ${each.step}`));

describe("a conversation", () => {
  it("that is gone on with has what came before as said", () => {
    const first: Entry[] = [{ kind: "asked", step: "who" }];
    expect(steps(caughtUp(first, PATH, "when"))).toEqual(["asked who", "answered who", "asked many", "answered many"]);
    expect(caughtUp(first, PATH, "who")).toEqual(first);
    expect(caughtUp(first, PATH, "elsewhere")).toEqual(first);
  });

  it("asks the first that has no answer, or whose answer is wrong by now", () => {
    expect(nextToAsk(PATH, [], nothingWrong)).toBe("who");
    expect(nextToAsk(PATH, answered("who", "when"), nothingWrong)).toBe("many");
    expect(nextToAsk(PATH, answered(...PATH), (step) => step === "many")).toBe("many");
    expect(nextToAsk(PATH, answered(...PATH), nothingWrong)).toBeNull();
    // What applies no more is not asked, and what applies again was answered.
    expect(nextToAsk(["who"], answered("who"), () => true)).toBe("who");
    expect(nextToAsk(["who", "new", "when"], answered("who", "when"), nothingWrong)).toBe("new");
  });

  it("asks anew at its end, without what was said of it before", () => {
    const before: Entry[] = [
      { kind: "asked", step: "who" },
      { kind: "tried", step: "who", words: "nobody", reason: "Somebody must come." },
      { kind: "answered", step: "who" },
      { kind: "sum", of: "total", label: "Total", text: "€9" },
      { kind: "asked", step: "many" },
    ];
    expect(steps(asked(before, "who"))).toEqual(["€9", "asked many", "asked who"]);
  });

  it("tells a sum when it is another one, and not before", () => {
    const total = (text: string) => [{ of: "total", label: "Total", text }];
    const once = withSums([], total("€9"));
    expect(steps(once)).toEqual(["€9"]);
    expect(withSums(once, total("€9"))).toEqual(once);
    expect(steps(withSums(withSums(once, total("€12")), total("€9")))).toEqual(["€9", "€12", "€9"]);
  });

  it("tells one answer by its text alone, several by their labels", () => {
    const said = [
      { page: "who", title: "", answers: [{ label: "Who?", text: "Ana" }] },
      {
        page: "group",
        title: "",
        answers: [
          { label: "Adults", text: "2" },
          { label: "Children", text: "3" },
        ],
      },
    ];
    const state = { blocks: {}, path: [], said } as unknown as FormState;
    expect(answerIn(state, "who")).toEqual([{ label: "", text: "Ana" }]);
    expect(answerIn(state, "group").map(({ label }) => label)).toEqual(["Adults", "Children"]);
    expect(answerIn(state, "left out")).toEqual([]);
  });
});
