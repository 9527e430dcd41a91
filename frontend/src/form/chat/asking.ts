// How a step of a conversation is asked and answered: what leads to the question, and what the visitor answers with.
import type { BlockState } from "../../api/generated/wire";
import { shownText } from "../../fields/input";
import { optionsOf, type ShownOption } from "../../fields/shown_options";
import type { Face } from "../../model/blocks";
import { say } from "../../text/visitor";
import { isAsking, isLeading } from "../asked_blocks";
import { blocksWithin } from "../facts";
import type { FormSession } from "../session";
import type { Sum } from "./conversation";

const MOST_CHIPS = 12;
const WRITTEN: ReadonlySet<string> = new Set([
  "short_text",
  "long_text",
  "number",
  "money",
  "email",
  "phone",
  "web_address",
]);

type Page = FormSession["face"]["pages"][number];
type FactsOf = (block: string) => BlockState | undefined;

/** A choice that one press makes: what is sent for it, and how it is called. */
export interface Chip {
  answer: string | boolean;
  label: string;
  barred: boolean;
}

/** A step as it is asked: what is said before, the blocks that ask, what is told of them. */
export interface Asked {
  leads: readonly Face[];
  asks: readonly Face[];
  /** By a press on a choice, by writing, by filling in what the form shows, or not at all. */
  by: "choosing" | "writing" | "filling" | "nothing";
  /** The one question, where it is said in words. */
  question: Face | null;
  chips: readonly Chip[];
  mayBeLeftOut: boolean;
}

/** What of a step is shown: the blocks that lead to its question, and those that ask. */
export function saidIn(page: Page, factsOf: FactsOf): Pick<Asked, "leads" | "asks"> {
  const shown = page.blocks.filter((block) => factsOf(block.id)?.shown);
  return { leads: shown.filter(isLeading), asks: shown.filter(isAsking) };
}

export function askedIn(page: Page, factsOf: FactsOf, seed: number): Asked {
  const { leads, asks } = saidIn(page, factsOf);
  const question = asks.length === 1 ? asks[0]! : null;
  const facts = question ? factsOf(question.id)! : undefined;
  const open = question && facts && !facts.locked;
  const chips = open ? chipsOf(question, facts, seed) : [];
  const writes = open && (WRITTEN.has(question.type) || (question.type === "name" && question.parts === "one"));
  const by = asks.length === 0 ? "nothing" : chips.length > 0 ? "choosing" : writes ? "writing" : "filling";
  return { leads, asks, by, question, chips, mayBeLeftOut: by !== "filling" && !facts?.required };
}

function chipsOf(block: Face, facts: BlockState, seed: number): Chip[] {
  if (block.type === "yes_no")
    return [
      { answer: true, label: block.yes, barred: false },
      { answer: false, label: block.no, barred: false },
    ];
  const options = shownOptions(block, facts, seed);
  return options.length > MOST_CHIPS ? [] : options.map(({ id, label, barred }) => ({ answer: id, label, barred }));
}

function shownOptions(block: Face, facts: BlockState, seed: number): ShownOption[] {
  if (block.type === "record_choice" && !block.several && !facts.records?.more)
    return (facts.records?.listed ?? []).map((each) => ({ ...each, barred: false }));
  if (block.type === "slot")
    return (facts.slots?.days ?? []).flatMap(({ label, times }) =>
      times.map((time) => ({ id: time.id, label: `${label}, ${time.label}`, barred: false })),
    );
  return block.type === "single_choice" || block.type === "dropdown" ? optionsOf(block, facts, seed) : [];
}

/** What is worked out in a step, as visitors read it now. */
export function sumsIn(page: Page, factsOf: FactsOf): Sum[] {
  return blocksWithin(page.blocks).flatMap((block) => {
    const facts = factsOf(block.id);
    if (!facts?.shown || facts.unsettled) return [];
    if (block.type === "calculated" && facts.value)
      return [{ of: block.id, label: shownText(facts, "label", block.label), text: facts.value }];
    if (block.type === "order_summary" && facts.order)
      return [{ of: block.id, label: say("total"), text: facts.order.total }];
    return [];
  });
}
