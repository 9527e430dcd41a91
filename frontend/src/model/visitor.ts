// Who is signed in, as formulas know them.
import type { Choice, Named } from "./outline";

/** What is known of them, by its name in formulas. */
export const VISITOR_FACTS = {
  "visitor.email": "e-mail",
  "visitor.name": "name",
  "visitor.first": "first name",
  "visitor.last": "last name",
} as const;

/** What a condition can name of who is signed in: whether they are in one of the groups, and what is known of them. */
export function namesOfVisitor(groups: readonly Choice[]): Named[] {
  const known = (name: string, title: string, choices: readonly Choice[] | null): Named => ({
    name,
    id: name,
    number: "",
    title,
    kind: "Visitor",
    block: null,
    choices,
    figureKind: null,
  });
  const facts = Object.entries(VISITOR_FACTS).map(([name, fact]) => known(name, `Their ${fact}`, null));
  return [known("visitor", "Who is signed in", groups), ...facts];
}
