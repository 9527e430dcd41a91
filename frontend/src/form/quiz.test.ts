// A quiz tells what was right once; and answers that follow their default are never sent as the visitor's own.
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { FormFace, FormState } from "../api/generated/wire";
import { receivedReply } from "../testing/received";
import type { Kept } from "./kept_answers";
import { FormSession } from "./session";
import type { Answers } from "./transport";

const field = (id: string) => ({ id, type: "short_text", label: id, width: "full" });
const faceOf = (quiz: FormFace["quiz"]) =>
  ({
    asks: ["pole", "adults"],
    wording: { required: "Please answer this.", next: "Next", back: "Back", submit: "Send" },
    presentation: "paged",
    welcome: null,
    quiz,
    pages: [
      { id: "p1", title: "One", address: "", blocks: [field("pole"), field("adults"), field("badges")] },
      { id: "p2", title: "Two", address: "", blocks: [field("moons")] },
    ],
  }) as unknown as FormFace;

const FIRST = {
  path: ["p1", "p2"],
  blocks: { pole: { shown: true }, adults: { shown: true }, badges: { shown: true }, moons: { shown: true } },
} as unknown as FormState;
const RIGHT = { outcome: "right", words: "That is right." };

function start(quiz: FormFace["quiz"] = null, kept: Partial<Kept> | null = null) {
  const asked: { answers: Answers; checked: readonly string[] }[] = [];
  const sent: Answers[] = [];
  const store = { visit: "v", elsewhere: false, load: () => kept as Kept | null, save: vi.fn(), clear: vi.fn() };
  const transport = {
    state: (answers: Answers, _changed: readonly string[] | null, checked: readonly string[] = []) => {
      asked.push({ answers, checked });
      const told = Object.fromEntries(checked.map((id) => [id, { shown: true, feedback: RIGHT, locked: true }]));
      const adults = Number(answers.adults ?? 0);
      const follows = "badges" in answers ? {} : { follows: true, fill: String(adults * 2) };
      const blocks = { ...FIRST.blocks, badges: { shown: true, ...follows }, ...told };
      return Promise.resolve({ ...FIRST, blocks } as unknown as FormState);
    },
    submit: (answers: Answers) => {
      sent.push(answers);
      return Promise.resolve(receivedReply(""));
    },
  };
  const session = new FormSession(faceOf(quiz), { state: FIRST }, transport, store);
  return { session, asked, sent, store, now: () => session.read() };
}

const settle = () => vi.advanceTimersByTimeAsync(500);
beforeEach(() => void vi.useFakeTimers());

describe("a quiz that tells when a page is left", () => {
  const quiz = { when: "page", again: false, questions: ["pole", "moons"] } as const;

  it("stays once with what was right, and goes on at the next press", async () => {
    const { session, now, asked } = start({ ...quiz, questions: [...quiz.questions] });
    session.change("pole", "polaris");
    await settle();
    expect(asked.at(-1)!.checked).toEqual([]);
    await session.next();
    expect([now().page, now().told, now().state.blocks.pole?.feedback]).toEqual(["p1", ["pole"], RIGHT]);
    await session.next();
    expect([now().page, now().told]).toEqual(["p2", []]);
    // Nothing was answered here: there is nothing to tell.
    await session.submit();
    await settle();
    expect(now().phase).toBe("received");
  });

  it("tells of the last page before it is sent, and remembers over a reload what was told", async () => {
    const { session, now, store, sent } = start({ ...quiz, questions: [...quiz.questions] });
    await session.next();
    session.change("moons", "4");
    await session.submit();
    await settle();
    expect([now().phase, now().told, sent.length]).toEqual(["filling", ["moons"], 0]);
    const kept = store.save.mock.lastCall![0] as Kept;
    const again = start({ ...quiz, questions: [...quiz.questions] }, kept);
    await settle();
    expect(again.now().state.blocks.moons?.feedback).toEqual(RIGHT);
    await session.submit();
    await settle();
    expect(sent).toEqual([{ moons: "4" }]);
  });
});

describe("a quiz that tells at once", () => {
  const quiz = { when: "at_once" as const, again: true, questions: ["pole"] };

  it("is asked by its button, where there is an answer, and forgets it when that is changed", async () => {
    const { session, now, asked } = start(quiz);
    const check = () => session.surroundings().checkOf!("pole");
    expect([check(), session.surroundings().checkOf!("adults")]).toEqual([null, null]);
    session.change("pole", "vega");
    check()!();
    await settle();
    expect([asked.at(-1)!.checked, now().state.blocks.pole?.feedback]).toEqual([["pole"], RIGHT]);
    expect(check()).toBeNull();
    session.change("pole", "polaris");
    expect([now().checked.size, now().state.blocks.pole?.feedback]).toEqual([0, null]);
  });
});

describe("an answer that follows its default", () => {
  it("changes with what it reads until the visitor changes it, and is sent only then", async () => {
    const { session, now, asked } = start();
    session.change("adults", "3");
    await settle();
    expect([now().answers.badges, asked.at(-1)!.answers]).toEqual(["6", { adults: "3" }]);
    session.change("adults", "4");
    await settle();
    expect([now().answers.badges, session.ownAnswers()]).toEqual(["8", { adults: "4" }]);
    session.change("badges", "5");
    session.change("adults", "9");
    await settle();
    expect([now().answers.badges, session.ownAnswers()]).toEqual(["5", { adults: "9", badges: "5" }]);
  });

  it("stays the visitor's where the reply to an earlier question comes late", async () => {
    const { session, now } = start();
    session.change("adults", "3");
    await vi.advanceTimersByTimeAsync(180);
    session.change("badges", "1");
    await settle();
    expect(now().answers.badges).toBe("1");
  });
});
