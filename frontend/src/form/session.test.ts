import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { FormFace, FormState, ReceivedReply } from "../api/generated/wire";
import { receivedReply } from "../testing/received";
import { say } from "../text/visitor";
import { FormSession } from "./session";
import { type Answers, AwayError, RefusedError } from "./transport";

const face = {
  asks: ["people"],
  wording: { required: "Please answer this." },
  presentation: "whole",
  pages: [
    {
      id: "p1",
      title: "",
      blocks: ["people", "name", "price"].map((id) => ({ id, type: "short_text", label: id, width: "full" })),
    },
  ],
} as unknown as FormFace;
const state = (value: string): FormState => ({
  path: ["p1"],
  blocks: {
    people: { shown: true, required: true, value: null, error: null },
    name: { shown: true, required: true, value: null, error: null },
    price: { shown: true, required: false, value, error: null },
  },
});

type Reply<Value> = { resolve: (value: Value) => void; reject: (error: Error) => void; answers: Answers; key?: string };

/** A server whose replies the test gives when it likes. */
function fakeServer() {
  const asked: Reply<FormState>[] = [];
  const sent: Reply<ReceivedReply>[] = [];
  return {
    asked,
    sent,
    state: (answers: Answers) => new Promise<FormState>((resolve, reject) => asked.push({ resolve, reject, answers })),
    submit: (answers: Answers, key: string) =>
      new Promise<ReceivedReply>((resolve, reject) => sent.push({ resolve, reject, answers, key })),
  };
}

const settle = () => vi.advanceTimersByTimeAsync(0);
const price = (session: FormSession) => session.read().state.blocks.price!.value;

