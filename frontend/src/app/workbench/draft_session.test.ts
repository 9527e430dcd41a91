// Nothing is lost: one or two people on a draft, with a server that is away, slow, or answers and is not heard.
import fc from "fast-check";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { ApiError } from "../../api/client";
import type { Form, FormReply, SavedReply } from "../../api/generated/wire";
import { apply } from "../../model/draft";
import { newBlock } from "../../model/new_block";
import { partsOf } from "../../model/parts";
import { A_FORM, everyBlock } from "../../testing/a_form";
import { actionOf, anyDoing, anyForm } from "../../testing/any_form";
import { DraftSession, type DraftServer, PAUSE_MS, RETRY_MS } from "./draft_session";
import { draftStore, type DraftStore, type KeptDraft, type KeptSteps } from "./kept_draft";

type Trouble = "none" | "away" | "unheard" | "refused";

/** The server as a draft meets it: one revision after another, and whatever goes wrong on the way. */
class Server {
  states: Form[] = [A_FORM];
  savedBy = "";
  names = new Map<number, string>();
  trouble: Trouble[] = [];
  asked = 0;

  reply = (): FormReply =>
    ({
      id: "f",
      draft: structuredClone(this.states.at(-1)!),
      revision: this.states.length,
      changed_at: "",
      changed_by: this.savedBy,
      analysis: { findings: [] },
      changes: this.states.length - 1,
      live_edition: null,
      address: "/f/visit",
    }) as unknown as FormReply;

  as = (name: string): DraftServer => ({
    form: async () => {
      this.meet();
      return this.reply();
    },
    state: async (_id, revision) => ({ draft: structuredClone(this.states[revision - 1]!) }) as never,
    saveDraft: async (_id, revision, form) => {
      const unheard = this.meet() === "unheard";
      if (revision !== this.states.length) throw new ApiError("clash", "Somebody saved meanwhile.");
      this.states.push(structuredClone(form));
      this.savedBy = name;
      if (unheard) throw new ApiError("unreachable", "The server can't be reached.");
      return this.reply() as unknown as SavedReply;
    },
    publish: async () => ({ edition: 1, newest_edition: 1, address: "/f/visit" }) as never,
    goLive: async (_id, edition) => ({ edition, changes: 2 }) as never,
    nameState: async (_id, revision, name) => void this.names.set(revision, name) as never,
  });

  private meet(): Trouble {
    this.asked += 1;
    const trouble = this.trouble.shift() ?? "none";
    if (trouble === "away") throw new ApiError("unreachable", "The server can't be reached.");
    if (trouble === "refused") throw new ApiError("not_valid", "1.1 needs a key.");
    return trouble;
  }
}

/** A browser's storage that a test can look into. */
function memory(kept: KeptDraft | null = null): DraftStore & { kept: KeptDraft | null } {
  let steps: KeptSteps | null = null;
  const store = {
    kept,
    loadSteps: () => steps,
    saveSteps: (now: KeptSteps) => void (steps = now),
    load: () => store.kept,
    save: (now: KeptDraft) => void (store.kept = now),
    clear: () => void (store.kept = null),
  };
  return store;
}

const opened = (server: Server, name = "Mira", store: DraftStore = memory()): DraftSession =>
  new DraftSession(server.reply(), server.as(name), store);
const labelled = (session: DraftSession, block: string, label: string): void =>
  session.act({ do: "edit", parts: [block], changes: { label } });
const lastTold = (session: DraftSession): string | null => session.read().notices.at(-1)?.words ?? null;
const labelOf = (form: Form, id: string): unknown =>
  (everyBlock(form).find((block) => block.id === id) as { label?: string } | undefined)?.label;

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());
const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms);

