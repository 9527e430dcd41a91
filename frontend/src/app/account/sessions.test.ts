// What a session says of the browser that it was begun with.
import { describe, expect, it } from "vitest";
import { browserIn } from "./Sessions";

describe("a browser", () => {
  it.each([
    ["Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 Chrome/140.0 Safari/537.36", "Chrome on Linux"],
    ["Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537.36 Chrome/140.0 Safari/537.36 Edg/140.0", "Edge on Windows"],
    ["Mozilla/5.0 (iPhone; CPU iPhone OS 19_0 like Mac OS X) Version/19.0 Safari/604.1", "Safari on iPhone"],
    ["Lantern 4", "Lantern 4"],
    ["", "A program that does not say what it is"],
  ])("that says %s is told as %s", (program, told) => {
    expect(browserIn(program)).toBe(told);
  });
});