describe("a visitor's session", () => {
  let server: ReturnType<typeof fakeServer>;
  let session: FormSession;
  beforeEach(() => {
    vi.useFakeTimers();
    server = fakeServer();
    session = new FormSession(face, { state: state("0") }, server);
  });
  afterEach(() => vi.useRealTimers());

  it("asks once after a pause in typing, and never for what nothing depends on", async () => {
    for (const text of ["1", "12", "120"]) session.change("people", text);
    session.change("name", "Ingrid");
    await vi.advanceTimersByTimeAsync(1000);
    expect(server.asked.map((each) => each.answers.people)).toEqual(["120"]);
  });

  it("shows the newest state, whatever order the replies come in", async () => {
    session.change("people", "1");
    await vi.advanceTimersByTimeAsync(300);
    session.change("people", "2");
    await vi.advanceTimersByTimeAsync(300);
    server.asked[1]!.resolve(state("new"));
    await settle();
    server.asked[0]!.resolve(state("old"));
    await settle();
    expect(price(session)).toBe("new");
  });

  it("says that the server is away, tries again by itself, and recovers", async () => {
    session.change("people", "1");
    await vi.advanceTimersByTimeAsync(300);
    server.asked[0]!.reject(new AwayError());
    await settle();
    expect(session.read()).toMatchObject({ line: "away", answers: { people: "1" } });
    await vi.advanceTimersByTimeAsync(1000);
    server.asked[1]!.resolve(state("back"));
    await settle();
    expect(session.read().line).toBe("fine");
    expect(price(session)).toBe("back");
  });

  it("does not wait when the connection comes back", async () => {
    session.change("people", "1");
    await vi.advanceTimersByTimeAsync(300);
    server.asked[0]!.reject(new AwayError());
    await settle();
    session.hurry();
    await settle();
    expect(server.asked).toHaveLength(2);
  });

  it("goes on from Next once the connection is back, also where it was away when Next was pressed", async () => {
    session.change("people", "1");
    const going = session.next();
    server.asked[0]!.reject(new AwayError());
    await settle();
    expect(session.read()).toMatchObject({ waiting: true, line: "away" });
    session.hurry();
    await settle();
    server.asked[1]!.resolve(state("back"));
    await going;
    expect(session.read()).toMatchObject({ waiting: false, line: "fine" });
  });

  it("leaves nobody waiting who types on while it is away", async () => {
    session.change("people", "1");
    const going = session.next();
    server.asked[0]!.reject(new AwayError());
    await settle();
    session.change("people", "12");
    await vi.advanceTimersByTimeAsync(300);
    expect(server.asked.at(-1)!.answers.people).toBe("12");
    server.asked.at(-1)!.resolve(state("back"));
    await going;
    expect(session.read().waiting).toBe(false);
  });

  it("says so when an answer takes long, and asks no more by itself after many tries", async () => {
    session.change("people", "1");
    await vi.advanceTimersByTimeAsync(300);
    await vi.advanceTimersByTimeAsync(8_000);
    expect(session.read().line).toBe("slow");
    for (let tries = 0; tries < 7; tries++) {
      server.asked.at(-1)!.reject(new AwayError());
      await vi.advanceTimersByTimeAsync(15_000);
    }
    expect(session.read()).toMatchObject({ line: "lost", answers: { people: "1" } });
    expect(server.asked).toHaveLength(7);
    session.hurry();
    await settle();
    server.asked[7]!.resolve(state("back"));
    await settle();
    expect(session.read().line).toBe("fine");
  });

  it("lets people go on when sending does not get through, and sends it again under the same key", async () => {
    session.submit();
    for (let tries = 0; tries < 7; tries++) {
      server.sent.at(-1)!.reject(new AwayError());
      await vi.advanceTimersByTimeAsync(15_000);
    }
    expect(session.read()).toMatchObject({ phase: "filling", refusal: say("lostSending") });
    session.submit();
    expect(new Set(server.sent.map((each) => each.key)).size).toBe(1);
  });

  it("sends once however often the button is pressed, and again under the same key after a lost reply", async () => {
    session.submit();
    session.submit();
    expect(server.sent).toHaveLength(1);
    server.sent[0]!.reject(new AwayError());
    await vi.advanceTimersByTimeAsync(1000);
    expect(server.sent.map((each) => each.key)).toEqual([server.sent[0]!.key, server.sent[0]!.key]);
    server.sent[1]!.resolve(receivedReply());
    await settle();
    expect(session.read().phase).toBe("received");
  });

  it("does not go on without files that have not arrived", () => {
    session.waitFor(1);
    session.submit();
    expect(server.sent).toHaveLength(0);
    expect(session.read()).toMatchObject({ phase: "filling", refusal: say("filesMissing"), tries: 1 });
    session.waitFor(1, true);
    session.submit();
    expect(session.read()).toMatchObject({ refusal: say("filesRefused"), tries: 2 });
    session.waitNoMore(1);
    session.submit();
    expect(server.sent).toHaveLength(1);
  });

  it("uses a new key for other answers", async () => {
    session.submit();
    server.sent[0]!.reject(new RefusedError({ code: "answers_wrong", message: "No.", errors: {} }));
    await settle();
    session.change("name", "Ingrid");
    session.submit();
    expect(server.sent[1]!.key).not.toBe(server.sent[0]!.key);
  });

  it("shows a missing answer only once the field was left, and no more once it is there", () => {
    expect(session.errorOf("name")).toBeNull();
    session.leave("name");
    expect(session.errorOf("name")?.message).toBe("Please answer this.");
    session.change("name", "Ingrid");
    expect(session.errorOf("name")).toBeNull();
  });

  it("shows what the server refused, and forgets it when that answer changes", async () => {
    session.change("name", "x");
    session.submit();
    const errors = { name: { code: "limits", message: "Too short." } };
    server.sent[0]!.reject(new RefusedError({ code: "answers_wrong", message: "Look again.", errors }));
    await settle();
    expect(session.read()).toMatchObject({ phase: "filling", refusal: "Look again.", tries: 1 });
    expect(session.errorOf("name")?.message).toBe("Too short.");
    session.change("name", "longer");
    expect(session.errorOf("name")).toBeNull();
    expect(session.read().refusal).toBeNull();
  });
});