describe("one person's draft", () => {
  it("is saved by itself once nothing was typed for a moment, as one save", async () => {
    const server = new Server();
    const session = opened(server);
    labelled(session, "adults", "G");
    await pass(PAUSE_MS - 100);
    labelled(session, "adults", "Grown-ups");
    expect(session.read()).toMatchObject({ saveState: "saving", dirty: true, canUndo: true });
    await pass(PAUSE_MS - 100);
    expect(server.asked).toBe(0);
    await pass(200);
    expect(server.states.map((form) => labelOf(form, "adults"))).toEqual(["adults", "Grown-ups"]);
    expect(session.read()).toMatchObject({ saveState: "saved", dirty: false, problem: null });
  });

  it("goes on being saved where something was typed while it was", async () => {
    const server = new Server();
    const session = opened(server);
    labelled(session, "adults", "One");
    const saving = session.saveNow();
    labelled(session, "note", "Two");
    expect(await saving).toBe(true);
    expect(labelOf(server.states.at(-1)!, "note")).toBe("Two");
  });

  it("is tried again until the server is back, and says so meanwhile", async () => {
    const server = new Server();
    server.trouble = ["away", "away"];
    const session = opened(server);
    labelled(session, "adults", "Guests");
    await pass(PAUSE_MS);
    expect(session.read()).toMatchObject({ saveState: "unreachable", problem: "The server can't be reached." });
    await pass(2 * RETRY_MS);
    expect(session.read()).toMatchObject({ saveState: "saved", problem: null });
    expect(labelOf(server.states.at(-1)!, "adults")).toBe("Guests");
  });

  it("is not taken for somebody else's where a save arrived and was not heard of", async () => {
    const server = new Server();
    server.trouble = ["unheard"];
    const session = opened(server);
    labelled(session, "adults", "Guests");
    await pass(PAUSE_MS + RETRY_MS);
    expect(session.read()).toMatchObject({ saveState: "saved", notices: [], clash: null });
    expect(server.states).toHaveLength(2);
  });

  it("undone after a save that arrived unheard is undone on the server too", async () => {
    const server = new Server();
    server.trouble = ["unheard"];
    const session = opened(server);
    labelled(session, "adults", "Guests");
    await pass(PAUSE_MS);
    session.undo();
    expect(session.read().dirty).toBe(true);
    await pass(2 * RETRY_MS);
    expect(session.read()).toMatchObject({ saveState: "saved", dirty: false });
    expect(labelOf(server.states.at(-1)!, "adults")).toBe("adults");
  });

  it("that the server refuses says why, and is not published", async () => {
    const server = new Server();
    server.trouble = ["refused"];
    const session = opened(server);
    labelled(session, "adults", "Guests");
    await expect(session.publish()).rejects.toThrow("could not be saved");
    expect(session.read()).toMatchObject({ saveState: "refused", problem: "1.1 needs a key." });
    expect(await session.publish()).toBe(1);
    expect(session.read().saved).toMatchObject({ liveEdition: 1, changes: 0 });
  });

  it("that is left is saved at once, and kept until it is", async () => {
    const server = new Server();
    server.trouble = ["away"];
    const store = memory();
    const session = opened(server, "Mira", store);
    labelled(session, "adults", "Guests");
    session.close();
    expect(labelOf(store.kept!.form, "adults")).toBe("Guests");
    await pass(0);
    expect(server.asked).toBe(1);
    await pass(RETRY_MS);
    expect(labelOf(server.states.at(-1)!, "adults")).toBe("Guests");
    expect(store.kept).toBeNull();
  });
});

describe("undo", () => {
  it("says what it would do and did, and where", () => {
    const session = opened(new Server());
    labelled(session, "adults", "Guests");
    expect(session.wouldDo("undo")).toMatch(/^Undo: label of .* back to “adults”\.$/);
    expect(session.undo()).toEqual(["adults"]);
    expect(lastTold(session)).toMatch(/^Undone: label of /);
    session.act({ do: "remove", parts: ["adults"] });
    expect(session.undo()).toEqual(["adults"]);
    expect(lastTold(session)).toMatch(/is there again\.$/);
    expect(session.redo()).toEqual([]);
  });

  it("outlives a reload, also where somebody else has saved since", async () => {
    const server = new Server();
    const store = memory();
    const before = opened(server, "Mira", store);
    labelled(before, "adults", "One");
    await pass(2_000);
    labelled(before, "note", "Two");
    before.act({ do: "remove", parts: ["teacher"] });
    await pass(2_000);
    before.close();
    server.states.push(apply(server.states.at(-1)!, { do: "edit_form", changes: { title: "Theirs" } }));
    const session = opened(server, "Mira", store);
    await session.open();
    expect(session.read()).toMatchObject({ canUndo: true, dirty: false, notices: [] });
    for (let at = 0; at < 3; at += 1) session.undo();
    const { form } = session.read();
    expect({ ...form, title: A_FORM.title }).toEqual(A_FORM);
    expect([form.title, session.read().canUndo]).toEqual(["Theirs", false]);
  });
});

