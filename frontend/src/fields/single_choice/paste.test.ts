import { expect, it } from "vitest";
import { pastedOptions } from "./paste";

it.each([
  ["One\nTwo", ["One one 0", "Two two 0"]],
  ["One\t1,5\r\nTwo\t2\r\n", ["One one 1.5", "Two two 2"]],
  ["One\ta\t1\nTwo\tb\t-2.5", ["One a 1", "Two b -2.5"]],
  ["One\ta\nTwo\ta", ["One a 0", "Two a_2 0"]],
  ["One\tone", ["One one_2 0"]],
  ["just a word", []],
  ["", []],
])("reads %j", (text, expected) => {
  const options = pastedOptions(
    text,
    ["one"].filter(() => text.includes("\tone")),
  );
  expect(options.map(({ label, code, counts_as }) => `${label} ${code} ${counts_as}`)).toEqual(expected);
});
