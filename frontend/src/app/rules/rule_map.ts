// The map of a form's rules, drawn from what depends on what: its boxes and arrows. No React, no layout.
import type { Form, Note, OutcomeReply, Words } from "../../api/generated/wire";
import type { Entry, Parts } from "../../model/parts";
import { type Rule, rulesOf } from "./rules";

/** What follows when no confirmation of its own does. */
export const USUAL_END = "usual end";
/** Where rules lead that end the form early. */
export const THE_END = "the end";

export interface MapBox {
  id: string;
  what: "page" | "block" | "figure" | "confirmation" | "follow_up" | "end";
  number: string;
  title: string;
  /** The page that it stands on or is; "" for what stands beside the pages. */
  page: string;
}

export interface MapArrow {
  id: string;
  from: string;
  to: string;
  /** What leads along it: the order of pages, standing in a group, a rule that leads on, or a rule that reads. */
  kind: "following" | "holds" | "leads" | "rule";
  label: string;
  /** Owner and setting of the rule that it stands for. */
  rule?: { owner: string; setting: string };
}

export interface RuleMap {
  boxes: MapBox[];
  arrows: MapArrow[];
}

const boxOf = (entry: Entry): MapBox => ({
  id: entry.id,
  what: entry.what === "kind" ? "block" : (entry.what as MapBox["what"]),
  number: entry.number,
  title: entry.title,
  page: entry.page ?? "",
});

const ownBox = (id: string, what: MapBox["what"], title: string): MapBox => ({ id, what, number: "", title, page: "" });

export function ruleMap(form: Form, parts: Parts, notes: Record<string, Note[]>): RuleMap {
  const rules = rulesOf(parts, notes).filter(({ fact }) => fact !== "counted");
  const shown = new Set(rules.flatMap(({ owner, note }) => [owner.id, ...note.reads]));
  addFiguresBehind(shown, parts, notes);
  for (const page of form.pages) shown.add(page.id);
  for (const confirmation of form.confirmations) shown.add(confirmation.id);
  const boxes = [...parts.values()].filter((entry) => shown.has(entry.id)).map(boxOf);
  const hasUsualEnd = form.confirmations.every(({ when }) => when.trim() !== "");
  const endsEarly = form.pages.some(({ next }) => next.some(({ to }) => to === ""));
  if (endsEarly) boxes.push(ownBox(THE_END, "end", "The end of the form"));
  if (hasUsualEnd) boxes.push(ownBox(USUAL_END, "confirmation", "The form’s usual words"));
  return {
    boxes,
    arrows: [
      ...pathArrows(form, endsEarly, hasUsualEnd),
      ...holdingArrows(parts, shown),
      ...ruleArrows(rules, parts, shown),
      ...figureArrows(parts, notes, shown),
    ],
  };
}

/** What the figures on the map are worked out of, as far as it is answers that rules read, or further figures. */
function addFiguresBehind(shown: Set<string>, parts: Parts, notes: Record<string, Note[]>): void {
  const waiting = [...shown].filter((id) => parts.get(id)?.what === "figure");
  for (let id = waiting.pop(); id; id = waiting.pop())
    for (const read of (notes[id] ?? []).flatMap((note) => note.reads))
      if (!shown.has(read) && parts.get(read)?.what === "figure") {
        shown.add(read);
        waiting.push(read);
      }
}

function pathArrows(form: Form, endsEarly: boolean, hasUsualEnd: boolean): MapArrow[] {
  const spine = [...form.pages.map(({ id }) => id), ...(endsEarly ? [THE_END] : [])];
  const ends = [...form.confirmations.map(({ id }) => id), ...(hasUsualEnd ? [USUAL_END] : [])];
  return [
    ...spine.slice(1).map((id, at) => arrow("following", spine[at]!, id, "")),
    ...ends.map((end) => arrow("following", spine.at(-1)!, end, "")),
  ];
}

const arrow = (kind: MapArrow["kind"], from: string, to: string, label: string): MapArrow => ({
  id: `${kind} ${from} ${to} ${label}`,
  from,
  to,
  kind,
  label,
});