describe("what an earlier visit could not save", () => {
  const kept = (form: Form): KeptDraft => ({ revision: 1, form });
  const mine = apply(A_FORM, { do: "edit", parts: ["adults"], changes: { label: "Guests" } });

  it("comes back with what others saved since, and is saved", async () => {
    const server = new Server();
    const theirs = apply(A_FORM, { do: "edit", parts: ["note"], changes: { label: "Wishes" } });
    server.states.push(theirs);
    const session = opened(server, "Mira", memory(kept(mine)));
    await session.open();
    expect(lastTold(session)).toBe("Changes that had not been saved were brought back.");
    await pass(PAUSE_MS);
    const now = server.states.at(-1)!;
    expect([labelOf(now, "adults"), labelOf(now, "note")]).toEqual(["Guests", "Wishes"]);
  });

  it("says nothing where it had arrived after all", async () => {
    const server = new Server();
    server.states.push(mine);
    const store = memory(kept(mine));
    const session = opened(server, "Mira", store);
    await session.open();
    expect(session.read()).toMatchObject({ notices: [], dirty: false });
    expect(store.kept).toBeNull();
  });

  it("stays kept where the server can't be asked what it was made from", async () => {
    const server = new Server();
    const store = memory(kept(mine));
    const away = { ...server.as("Mira"), state: () => Promise.reject(new ApiError("unreachable", "No server.")) };
    const session = new DraftSession(server.reply(), away, store);
    await session.open();
    expect([lastTold(session), session.read().dirty]).toEqual([null, false]);
    expect(labelOf(store.kept!.form, "adults")).toBe("Guests");
  });

  it("is no reason to fail where the browser keeps nothing, or nonsense", async () => {
    const refusing = draftStore("f", "mira", () => {
      throw new Error("no storage here");
    });
    refusing.save(kept(mine));
    refusing.clear();
    expect(refusing.load()).toBeNull();
    const broken = draftStore("f", "mira", () => ({ getItem: () => "{" }) as unknown as Storage);
    expect(broken.load()).toBeNull();
    const session = opened(new Server(), "Mira", broken);
    await session.open();
    expect(lastTold(session)).toBeNull();
  });
});

