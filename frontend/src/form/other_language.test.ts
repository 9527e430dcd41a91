// Answers that were typed in another language of the form.
import { describe, expect, it, vi } from "vitest";
import type { DeviceStore, Kept } from "./kept_answers";
import { typedInThisLanguage } from "./other_language";

const FACE = {
  locale: "de",
  languages: [
    { locale: "en", name: "English" },
    { locale: "de", name: "Deutsch" },
  ],
};

function storeWith(kept: Partial<Kept> | null) {
  const whole = kept && { answers: { n: "1.5" }, page: "p1", seed: 1, key: "k", sending: false, at: 0, ...kept };
  const change = vi.fn<(kept: Kept) => void>();
  return { load: () => whole, change } as unknown as DeviceStore & { change: typeof change };
}

describe("answers kept on the device", () => {
  it("are typed anew where the language is another now", async () => {
    const store = storeWith({ language: "en" });
    const typed = vi.fn(() => Promise.resolve({ n: "1,5" }));
    await typedInThisLanguage(FACE, { typed }, store);
    expect(typed).toHaveBeenCalledWith({ n: "1.5" }, "en");
    expect(store.change.mock.calls[0]![0]).toMatchObject({ answers: { n: "1,5" }, language: "de", page: "p1" });
  });

  it.each([
    ["were typed in it", storeWith({ language: "de" }), FACE],
    ["were kept before it had several", storeWith({}), FACE],
    ["are being sent", storeWith({ language: "en", sending: true }), FACE],
    ["are of a form in one language", storeWith({ language: "en" }), { ...FACE, languages: [] }],
    ["are none", storeWith(null), FACE],
  ])("stay where they %s", async (_why, store, face) => {
    const typed = vi.fn(() => Promise.resolve({}));
    await typedInThisLanguage(face, { typed }, store);
    expect([typed.mock.calls.length, store.change.mock.calls.length]).toEqual([0, 0]);
  });

  it("stay where the server can't be asked", async () => {
    const store = storeWith({ language: "en" });
    await typedInThisLanguage(FACE, { typed: () => Promise.reject(new Error("away")) }, store);
    expect(store.change).not.toHaveBeenCalled();
  });
});
