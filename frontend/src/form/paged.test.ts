import { beforeEach, describe, expect, it, vi } from "vitest";
import type { FormFace, FormState, RepeatFace } from "../api/generated/wire";
import { type Answer, type RowAnswer, shownKinds } from "../fields/input";
import { optionsOf } from "../fields/shown_options";
import { pageAt, segmentOf } from "./addresses";
import type { AnswerStore, Kept } from "./kept_answers";
import { FormSession } from "./session";
import type { Answers } from "./transport";

const field = (id: string) => ({ id, type: "short_text", label: id, width: "full" });
const face = {
  asks: ["n", "lines"],
  wording: { required: "Please answer this.", next: "Next", back: "Back", submit: "Send" },
  presentation: "paged",
  page_addresses: "names",
  welcome: null,
  pages: [
    { id: "p1", title: "One", address: "first", blocks: [field("n")] },
    { id: "p2", title: "Two", address: "", blocks: [field("two")] },
    {
      id: "p3",
      title: "Three",
      address: "last",
      blocks: [
        {
          id: "lines",
          type: "repeat",
          label: "Lines",
          width: "full",
          kinds: [{ id: "k", label: "Line", blocks: [field("what")] }],
        },
      ],
    },
  ],
} as unknown as FormFace;

const shown = (more: object = {}) => ({ shown: true, ...more });
const first: FormState = {
  path: ["p1", "p2", "p3"],
  blocks: { n: shown({ required: true }), two: shown({ fill: "as default" }), lines: shown({ rows: {} }) },
  fresh: { k: { what: shown({ required: true }) } },
};

function memory(kept: Partial<Kept> | null = null): AnswerStore & { saved: Omit<Kept, "at">[]; cleared: number } {
  const store = {
    visit: "v1",
    elsewhere: false,
    saved: [] as Omit<Kept, "at">[],
    cleared: 0,
    load: () =>
      kept ? ({ answers: {}, page: null, seed: 1, key: "k1", sending: false, at: Date.now(), ...kept } as Kept) : null,
    save: (each: Omit<Kept, "at">) => void store.saved.push(each),
    clear: () => void (store.cleared += 1),
  };
  return store;
}

function start(options: { store?: AnswerStore; reply?: Partial<FormState>; page?: string } = {}) {
  const asked: { answers: Answers; changed: readonly string[] | null }[] = [];
  const transport = {
    state: (answers: Answers, changed: readonly string[] | null) => {
      asked.push({ answers, changed });
      return Promise.resolve({ path: first.path, blocks: {}, ...options.reply } as FormState);
    },
    submit: () => Promise.reject(new Error("not sent here")),
  };
  const session = new FormSession(face, { state: first, page: options.page }, transport, options.store ?? null);
  return { session, asked };
}

const settle = () => vi.advanceTimersByTimeAsync(500);

describe("pages", () => {
  beforeEach(() => {
    vi.useFakeTimers();
  });

  it("are left only once nothing on them is wrong", async () => {
    const { session } = start();
    await session.next();
    expect(session.read()).toMatchObject({ page: "p1", tries: 1 });
    expect(session.errorOf("n")?.message).toBe("Please answer this.");
    session.change("n", "3");
    await session.next();
    expect(session.read().page).toBe("p2");
    session.back();
    expect(session.read()).toMatchObject({ page: "p1", answers: { n: "3" } });
  });

  it("can't be reached by an address before the way led there", async () => {
    const { session } = start();
    expect(session.visit("p3")).toBe("p1");
    session.change("n", "3");
    await session.next();
    expect(session.visit("p3")).toBe("p2");
    expect(session.visit("p1")).toBe("p1");
    expect(session.visit("gone")).toBe("p1");
  });

  it("wait for the server's word before they are left", async () => {
    const { session, asked } = start({
      reply: { blocks: { n: shown({ error: { code: "limits", message: "Less." } }) } },
    });
    session.change("n", "99");
    await session.next();
    expect(asked).toEqual([{ answers: expect.objectContaining({ n: "99" }) as Answers, changed: ["n"] }]);
    expect(session.read()).toMatchObject({ page: "p1" });
    expect(session.errorOf("n")?.message).toBe("Less.");
  });

  it("give way when they no longer apply", async () => {
    const { session } = start({ reply: { path: ["p1", "p3"] } });
    session.change("n", "3");
    await session.next();
    expect(session.read().page).toBe("p3");
  });

  it("have addresses of their own", () => {
    expect(face.pages.map((page) => segmentOf(face, page))).toEqual(["first", "2", "last"]);
    expect([pageAt(face, "2"), pageAt(face, "nothing")]).toEqual(["p2", null]);
    const numbered = { ...face, page_addresses: "numbers" };
    expect(face.pages.map((page) => segmentOf(numbered, page))).toEqual(["1", "2", "3"]);
    expect([pageAt(numbered, "first"), pageAt(face, "1"), pageAt(face, "")]).toEqual(["p1", "p1", null]);
  });
});

