// What is kept on the device: one place for each filling-in, however many windows, and what was sent is known after a reload.
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { FormFace, FormState, ReceivedReply } from "../api/generated/wire";
import { receivedReply } from "../testing/received";
import { answerStore } from "./kept_answers";
import { FormSession } from "./session";
import { type Answers, AwayError } from "./transport";

const WHAT = { page: "p1", seed: 4, key: "key-1", sending: false };

function storage(): Storage {
  const place = new Map<string, string>();
  return new Proxy({} as Storage, {
    ownKeys: () => [...place.keys()],
    getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
    get: (_target, name) =>
      ({
        getItem: (key: string) => place.get(key) ?? null,
        setItem: (key: string, text: string) => void place.set(key, text),
        removeItem: (key: string) => void place.delete(key),
      })[name as "getItem"],
  });
}

describe("unfinished answers", () => {
  let device: Storage;
  let tab: Storage;
  const open = (window = tab) =>
    answerStore(
      "form",
      () => device,
      () => window,
    );
  beforeEach(() => {
    vi.useFakeTimers();
    device = storage();
    tab = storage();
  });
  afterEach(() => vi.useRealTimers());

  it("are there after a reload, for a week", () => {
    const store = open();
    store.save({ answers: { n: "1" }, ...WHAT });
    store.leave();
    vi.clearAllTimers();
    expect(open().load()).toMatchObject({ answers: { n: "1" }, key: "key-1" });
    vi.clearAllTimers();
    vi.advanceTimersByTime(8 * 24 * 3_600_000);
    expect(open().load()).toBeNull();
  });

  it("are apart in two windows, which are told of each other, and both are kept", () => {
    const first = open();
    first.save({ answers: { n: "first" }, ...WHAT });
    const second = open(storage());
    expect([first.elsewhere, second.elsewhere, second.load()]).toEqual([false, true, null]);
    expect(second.visit).not.toBe(first.visit);
    second.save({ answers: { n: "second" }, ...WHAT });
    first.leave();
    vi.clearAllTimers();
    expect(open().load()?.answers).toEqual({ n: "first" });
  });

  it("of a window that is gone without a word are free after some seconds", () => {
    open().save({ answers: { n: "1" }, ...WHAT });
    vi.clearAllTimers();
    expect(open(storage()).load()).toBeNull();
    vi.clearAllTimers();
    vi.advanceTimersByTime(10_000);
    expect(open(storage()).load()?.answers).toEqual({ n: "1" });
  });

  it("of a copy of a window, or of the form twice on one page, are not shared", () => {
    const first = open(tab);
    first.save({ answers: { n: "1" }, ...WHAT });
    expect(open(tab).visit).not.toBe(first.visit);
  });

  it("are nowhere where that is forbidden, and nothing fails", () => {
    const forbidden = () => {
      throw new Error("no storage");
    };
    const store = answerStore("form", forbidden, forbidden);
    store.save({ answers: {}, ...WHAT });
    expect(store.load()).toBeNull();
    device.setItem("codexa-answers-form-x", "{no json");
    expect(open().load()).toBeNull();
  });

  it("that were being sent are asked for again under their key, and what came of them is shown", async () => {
    const face = { asks: [], wording: {}, presentation: "whole", pages: [] } as unknown as FormFace;
    const state: FormState = { path: [], blocks: {} };
    const sent: { answers: Answers; key: string }[] = [];
    const server = (reply: () => Promise<never> | Promise<ReceivedReply>) => ({
      state: () => Promise.resolve(state),
      submit: (answers: Answers, key: string) => {
        sent.push({ answers, key });
        return reply();
      },
    });
    const store = open();
    const session = new FormSession(
      face,
      { state },
      server(() => Promise.reject(new AwayError())),
      store,
    );
    session.change("n", "1");
    session.submit();
    await vi.advanceTimersByTimeAsync(10);
    store.leave();
    vi.clearAllTimers();
    const again = new FormSession(
      face,
      { state },
      server(() => Promise.resolve(receivedReply())),
      open(),
    );
    expect(again.read().phase).toBe("sending");
    await vi.advanceTimersByTimeAsync(10);
    expect(again.read()).toMatchObject({ phase: "received", received: { confirmation: { title: "Thank you" } } });
    expect(sent[1]).toEqual(sent[0]);
    expect(sent[0]!.answers).toEqual({ n: "1" });
  });
});
