// The fields whose answers give points, with their options.
import type { Option } from "../../api/generated/wire";
import { type Block, isQuestion } from "../../model/blocks";
import { keyFrom } from "../../model/outline";
import type { Entry, Figure, Parts } from "../../model/parts";

export type ProfileFigure = Extract<Figure, { kind: "profile" }>;
export type ProfiledQuestion = ProfileFigure["questions"][number];

export type QuestionEntry = Extract<Entry, { what: "block" }>;

/** Whether an answer can be right or bring points: all questions but grids, whose answer is many. */
const givesPoints = (block: Block): boolean => isQuestion(block) && !("questions" in block);

/** The fields outside rows that visitors answer, in the order of the outline. */
export const questionsOf = (parts: Parts): QuestionEntry[] =>
  [...parts.values()].flatMap((entry) =>
    entry.what === "block" && entry.kind === null && givesPoints(entry.part) ? [entry] : [],
  );

/** What an answer can be, with the code that points and right answers go by; nothing where anything can be written. */
export function optionsIn(block: Block): readonly Pick<Option, "id" | "code" | "label">[] {
  if (block.type !== "yes_no") return "options" in block ? block.options : [];
  return [
    { id: "yes", code: "TRUE", label: block.yes },
    { id: "no", code: "FALSE", label: block.no },
  ];
}

/** A map with one entry set, or left out where it is null or nothing. */
export function withPoints(
  points: Readonly<Record<string, string>>,
  code: string,
  value: string | null,
): Record<string, string> {
  const rest = Object.fromEntries(Object.entries(points).filter(([each]) => each !== code));
  return value === null || Number(value) === 0 ? rest : { ...rest, [code]: value };
}

/** The answers of a text with ; between them, each once. */
export const answersIn = (text: string): string[] => [
  ...new Set(
    text
      .split(";")
      .map((each) => each.trim())
      .filter(Boolean),
  ),
];

/** A question with the points that an option gives a profile; nothing where they are null or nothing. */
export function withCell(
  question: ProfiledQuestion,
  code: string,
  profile: string,
  value: string | null,
): ProfiledQuestion {
  const row = withPoints(question.points[code] ?? {}, profile, value);
  const rest = Object.fromEntries(Object.entries(question.points).filter(([each]) => each !== code));
  return { ...question, points: Object.keys(row).length > 0 ? { ...rest, [code]: row } : rest };
}

/** A question without what its options give a profile. */
export const withoutProfile = (question: ProfiledQuestion, profile: string): ProfiledQuestion =>
  Object.keys(question.points).reduce((kept, code) => withCell(kept, code, profile, null), question);

/**
 * A figure's profiles and questions with another name for a profile; its code follows as long as it was made of the
 * name and no formula can name it (`isRead`: whether one reads the figure).
 */
export function withProfileNamed(
  { profiles, questions }: Pick<ProfileFigure, "profiles" | "questions">,
  at: number,
  label: string,
  isRead: boolean,
): Pick<ProfileFigure, "profiles" | "questions"> {
  const old = profiles[at]!;
  const others = profiles.filter((_each, index) => index !== at).map(({ code }) => code);
  const code = !isRead && old.code === keyFrom(old.label, others) ? keyFrom(label, others) : old.code;
  const renamed = (question: ProfiledQuestion): ProfiledQuestion =>
    Object.keys(question.points).reduce(
      (kept, option) => withCell(kept, option, code, question.points[option]![old.code] ?? null),
      withoutProfile(question, old.code),
    );
  return {
    profiles: profiles.map((each, index) => (index === at ? { ...each, code, label } : each)),
    questions: code === old.code ? questions : questions.map(renamed),
  };
}