describe("two people on one draft", () => {
  it("both keep what they did, and are told of each other", async () => {
    const server = new Server();
    const [mira, jonas] = [opened(server, "Mira"), opened(server, "Jonas")];
    labelled(mira, "adults", "Guests");
    await pass(PAUSE_MS);
    labelled(jonas, "note", "Wishes");
    await pass(2 * PAUSE_MS);
    expect(lastTold(jonas)).toBe("Mira saved changes too (state 2); theirs and yours are both kept.");
    mira.catchUp(server.states.length);
    await pass(0);
    expect([lastTold(mira), mira.read().dirty]).toEqual(["Jonas saved changes; you see them now, as state 3.", false]);
    for (const { form } of [mira.read(), jonas.read()])
      expect([labelOf(form, "adults"), labelOf(form, "note")]).toEqual(["Guests", "Wishes"]);
  });

  it.each(["mine", "theirs"] as const)("who changed the same are asked, and %s is kept", async (choice) => {
    const server = new Server();
    const [mira, jonas] = [opened(server, "Mira"), opened(server, "Jonas")];
    labelled(mira, "adults", "Guests");
    await pass(PAUSE_MS);
    labelled(jonas, "adults", "Grown-ups");
    labelled(jonas, "note", "Wishes");
    await pass(2 * PAUSE_MS);
    expect(jonas.read()).toMatchObject({ saveState: "clash", clash: { what: [{ owner: "adults", path: "label" }] } });
    const asked = server.asked;
    await pass(5 * RETRY_MS);
    expect(server.asked).toBe(asked);
    jonas.settle(choice);
    await pass(PAUSE_MS);
    const now = server.states.at(-1)!;
    expect(labelOf(now, "adults")).toBe(choice === "mine" ? "Grown-ups" : "Guests");
    expect(labelOf(now, "note")).toBe("Wishes");
    expect(jonas.read()).toMatchObject({ saveState: "saved", clash: null });
    // What was mine and did not stay is a state of its own.
    const aside = [...server.names.keys()].map((revision) => labelOf(server.states[revision - 1]!, "adults"));
    expect(aside).toEqual(choice === "mine" ? [] : ["Grown-ups"]);
  });

  it("who moved and worded different things of one block are asked nothing", async () => {
    const server = new Server();
    const [mira, jonas] = [opened(server, "Mira"), opened(server, "Jonas")];
    labelled(mira, "adults", "Guests");
    mira.act({ do: "edit", parts: ["adults"], changes: { help: "All of them" } });
    await pass(PAUSE_MS);
    jonas.act({ do: "edit", parts: ["adults"], changes: { required: "TRUE" } });
    await pass(2 * PAUSE_MS);
    const now = everyBlock(server.states.at(-1)!).find(({ id }) => id === "adults");
    expect(now).toMatchObject({ label: "Guests", help: "All of them", required: "TRUE" });
    expect(jonas.read().clash).toBeNull();
  });

  it("undo leaves what the other changed since, and says so", async () => {
    const server = new Server();
    const [mira, jonas] = [opened(server, "Mira"), opened(server, "Jonas")];
    labelled(mira, "adults", "Guests");
    await pass(2 * PAUSE_MS);
    jonas.catchUp(server.states.length);
    await pass(0);
    labelled(jonas, "adults", "Grown-ups");
    await pass(2 * PAUSE_MS);
    mira.catchUp(server.states.length);
    await pass(0);
    mira.undo();
    expect(labelOf(mira.read().form, "adults")).toBe("Grown-ups");
    expect(lastTold(mira)).toBe("Somebody else has changed label of 2.1 Grown-ups since; that stays.");
  });

  it("undo what they did themselves, and nothing of the other", async () => {
    const server = new Server();
    const [mira, jonas] = [opened(server, "Mira"), opened(server, "Jonas")];
    labelled(mira, "adults", "Guests");
    await pass(PAUSE_MS);
    labelled(jonas, "note", "Wishes");
    await pass(3 * PAUSE_MS);
    jonas.undo();
    await pass(2 * PAUSE_MS);
    const now = server.states.at(-1)!;
    expect([labelOf(now, "adults"), labelOf(now, "note")]).toEqual(["Guests", "note"]);
  });
});

/** What happens next: somebody labels or adds a block of their own, time passes, somebody hears of the other. */
const anyEvent = fc.oneof(
  fc.record({ who: fc.nat(1), does: fc.constant("label" as const), which: fc.nat(1) }),
  fc.record({ who: fc.nat(1), does: fc.constantFrom("add" as const, "hear" as const, "undo" as const) }),
  fc.record({ passes: fc.integer({ min: 1, max: RETRY_MS }) }),
);
const anyTrouble = fc.array(fc.constantFrom<Trouble>("none", "none", "away", "unheard"), { maxLength: 12 });
const OWN = [
  ["name", "teacher"],
  ["note", "adults"],
] as const;