describe("answers", () => {
  beforeEach(() => {
    vi.useFakeTimers();
  });

  it("begin with defaults, which a visitor may change or empty", () => {
    const { session } = start();
    expect(session.read().answers).toEqual({ two: "as default" });
    session.change("two", null);
    expect(session.read().answers).toEqual({ two: null });
  });

  it("ask only for what changed since the last reply", async () => {
    const { session, asked } = start();
    session.change("n", "1");
    await settle();
    session.change("two", "quiet");
    session.change("n", "2");
    await settle();
    expect(asked.map((each) => each.changed)).toEqual([["n"], ["n"]]);
  });

  it("are put back after a reload, without those to fields that are gone, as far as they lead", async () => {
    const store = memory({ answers: { n: "3", gone: "x" }, page: "p2" });
    const { session, asked } = start({ store });
    await settle();
    expect(asked).toEqual([{ answers: { n: "3", two: "as default" }, changed: null }]);
    expect(session.read()).toMatchObject({ restored: true, page: "p2" });
    session.startAgain();
    expect(session.read().page).toBe("p1");
    await settle();
    expect(session.read()).toMatchObject({ restored: false, page: "p1" });
    expect(store.cleared).toBe(1);
  });

  it("are put back, and who has gone on before that is known stays there", async () => {
    const { session } = start({ store: memory({ answers: { n: "3" }, page: "p1" }) });
    const gone = session.next();
    await settle();
    await gone;
    expect(session.read()).toMatchObject({ restored: true, page: "p2" });
  });

  it("in rows know a new row's facts before the server has seen it", () => {
    const { session } = start();
    session.change("lines", [{ kind: "k", id: "r1", values: {} }] as unknown as Answer);
    const row = session.surroundings().row("lines", "r1");
    expect(row.factsOf("what")).toMatchObject({ shown: true, required: true });
    row.change("what", "M 31");
    const rows = session.read().answers.lines as unknown as RowAnswer[];
    expect(rows[0]!.values).toEqual({ what: "M 31" });
    row.leave("what");
    row.change("what", null);
    expect(row.errorOf("what")).toBe("Please answer this.");
  });

  it("in rows are named with values inserted", async () => {
    const what = shown({ required: true, texts: { label: "What, Ada?" } });
    const lines = shown({ rows: { r1: { blocks: { what } } }, kinds: { k: { label: "Line of Ada" } } });
    const { session } = start({ reply: { blocks: { lines } } });
    session.change("lines", [{ kind: "k", id: "r1", values: {} }] as unknown as Answer);
    await settle();
    expect(session.wrongOn(face.pages.slice(2)).map(({ address, label }) => [address, label])).toEqual([
      ["lines/r1/what", "1: What, Ada?"],
    ]);
    const repeat = face.pages[2]!.blocks[0] as RepeatFace;
    expect(shownKinds(repeat, session.read().state.blocks.lines)[0]!.label).toBe("Line of Ada");
  });
});

describe("options", () => {
  const block = {
    id: "b",
    shuffled: true,
    options: Array.from({ length: 8 }, (_each, at) => ({ id: `o${at}`, label: `${at}` })),
  };
  const order = (seed: number, facts = {}) => optionsOf(block, shown(facts), seed).map((option) => option.id);

  it("are shuffled alike for one visitor and differently for others", () => {
    expect(order(7)).toEqual(order(7));
    expect(new Set([1, 2, 3, 4].map((seed) => order(seed).join()))).toHaveProperty("size", 4);
    expect([...order(7)].sort()).toEqual(block.options.map((option) => option.id));
  });

  it("keep their order when some are not offered", () => {
    const some = ["o1", "o4", "o6"];
    expect(order(7, { options: some })).toEqual(order(7).filter((id) => some.includes(id)));
  });
});
