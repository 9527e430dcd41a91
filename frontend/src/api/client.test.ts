import { afterEach, describe, expect, it, vi } from "vitest";
import { api, ApiError } from "./client";

afterEach(() => vi.unstubAllGlobals());

function serverSays(...replies: (Response | Error)[]) {
  const asked = vi.fn<(address: string, request: RequestInit) => Promise<Response>>();
  for (const reply of replies)
    if (reply instanceof Error) asked.mockRejectedValueOnce(reply);
    else asked.mockResolvedValueOnce(reply);
  vi.stubGlobal("fetch", asked);
  return asked;
}

const json = (body: unknown, status = 200): Response =>
  new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });

const problemOf = (asking: Promise<unknown>): Promise<ApiError> =>
  asking.then(
    () => expect.fail("it should have failed"),
    (error: unknown) => error as ApiError,
  );

describe("the way to the server", () => {
  it("tells what the server said, with the problems it named", async () => {
    const problems = [{ address: "name", message: "Give it a name." }];
    serverSays(json({ code: "bad_request", message: "Something is missing.", problems }, 422));
    const error = await problemOf(api.makeForm(""));
    expect(error).toBeInstanceOf(ApiError);
    expect([error.code, error.message, error.problems]).toEqual(["bad_request", "Something is missing.", problems]);
  });

  it.each([
    ["there is no server", new TypeError("Failed to fetch")],
    ["somebody's proxy answers in its place", new Response("<h1>502 Bad Gateway</h1>", { status: 502 })],
    ["a reply breaks off", new Response('{"forms": [', { status: 200 })],
  ])("is unreachable where %s, and says that nothing is lost", async (_what, reply) => {
    serverSays(reply);
    const error = await problemOf(api.forms());
    expect([error.code, error.message]).toEqual([
      "unreachable",
      "Codexa can't be reached just now. Your work stays here; we try again.",
    ]);
  });

  it("sends the token of the session once there is one, and none after signing out", async () => {
    const gone = () => new Response(null, { status: 204 });
    const asked = serverSays(json({ csrf_token: "token" }), json({ forms: [] }), gone(), json({ forms: [] }));
    await api.signIn("mira@alderlight.example.org", "alderlight");
    await api.forms();
    await api.signOut();
    await api.forms();
    const tokens = asked.mock.calls.map(([, request]) => (request.headers as Record<string, string>)["X-CSRF-Token"]);
    expect(tokens).toEqual([undefined, "token", "token", undefined]);
  });

  it("finds nobody signed in without an error", async () => {
    serverSays(new Response(null, { status: 204 }));
    expect(await api.whoIsSignedIn()).toBeNull();
  });
});