/** From each group, repeat or row kind on the map to what stands in it. */
function holdingArrows(parts: Parts, shown: ReadonlySet<string>): MapArrow[] {
  return [...shown].flatMap((id) => {
    const entry = parts.get(id);
    if (!entry || (entry.what !== "block" && entry.what !== "kind")) return [];
    let holder = entry.into.holder;
    while (!shown.has(holder)) holder = parts.get(holder)!.into.holder;
    return parts.get(holder)!.what === "page" ? [] : [arrow("holds", holder, id, "")];
  });
}

function ruleArrows(rules: readonly Rule[], parts: Parts, shown: ReadonlySet<string>): MapArrow[] {
  return rules.flatMap(({ owner, note, fact }) => {
    const rule = { owner: owner.id, setting: note.setting };
    if (fact === "next") {
      const named = note.words.find((words) => words.block && parts.get(words.block)?.what === "page");
      return [{ ...arrow("leads", owner.id, named?.block ?? THE_END, conditionOf(note.words, parts)), rule }];
    }
    return note.reads
      .filter((read) => shown.has(read) && read !== owner.id)
      .map((read) => ({ ...arrow("rule", read, owner.id, clauseOf(note.words, read)), rule }));
  });
}

function figureArrows(parts: Parts, notes: Record<string, Note[]>, shown: ReadonlySet<string>): MapArrow[] {
  return [...shown]
    .filter((id) => parts.get(id)?.what === "figure")
    .flatMap((id) => {
      const reads = new Set((notes[id] ?? []).flatMap((note) => note.reads));
      return [...reads].filter((read) => shown.has(read)).map((read) => arrow("rule", read, id, ""));
    });
}

const MOST_LABEL = 42;

const shortened = (text: string): string => (text.length > MOST_LABEL ? `${text.slice(0, MOST_LABEL - 1)}…` : text);

/** The pieces of a condition that speak of one block, without its name: "is more than 12", "is filled in and is not yes". */
function clauseOf(words: readonly Words[], read: string): string {
  const clauses: Words[][] = [[]];
  for (const piece of words.slice(1)) {
    if (piece.text === " and " || piece.text === ", or ") clauses.push([]);
    else clauses.at(-1)!.push(piece);
  }
  const speaking = clauses.filter((pieces) => pieces.some((piece) => piece.block === read));
  const texts = (speaking.length > 0 ? speaking : clauses.slice(0, 1)).map((clause) =>
    clause
      .filter((piece) => piece.block === null || (piece.block !== read && piece.text !== ""))
      .map((piece) => piece.text)
      .join("")
      .replace(/^ when /, "")
      .replace("the label of ", "")
      .trim(),
  );
  const isAny = words.some(({ text }) => text === ", or ");
  return shortened(texts.join(isAny ? " or " : " and "));
}

/** All of a condition that leads to a page, which its arrow points to: "1.3 Age is less than 18". */
function conditionOf(words: readonly Words[], parts: Parts): string {
  const condition = words.slice(words.findIndex(({ text }) => text.endsWith(" when ")) + 1);
  const name = (id: string) => `${parts.get(id)?.number} ${parts.get(id)?.title}`;
  return shortened(condition.map(({ text, block }) => (block ? name(block) : text)).join(""));
}

/** What the answers that are tried light up: boxes on the way, and arrows whose rule holds. */
export function litBy(
  map: RuleMap,
  outcome: OutcomeReply | undefined,
  isShown: (id: string) => boolean,
): ReadonlySet<string> {
  if (!outcome) return new Set();
  const path = outcome.outcome.path ?? [];
  const end = outcome.outcome.confirmation || USUAL_END;
  const way = [...path, ...(map.boxes.some(({ id }) => id === THE_END) ? [THE_END] : []), end];
  const lit = new Set<string>(way);
  for (const box of map.boxes)
    if ((box.what === "block" && isShown(box.id)) || (box.what === "figure" && outcome.values[box.id])) lit.add(box.id);
  for (const each of map.arrows) {
    const ends = lit.has(each.from) && lit.has(each.to);
    const holds = each.rule ? outcome.holding[each.rule.owner]?.[each.rule.setting] === true : true;
    const steps = each.kind === "following" ? isStep(way, each) : ends;
    if (each.kind !== "holds" && holds && steps && (ends || each.kind === "rule")) lit.add(each.id);
  }
  return lit;
}

const isStep = (way: readonly string[], { from, to }: MapArrow): boolean =>
  way.some((id, at) => id === from && way[at + 1] === to);
