// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { hostOf, inFrame } from "./host";

const around = { postMessage: vi.fn() };
const page = (changes: object = {}) => ({
  framed: true,
  host: "https://www.example.org",
  came: { way: "script", page: "https://www.example.org/visit", seconds: null } as const,
  ...changes,
});

beforeEach(() => vi.stubGlobal("parent", around));
afterEach(() => {
  vi.unstubAllGlobals();
  around.postMessage.mockReset();
});

describe("the website around a form", () => {
  it("hears what happens at its exact origin, and nobody else does", () => {
    hostOf(page()).tell({ codexa: "ready" });
    expect(around.postMessage).toHaveBeenCalledExactlyOnceWith({ codexa: "ready" }, "https://www.example.org");
  });

  it("hears nothing where no website is known, or the form stands by itself", () => {
    hostOf(page({ host: "" })).tell({ codexa: "ready" });
    hostOf(page({ framed: false })).tell({ codexa: "ready" });
    expect(around.postMessage).not.toHaveBeenCalled();
  });

  it("leads the whole page elsewhere by our script, or by the browser where there is none", () => {
    const opened = vi.fn();
    vi.stubGlobal("open", opened);
    hostOf(page()).redirect("https://www.example.org/thanks");
    expect(around.postMessage).toHaveBeenCalledExactlyOnceWith(
      { codexa: "redirect", address: "https://www.example.org/thanks" },
      "https://www.example.org",
    );
    hostOf(page({ came: { way: "frame", page: "", seconds: null } })).redirect("https://www.example.org/thanks");
    expect(opened).toHaveBeenCalledExactlyOnceWith("https://www.example.org/thanks", "_top");
  });

  it("stays known on every page of ours in the frame", () => {
    history.replaceState(null, "", "/embed/a/b?talk=x&codexa-as=pop-up&codexa-from=https%3A%2F%2Fwww.example.org%2F");
    const next = new URL(inFrame("/received/1"), location.href);
    expect(next.pathname).toBe("/embed/received/1");
    expect(Object.fromEntries(next.searchParams)).toEqual({
      "codexa-as": "pop-up",
      "codexa-from": "https://www.example.org/",
    });
  });
});
