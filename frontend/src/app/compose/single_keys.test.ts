import { describe, expect, it } from "vitest";
import { isTurnedOff, setSingleKeys, singleKeysWork } from "./single_keys";

function memory(): () => Storage {
  const kept = new Map<string, string>();
  const place = {
    getItem: (name: string) => kept.get(name) ?? null,
    setItem: (name: string, value: string) => void kept.set(name, value),
  };
  return () => place as unknown as Storage;
}
const refusing = () => {
  throw new Error("no storage here");
};
const pressed = (key: string, held: Partial<KeyboardEvent> = {}) =>
  ({ key, ctrlKey: false, metaKey: false, altKey: false, ...held }) as KeyboardEvent;

describe("keys of one sign", () => {
  it("work until they are turned off, and again when they are turned on", () => {
    const storage = memory();
    expect(singleKeysWork(storage)).toBe(true);
    setSingleKeys(false, storage);
    expect(singleKeysWork(storage)).toBe(false);
    setSingleKeys(true, storage);
    expect(singleKeysWork(storage)).toBe(true);
  });

  it.each([
    [pressed("a"), true],
    [pressed("/"), true],
    [pressed("?"), true],
    [pressed("z", { ctrlKey: true }), false],
    [pressed("k", { metaKey: true }), false],
    [pressed("ArrowDown"), false],
    [pressed("Delete"), false],
    [pressed("Escape"), false],
  ])("are all that is turned off: %o", (event, off) => {
    const storage = memory();
    expect(isTurnedOff(event, storage)).toBe(false);
    setSingleKeys(false, storage);
    expect(isTurnedOff(event, storage)).toBe(off);
  });

  it("work where the browser keeps nothing", () => {
    setSingleKeys(false, refusing);
    expect(singleKeysWork(refusing)).toBe(true);
  });
});
