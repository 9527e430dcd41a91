// Going on later: which answers a visitor goes on with, those of this device or those that a private link brought.
import type { PublicPage } from "../api/generated/wire";
import type { Kept } from "./kept_answers";
import type { Answers } from "./transport";

/** Under which private token answers are kept, which version was seen last, and whether others were given since. */
export interface Later {
  token: string;
  version: number;
  unkept: boolean;
}

/** Nobody can guess it. */
export const newToken = (): string => (crypto.randomUUID() + crypto.randomUUID()).replaceAll("-", "");

interface Begun {
  kept: Kept | null;
  /** What was entered on this device and is kept nowhere else, where others were kept by the link meanwhile. */
  here: Answers | null;
}

/** What a filling-in begins with. What a link brought gives way to what was entered on this device since it was kept. */
export function begun(device: Kept | null, brought: PublicPage["kept"]): Begun {
  if (!brought || device?.later?.version === brought.version || device?.sending) return { kept: device, here: null };
  const { token, version, answers, page, seed, checked, began, edition } = brought;
  const later = { token, version, unkept: false };
  const standing = { page, seed, checked, edition, began: began || Date.now(), sending: false, at: Date.now(), later };
  const kept = { ...standing, answers: answers as Answers, key: crypto.randomUUID() };
  return { kept, here: device?.later?.unkept ? device.answers : null };
}
