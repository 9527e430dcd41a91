import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { FormFace, FormState, KeepReply, PublicPage } from "../api/generated/wire";
import { receivedReply } from "../testing/received";
import type { AnswerStore, Kept } from "./kept_answers";
import { FormSession } from "./session";
import { AwayError, type Transport } from "./transport";

const face = {
  asks: [],
  wording: {},
  presentation: "whole",
  pages: [{ id: "p1", title: "", blocks: [{ id: "name", type: "short_text", label: "Name", width: "full" }] }],
} as unknown as FormFace;
const fact = { shown: true, required: false, value: null, error: null };
const state: FormState = { path: ["p1"], blocks: { name: fact } };
type Brought = NonNullable<PublicPage["kept"]>;
const BROUGHT = {
  token: "t",
  version: 3,
  edition: 1,
  visit: "",
  when: "1 May",
  page: null,
  seed: 5,
  checked: [],
  began: 1,
};
const brought = (name: string): Brought => ({ ...BROUGHT, answers: { name } });

/** A visitor's device, and a server that keeps what it is given. */
function visit(kept: Brought | null, device: Kept | null = null) {
  let held = device;
  const store: AnswerStore = {
    visit: "v",
    elsewhere: false,
    load: () => held,
    save: (next) => (held = { ...next, at: 0 }),
    clear: () => (held = null),
  };
  const server = {
    state: vi.fn(() => Promise.resolve(state)),
    submit: vi.fn<Transport["submit"]>(() => Promise.resolve(receivedReply("Thank you"))),
    keep: vi.fn((asked: { version?: number | null }): Promise<KeepReply> =>
      Promise.resolve({ number: 7, address: "/kept/t", version: (asked.version ?? 9) + 1, until: "8 May" }),
    ),
  };
  const session = new FormSession(face, { state, kept }, server, store);
  return { session, server, device: () => held };
}

const answer = (session: FormSession) => session.read().answers.name;

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe("going on later", () => {
  it("keeps under one token, however often, says what is new since, and hands in by it", async () => {
    const { session, server, device } = visit(null);
    session.change("name", "Ana");
    await session.keepForLater(false);
    session.change("name", "Ana Bell");
    expect(session.read().later).toMatchObject({ version: 1, unkept: true });
    await session.keepForLater(false);
    const [first, second] = server.keep.mock.calls.map(([asked]) => asked as unknown as Record<string, unknown>);
    expect(first).toMatchObject({ version: 0, answers: { name: "Ana" } });
    expect(second).toMatchObject({ version: 1, token: first!.token, answers: { name: "Ana Bell" } });
    expect(first!.token).toMatch(/^[0-9a-f]{64}$/);
    expect(device()?.later).toEqual({ token: first!.token, version: 2, unkept: false });
    await session.submit();
    expect(server.submit.mock.calls[0]![3]).toBe(first!.token);
  });

  it("knows what was entered while it was being kept as new", async () => {
    const { session, server } = visit(null);
    server.keep.mockImplementation(() => {
      session.change("name", "later");
      return Promise.resolve({ number: 7, address: "", version: 1, until: "" });
    });
    await session.keepForLater(false);
    expect(session.read().later?.unkept).toBe(true);
  });

  it("asks again by the same token where the reply was lost", async () => {
    const { session, server } = visit(null);
    server.keep.mockRejectedValueOnce(new AwayError());
    await expect(session.keepForLater(false)).rejects.toThrow(AwayError);
    expect(session.read().later?.unkept).toBe(true);
    await session.keepForLater(false);
    const asked = server.keep.mock.calls.map(([each]) => each as unknown as Brought);
    expect(asked.map(({ token, version }) => [token, version])).toEqual([
      [asked[0]!.token, 0],
      [asked[0]!.token, 0],
    ]);
  });

  it("takes what this device entered since, and what the link brings where that is newer", () => {
    expect(answer(visit(brought("of the link")).session)).toBe("of the link");
    const device = (version: number) => {
      const begun = visit(brought("of the link"));
      begun.session.change("name", "of the device");
      begun.session.save();
      return { ...begun.device()!, later: { token: "t", version, unkept: true } };
    };
    expect(answer(visit(brought("of the link"), device(3)).session)).toBe("of the device");
    const { session } = visit(brought("of the link"), device(2));
    expect(answer(session)).toBe("of the link");
    // Nothing that somebody typed is lost for it.
    session.showHere();
    expect(answer(session)).toBe("of the device");
    expect(session.read().later).toMatchObject({ version: 3, unkept: true });
  });
});
