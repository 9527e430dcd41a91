// @vitest-environment jsdom
// A confirmation is seen again where the page is reloaded, and only there.
import { afterEach, expect, it, vi } from "vitest";
import { receivedPage, rememberReceived } from "./seen_again";

const came = (type: string) =>
  vi.spyOn(performance, "getEntriesByType").mockReturnValue([{ type }] as unknown as PerformanceEntryList);

afterEach(() => {
  vi.restoreAllMocks();
  sessionStorage.clear();
});

it("is remembered in the tab till somebody begins anew", () => {
  rememberReceived("f", "/received/f/1/m");
  came("reload");
  expect(receivedPage("f")).toBe("/received/f/1/m");
  expect(receivedPage("another")).toBeNull();
  came("navigate");
  expect(receivedPage("f")).toBeNull();
  came("reload");
  expect(receivedPage("f")).toBeNull();
});

it("leads nowhere else, whatever is kept there", () => {
  rememberReceived("f", "https://elsewhere.example/received/");
  came("reload");
  expect(receivedPage("f")).toBeNull();
  rememberReceived("f", null);
  expect(receivedPage("f")).toBeNull();
});
