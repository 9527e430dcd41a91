// @vitest-environment jsdom
import { afterEach, describe, expect, it, vi } from "vitest";
import { AwayError, RefusedError, Transport } from "./transport";

afterEach(() => vi.unstubAllGlobals());

function serverSays(reply: Response | Error) {
  const asked = vi.fn<(address: string, request: RequestInit) => Promise<Response>>();
  if (reply instanceof Error) asked.mockRejectedValue(reply);
  else asked.mockResolvedValue(reply);
  vi.stubGlobal("fetch", asked);
  return asked;
}

const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });
const pageWith = (link: Record<string, string>, base = "/api/public/visit/3") => ({
  base,
  link,
  seal: "",
  entry: "",
  opened: "",
  came: { way: "link", page: "", seconds: null } as const,
});
const published = new Transport(pageWith({ site: "dome" }), "v1");

describe("what a visitor entered", () => {
  it("travels to its edition without a session, with what came by the link, and only what changed is asked", async () => {
    const asked = serverSays(json({ state: { path: ["p1"], blocks: {} }, turn: 0 }));
    expect(await published.state({ adults: "3" }, ["adults"])).toEqual({ path: ["p1"], blocks: {} });
    const [address, request] = asked.mock.calls[0]!;
    expect([address, request.credentials]).toEqual(["/api/public/visit/3/state", "omit"]);
    expect(JSON.parse(request.body as string)).toEqual({
      answers: { adults: "3" },
      link: { site: "dome" },
      visit: "v1",
      changed: ["adults"],
    });
  });

  it("costs the computer some work where the server asks for it, and is handed in then", async () => {
    const asked = serverSays(json({ number: 1 }, 201));
    asked.mockResolvedValueOnce(json({ code: "work_first", message: "", errors: {}, work: "17.12.mark" }, 428));
    expect((await published.submit({ adults: "3" }, "key-1", 9)).number).toBe(1);
    const { work } = JSON.parse(asked.mock.calls[1]![1].body as string) as { work: string };
    const [, number] = work.split(":");
    expect(work).toBe(`17.12.mark:${number}`);
    const digest = await crypto.subtle.digest("SHA-256", new TextEncoder().encode(`key-1.mark.${number}`));
    expect(new DataView(digest).getUint32(0) >>> 20).toBe(0);
  });

  it("is handed in under a key, so that a second try is no second response", async () => {
    const asked = serverSays(json({ number: 1 }));
    await published.submit({ adults: "3" }, "key-1", 9);
    const [address, { headers }] = asked.mock.calls[0]!;
    expect(address).toBe("/api/public/visit/3/responses");
    expect(headers).toMatchObject({ "Idempotency-Key": "key-1" });
    expect(headers).not.toHaveProperty("X-CSRF-Token");
  });

  it("goes to the draft in a preview, with the session and its token", async () => {
    const asked = serverSays(json({ state: {} }));
    await new Transport(pageWith({}, "/api/forms/visit/preview"), "", "token").state({}, null);
    const [address, { headers, credentials }] = asked.mock.calls[0]!;
    expect([address, credentials]).toEqual(["/api/forms/visit/preview/state", "same-origin"]);
    expect(headers).toMatchObject({ "X-CSRF-Token": "token" });
  });
});

describe("a server", () => {
  it.each([
    ["that is not there", new TypeError("Failed to fetch")],
    ["that is not well", json({ code: "internal", message: "…" }, 500)],
    ["that has too much to do", json({ code: "too_many", message: "…" }, 429)],
    ["whose reply breaks off", new Response('{"number":', { status: 200 })],
  ])("%s is asked again", async (_what, reply) => {
    serverSays(reply);
    await expect(published.submit({}, "k", 9)).rejects.toBeInstanceOf(AwayError);
  });

  it("that says no is not, and tells why, field by field", async () => {
    const errors = { adults: { code: "too_large", message: "Enter 60 or less." } };
    serverSays(json({ code: "invalid", message: "Some answers need another look.", errors }, 422));
    const refused = (await published.submit({}, "k", 9).catch((error: unknown) => error)) as RefusedError;
    expect(refused).toBeInstanceOf(RefusedError);
    expect([refused.message, refused.reply.errors]).toEqual(["Some answers need another look.", errors]);
  });
});

