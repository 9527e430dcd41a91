// Where in a form the core found something wrong, in words of the workbench.
import type { ErrorReply, Form } from "../api/generated/wire";
import { partsOf } from "./parts";

/** Problems as people read them: "1.1 Show, options 2 counts as: Input should be a valid decimal." */
export const sayProblems = (form: Form, problems: ErrorReply["problems"]): string =>
  problems.map(({ path, message }) => `${sayPlace(form, path)}: ${message}.`).join(" ");

/** The part of the form that a path leads to, by number and title, and what is left of the path from there. */
function sayPlace(form: Form, path: string): string {
  const parts = partsOf(form);
  let node: unknown = form;
  let part = "";
  let left: string[] = [];
  for (const step of path.split(".")) {
    const next: unknown =
      typeof node === "object" && node !== null ? (node as Record<string, unknown>)[step] : undefined;
    // The name of a block's type stands in the path, but not in the form.
    if (next === undefined && (node as { type?: unknown } | undefined)?.type === step) continue;
    node = next;
    left.push(/^\d+$/.test(step) ? String(Number(step) + 1) : step.replaceAll("_", " "));
    const found = parts.get((node as { id?: string } | undefined)?.id ?? "");
    if (!found) continue;
    part = `${found.number} ${found.title}`.trim();
    left = [];
  }
  return [part, left.join(" ")].filter(Boolean).join(", ");
}
