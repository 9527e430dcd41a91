import { describe, expect, it, vi } from "vitest";
import { A_FORM } from "../../testing/a_form";
import { partsOf } from "../../model/parts";
import { OTHER_KEYS, SHORTCUTS } from "./keys";
import type { ComposeActions } from "./actions";

const pressed = (key: string, held: Partial<KeyboardEvent> = {}) =>
  ({ key, altKey: false, ctrlKey: false, metaKey: false, shiftKey: false, ...held }) as KeyboardEvent;

const doing = () => {
  const names = ["step", "shift", "nest", "duplicate", "group", "remove"] as const;
  return Object.fromEntries(names.map((name) => [name, vi.fn()])) as unknown as ComposeActions;
};

/** What a key does: the action and what it is given. */
function does(event: KeyboardEvent): string {
  const actions = doing();
  const other: string[] = [];
  const fitting = SHORTCUTS.filter(({ fits }) => fits(event));
  for (const { run } of fitting)
    run(
      actions,
      () => other.push("add"),
      (part, setting) => other.push(`select ${part}${setting ? ` ${setting}` : ""}`),
      "b1",
    );
  const called = Object.entries(actions).flatMap(([name, action]) =>
    vi.mocked(action as (...given: unknown[]) => void).mock.calls.map((given) => [name, ...given].join(" ")),
  );
  return [...called, ...other].join(", ");
}

describe("the keys of Compose", () => {
  it.each([
    [pressed("a"), "add"],
    [pressed("F2"), "select b1 label"],
    [pressed("A", { shiftKey: true }), "add"],
    [pressed("a", { ctrlKey: true }), ""],
    [pressed("ArrowDown"), "step 1 false"],
    [pressed("ArrowUp"), "step -1 false"],
    [pressed("ArrowDown", { shiftKey: true }), "step 1 true"],
    [pressed("ArrowUp", { altKey: true }), "shift -1"],
    [pressed("ArrowDown", { altKey: true }), "shift 1"],
    [pressed("ArrowRight", { altKey: true }), "nest true"],
    [pressed("ArrowLeft", { altKey: true }), "nest false"],
    [pressed("d", { ctrlKey: true }), "duplicate"],
    [pressed("d", { metaKey: true }), "duplicate"],
    [pressed("g", { ctrlKey: true }), "group"],
    [pressed("Delete"), "remove"],
    [pressed("Backspace"), "remove"],
    [pressed("Escape"), "select null"],
    [pressed("x"), ""],
  ])("%o does one thing: %s", (event, expected) => {
    expect(does(event)).toBe(expected);
  });

  it("are listed once each", () => {
    const keys = [...SHORTCUTS, ...OTHER_KEYS].map((each) => each.keys);
    expect(new Set(keys).size).toBe(keys.length);
  });
});

describe("numbers of the outline", () => {
  it("go down into groups and rows, and count confirmations by themselves", () => {
    const numbers = [...partsOf(A_FORM).values()].map(({ id, number, depth }) => `${number} ${id} ${depth}`);
    expect(numbers).toEqual([
      "1 p1 0",
      "1.1 name 1",
      "1.2 school 1",
      "1.2.1 teacher 2",
      "1.2.2 phone 2",
      "1.3 lines 1",
      "1.3.1 row 2",
      "1.3.1.1 amount 3",
      "1.4 note 1",
      "2 p2 0",
      "2.1 adults 1",
      "C.1 c1 0",
    ]);
  });
});
