import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { optionsAsText, optionsFromText, pastedOptions, wrongNumbers } from "./paste";

it.each([
  ["One\nTwo", ["One one 0", "Two two 0"]],
  ["One\t1,5\r\nTwo\t2\r\n", ["One one 1.5", "Two two 2"]],
  ["One\ta\t1\nTwo\tb\t-2.5", ["One a 1", "Two b -2.5"]],
  ["One\t€ 1.234,50\nTwo\t$1,234,567.25", ["One one 1234.50", "Two two 1234567.25"]],
  ["One\t1\u00a0200,50 €\nTwo\t1’200.5", ["One one 1200.50", "Two two 1200.5"]],
  ["One\t1.234\nTwo\t1,5,5", ["One one 1.234", "Two 1,5,5 0"]],
  ["One\ta\nTwo\ta", ["One a 0", "Two a_2 0"]],
  ["One\tone", ["One one_2 0"]],
  ['"Two\nlines"\t1\n"Said ""so"""\t2', ["Two lines two_lines 1", 'Said "so" said_so 2']],
  ['5" pipe\t1\n6" pipe\t2', ['5" pipe 5_pipe 1', '6" pipe 6_pipe 2']],
  ['"open\t1\nTwo\t2', ['"open open 1', "Two two 2"]],
  ["just a word", []],
  ["", []],
])("reads %j", (text, expected) => {
  const options = pastedOptions(
    text,
    ["one"].filter(() => text.includes("\tone")),
  );
  expect(options.map(({ label, code, counts_as }) => `${label} ${code} ${counts_as}`)).toEqual(expected);
});

it("names what is written for a number and is none", () => {
  expect(wrongNumbers("One\ta\t1\nTwo\tb\tmany\t2\nThree\tc\t3\tdear")).toEqual([
    "“Two”: “many” is no number; it counts as 0.",
    "“Three”: “dear” is no price; it has none.",
  ]);
  expect(wrongNumbers("One\ta\nTwo\tb")).toEqual([]);
});

describe("options as text", () => {
  const anyCell = fc.stringMatching(/^[A-Za-z][A-Za-z ]{0,12}[a-z]$/);
  const anyOptions = fc
    .uniqueArray(fc.stringMatching(/^[a-z][a-z0-9_]{0,8}$/), { minLength: 1, maxLength: 8 })
    .chain((codes) =>
      fc.tuple(
        ...codes.map((code) =>
          fc.record({
            id: fc.constant(`id${code}`),
            code: fc.constant(code),
            label: anyCell,
            counts_as: fc.integer({ min: -500, max: 500 }).map((cents) => String(cents / 4)),
            price: fc.constantFrom(null, "0", "12.50"),
            belongs_to: anyCell,
            picture: fc.constant(""),
            shown: fc.constantFrom("", "adults > 2"),
            locked: fc.constant(""),
          }),
        ),
      ),
    );
  const fails = () => expect.fail("no option is new");

  it("come back as they were, with their ids and rules", () => {
    fc.assert(
      fc.property(anyOptions, (options) => {
        expect(optionsFromText(optionsAsText(options), options, fails)).toEqual(options);
      }),
    );
  });

  it("follow the order of the lines, lose what has no line, and keep what has a code", () => {
    fc.assert(
      fc.property(anyOptions, (options) => {
        const lines = optionsAsText(options).split("\n").reverse().slice(1);
        const expected = [...options].reverse().slice(1);
        expect(optionsFromText(lines.join("\n"), options, fails)).toEqual(expected);
      }),
    );
  });

  it("have prices in a fourth column, which may be left out", () => {
    const priced = optionsFromText("Poster\tposter\t1\t12,50\nCard\tcard\t0\t", [], () => "new");
    expect(priced.map(({ code, counts_as, price }) => [code, counts_as, price])).toEqual([
      ["poster", "1", "12.50"],
      ["card", "0", null],
    ]);
    const relabelled = optionsFromText("Large poster\tposter\t1", priced, fails);
    expect(relabelled).toEqual([{ ...priced[0], label: "Large poster" }]);
  });

  it("make new options of new lines", () => {
    const made = optionsFromText("Comets\nMeteors\tmeteors\t3,5", [], () => "new");
    expect(made.map(({ id, code, counts_as }) => `${id} ${code} ${counts_as}`)).toEqual([
      "new comets 0",
      "new meteors 3.5",
    ]);
  });
});
