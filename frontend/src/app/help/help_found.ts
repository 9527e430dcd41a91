// Questions with an answer, as what can be found by typing.
import type { Doable } from "../../ui/FindDialog";
import { answers, type Topic, TOPICS } from "./topics";

/** The questions that a search asks; all of them while nothing is looked for. */
export const helpFound = (search: string, onHelp: (topic: Topic) => void): (Doable & { group: "Help" })[] =>
  TOPICS.filter((topic) => search.trim() === "" || answers(topic, search)).map((topic) => ({
    id: `help-${topic.id}`,
    group: "Help",
    title: topic.question,
    detail: "",
    run: () => onHelp(topic),
  }));