describe("what can't heal", () => {
  it.each([
    ["a proxy that refuses in its place", new Response("<h1>403</h1>", { status: 403 }), /refused this \(403\)/],
    ["more than can be taken", json({ code: "http_413", message: "Send less." }, 413), /Send less/],
    ["what can't be read", json({ code: "not_readable", message: "This has another shape." }, 400), /another shape/],
    ["a form that is closed", json({ code: "closed", message: "It is closed." }, 410), /closed/],
  ])("%s is told and not tried again", async (_what, reply, words) => {
    serverSays(reply);
    const refused = (await published.submit({}, "k", 9).catch((error: unknown) => error)) as RefusedError;
    expect(refused).toBeInstanceOf(RefusedError);
    expect(refused.message).toMatch(words);
  });

  it("waits as long as a server with too much to do asks, but never for hours", async () => {
    for (const [asked, waits] of [
      ["7", 7_000],
      ["86400", 60_000],
      ["soon", 0],
    ] as const) {
      serverSays(new Response("{}", { status: 429, headers: { "Retry-After": asked } }));
      expect(await published.submit({}, "k", 9).catch((error: unknown) => (error as AwayError).after)).toBe(waits);
    }
  });
});

describe("a file", () => {
  const nothing: () => void = () => undefined;

  /** A request whose progress and end the test tells. */
  function aRequest() {
    const request = {
      upload: {} as { onprogress: (event: { lengthComputable: boolean; loaded: number; total: number }) => void },
      open: vi.fn(),
      setRequestHeader: vi.fn(),
      send: vi.fn(),
      abort: vi.fn(),
      status: 0,
      response: null as unknown,
      onload: nothing,
      onerror: nothing,
    };
    vi.stubGlobal(
      "XMLHttpRequest",
      vi.fn(function () {
        return request;
      }),
    );
    return request;
  }
  const file = new File(["x"], "Dome & sky.png");
  const sent = (onProgress = nothing, stop = new AbortController()) =>
    published.upload("photo", file, onProgress, stop.signal);

  it("tells how far it is, and arrives under its name", async () => {
    const request = aRequest();
    const progress = vi.fn();
    const arriving = sent(progress);
    expect(request.open).toHaveBeenCalledWith("POST", "/api/public/visit/3/files/photo?name=Dome+%26+sky.png&visit=v1");
    request.upload.onprogress({ lengthComputable: true, loaded: 1, total: 4 });
    expect(progress).toHaveBeenCalledWith(0.25);
    Object.assign(request, { status: 200, response: { id: "f1" } }).onload();
    expect(await arriving).toEqual({ id: "f1" });
  });

  it.each([
    [413, { message: "At most 10 MB." }, RefusedError, "At most 10 MB."],
    [413, null, AwayError, "The server can't take files just now. Try again."],
    [503, { message: "…" }, AwayError, "The server can't take files just now. Try again."],
  ])("that is refused with %s and %j says so", async (status, response, kind, message) => {
    const request = aRequest();
    const arriving = sent();
    Object.assign(request, { status, response }).onload();
    await expect(arriving).rejects.toBeInstanceOf(kind);
    await expect(arriving).rejects.toThrow(message);
  });

  it("that does not get through says so, and is stopped when it is taken back", async () => {
    const request = aRequest();
    const stop = new AbortController();
    const arriving = sent(undefined, stop);
    stop.abort();
    expect(request.abort).toHaveBeenCalledOnce();
    request.onerror();
    await expect(arriving).rejects.toThrow("This file did not get through. Try again.");
  });
});
