import { describe, expect, it } from "vitest";
import { inBase64, likelyColumns, likelyEmail, nameFor, tableOfOne, textInBase64 } from "./link_tables";

describe("a table of values", () => {
  it("is sent as its bytes, whatever is in it and however large", () => {
    const bytes = Uint8Array.from({ length: 100_000 }, (_, at) => at % 256);
    expect(Uint8Array.from(atob(inBase64(bytes)), (sign) => sign.charCodeAt(0))).toEqual(bytes);
    expect(new TextDecoder().decode(Uint8Array.from(atob(textInBase64("Späte ☾")), (sign) => sign.charCodeAt(0)))).toBe(
      "Späte ☾",
    );
  });

  it("of one line quotes what would end a cell", () => {
    expect(tableOfOne({ talk: 'Glass, "red"', empty: "" })).toBe('"talk"\r\n"Glass, ""red"""\r\n');
  });

  it("is read by the names that are likely meant", () => {
    const links = [
      { field: "f1", name: "talk", visitor: "locked", sealed: true },
      { field: "f2", name: "no", visitor: "open", sealed: false },
    ] as const;
    const labels = new Map([["f1", "Title of the talk"]]);
    expect(likelyColumns(links, labels, ["Title of the Talk", "No.", "Speaker"])).toEqual({
      talk: "Title of the Talk",
      no: "No.",
    });
    expect(likelyColumns(links, labels, ["TALK"])).toEqual({ talk: "TALK" });
    expect([likelyEmail(["Name", "E-Mail"]), likelyEmail(["Name"])]).toEqual(["E-Mail", ""]);
  });

  it("gives each value a name of its own, and none the seal's", () => {
    expect([nameFor("talk", []), nameFor("talk", ["talk", "talk_2"]), nameFor("s", [])]).toEqual([
      "talk",
      "talk_3",
      "s_value",
    ]);
  });
});
