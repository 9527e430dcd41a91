// Has what is drawn below say a form's words. Not in src/app: the compiler there drops what only has an effect.
import { useMemo } from "react";
import { speakAs } from "./visitor";

export const useSpokenWords = (words: string): void =>
  useMemo(() => speakAs(JSON.parse(words) as Record<string, string>), [words]);