it("whatever happens in whatever order, all that two people did to blocks of their own is there in the end", async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(anyEvent, { maxLength: 24 }), anyTrouble, async (events, trouble) => {
      const server = new Server();
      server.trouble = [...trouble];
      const people = [opened(server, "Mira"), opened(server, "Jonas")];
      const added: (string | null)[][] = [[], []];
      const labels: Record<string, string[]> = {};
      const steps: (() => void)[][] = [[], []];
      for (const [at, event] of events.entries()) {
        if ("passes" in event) {
          await pass(event.passes);
          continue;
        }
        const session = people[event.who]!;
        // Typing on within a moment is one step; here every step is to be one.
        await pass(1_300);
        if (event.does === "label") {
          const block = OWN[event.who]![event.which]!;
          (labels[block] ??= [block]).push(`${block} ${at}`);
          labelled(session, block, `${block} ${at}`);
          steps[event.who]!.push(() => labels[block]!.pop());
        } else if (event.does === "add") {
          const block = { ...newBlock(session.read().form, "number"), id: `new${at}` };
          session.act({ do: "add", parts: [block], into: { holder: "p2", list: "blocks" }, at: 0 });
          added[event.who]!.push(block.id);
          steps[event.who]!.push(() => added[event.who]!.pop());
        } else if (event.does === "undo") {
          if (session.read().canUndo) steps[event.who]!.pop()?.();
          session.undo();
        } else session.catchUp(server.states.length);
      }
      server.trouble = [];
      await pass(4 * RETRY_MS);
      for (const session of people) session.catchUp(server.states.length);
      await pass(4 * RETRY_MS);
      const end = server.states.at(-1)!;
      for (const [block, told] of Object.entries(labels)) expect(labelOf(end, block)).toBe(told.at(-1));
      const ids = everyBlock(end).map(({ id }) => id);
      expect(ids.filter((id) => id.startsWith("new")).sort()).toEqual(added.flat().sort());
      for (const session of people) {
        expect(session.read()).toMatchObject({ saveState: "saved", dirty: false, clash: null, problem: null });
        expect(session.read().form).toEqual(end);
      }
    }),
    { numRuns: 60 },
  );
});

/** What happens next to two people who do anything at all: with pauses, and hearing of each other now and then. */
const anyStep = fc.oneof(
  fc.record({ who: fc.nat(1), doing: anyDoing }),
  fc.record({ who: fc.nat(1), does: fc.constantFrom("hear" as const, "undo" as const, "redo" as const) }),
  fc.record({ passes: fc.integer({ min: 1, max: RETRY_MS }) }),
);

it("whatever two people do to any form, both come to the same, and all of it is there or was asked about", async () => {
  await fc.assert(
    fc.asyncProperty(anyForm, fc.array(anyStep, { maxLength: 20 }), anyTrouble, async (form, steps, trouble) => {
      const server = new Server();
      server.states = [form];
      server.trouble = [...trouble];
      const people = [opened(server, "Mira"), opened(server, "Jonas")];
      const settled: string[] = [];
      const settle = () => {
        for (const session of people) {
          const { clash } = session.read();
          settled.push(...(clash?.what.map(({ owner }) => owner) ?? []));
          session.settle((each) => (each.path.length % 2 ? "mine" : "theirs"));
        }
      };
      const added = new Set<string>();
      const takenBack = new Set<string>();
      for (const step of steps) {
        if ("passes" in step) {
          await pass(step.passes);
          settle();
          continue;
        }
        const session = people[step.who]!;
        const before = new Set(partsOf(session.read().form).keys());
        if ("doing" in step) {
          const action = actionOf(session.read().form, step.doing);
          if (action) session.act(action);
        } else if (step.does === "hear") session.catchUp(server.states.length);
        else session[step.does]();
        const after = new Set(partsOf(session.read().form).keys());
        for (const id of after) if (!before.has(id)) added.add(id);
        // What is taken away by hand (or by undoing) may be gone in the end; nothing else may.
        for (const id of before) if (!after.has(id)) takenBack.add(id);
      }
      server.trouble = [];
      for (let round = 0; round < 4; round += 1) {
        await pass(3 * RETRY_MS);
        settle();
        for (const session of people) session.catchUp(server.states.length);
      }
      await pass(4 * RETRY_MS);
      const end = server.states.at(-1)!;
      const there = new Set(partsOf(end).keys());
      const lost = [...partsOf(form).keys(), ...added].filter((id) => !there.has(id) && !takenBack.has(id));
      expect(lost.filter((id) => !settled.includes(id))).toEqual([]);
      for (const session of people) {
        expect(session.read()).toMatchObject({ saveState: "saved", dirty: false, clash: null });
        expect(session.read().form).toEqual(end);
      }
    }),
    { numRuns: 80 },
  );
});
