// Before each file of tests: what a form says by itself, and all inputs, which are drawn at once.
import usual from "../api/generated/usual_words.json";
import { speakAs } from "../text/visitor";

speakAs(usual);
if (typeof document !== "undefined") {
  const { INPUTS } = await import("../fields/inputs");
  await Promise.all(Object.values(INPUTS).map(({ atOnce }) => atOnce?.()));
}
