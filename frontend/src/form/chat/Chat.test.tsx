// @vitest-environment jsdom
// The form as a conversation: what is asked, said, asked again and changed, and what is left once it begins anew.
import { act, cleanup, render, screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { FormFace, FormState } from "../../api/generated/wire";
import type { Face } from "../../model/blocks";
import { A_BRAND, block, factsWith } from "../../testing/a_form";
import { receivedReply } from "../../testing/received";
import { PublicForm } from "../PublicForm";
import { FormSession } from "../session";
import type { Answers } from "../transport";

Element.prototype.scrollIntoView = () => undefined;

const step = (id: string, ...blocks: unknown[]) => ({ id, title: "", address: "", blocks: blocks as Face[] });
const face = {
  title: "Plan a visit",
  lead: "",
  brand: A_BRAND,
  asks: ["group", "adults", "school"],
  locale: "en",
  languages: [],
  currency: "EUR",
  wording: { required: "Please answer this.", next: "Next", back: "Back", submit: "Send", messages: {} },
  presentation: "chat",
  page_addresses: "names",
  enter: "next",
  progress: [],
  welcome: null,
  pages: [
    step("words", block("text", "words", { text: "<p>Good evening.</p>" })),
    step("group", block("yes_no", "group", { label: "Are you a group?", yes: "Yes", no: "No" })),
    step("school", block("short_text", "school", { label: "Which group?" })),
    step(
      "adults",
      block("number", "adults", { label: "How many?" }),
      block("calculated", "price", { label: "Admission" }),
    ),
  ],
} as unknown as FormFace;

/** What a small form says of answers: of a group the name is asked for; more than 60 are too many; each costs 2. */
function stateOf(answers: Answers): FormState {
  const adults = Number(answers.adults ?? 0);
  const error = adults > 60 ? { code: "too_large", message: "Enter 60 or less." } : null;
  const path = ["words", "group", ...(answers.group === true ? ["school"] : []), "adults"];
  const told = { group: answers.group === true ? "Yes" : "No", school: answers.school, adults: answers.adults };
  const said = Object.entries(told)
    .filter(([page]) => (answers[page] ?? null) !== null && path.includes(page))
    .map(([page, text]) => ({ page, title: "", answers: [{ label: page, text: String(text) }] }));
  const blocks = {
    words: factsWith({}),
    group: factsWith({ required: true }),
    school: factsWith({ shown: path.includes("school") }),
    adults: factsWith({ required: true, error }),
    price: factsWith({ value: adults && !error ? `€${adults * 2}` : null }),
  };
  return { path, blocks, said };
}

function opened() {
  const sent: Answers[] = [];
  const server = {
    state: (answers: Answers) => Promise.resolve(stateOf(answers)),
    spoken: (_block: string, words: string) =>
      Promise.resolve(
        words === "sure"
          ? { answer: true, error: null }
          : { answer: null, error: { code: "not_yes_or_no", message: "Choose Yes or No." } },
      ),
    submit: (answers: Answers) => {
      sent.push(answers);
      return Promise.resolve(receivedReply("Thank you", { again: true }));
    },
  };
  const session = new FormSession(face, { state: stateOf({}) }, server);
  const nothing = () => undefined;
  render(
    <PublicForm session={session} form="form" upload={null} address={null} onRedirect={nothing} onOwnPage={nothing} />,
  );
  const user = userEvent.setup({ advanceTimers: vi.advanceTimersByTime });
  return { session, sent, user };
}

const later = () => act(() => vi.advanceTimersByTimeAsync(500));
const log = () => within(screen.getByRole("log"));
const press = async (user: ReturnType<typeof opened>["user"], name: string) => {
  await user.click(screen.getByRole("button", { name }));
  await later();
};
const write = async (user: ReturnType<typeof opened>["user"], label: string, words: string) => {
  const box = screen.getByLabelText((found) => found.startsWith(label));
  await user.clear(box);
  await user.type(box, `${words}{Enter}`);
  await later();
};

beforeEach(() => void vi.useFakeTimers({ shouldAdvanceTime: true }));
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

describe("a conversation", () => {
  it("says what leads, asks one after the other, tells a sum, and sends once all was said", async () => {
    const { user, sent } = opened();
    await screen.findByRole("log");
    await later();
    expect(log().getByText("Good evening.")).toBeTruthy();
    expect(screen.queryByText("How many?")).toBeNull();
    await press(user, "No");
    expect(log().getByText("No")).toBeTruthy();
    await write(user, "How many?", "61");
    expect(log().getByText("Enter 60 or less.")).toBeTruthy();
    await write(user, "How many?", "12");
    expect(log().getByText("€24")).toBeTruthy();
    expect(log().getByText("That is all. Is everything as you want it?")).toBeTruthy();
    await press(user, "Send");
    expect(sent).toEqual([{ group: false, adults: "12" }]);
  });

  it("understands words, asks again what means nothing, and asks what a change brings", async () => {
    const { user } = opened();
    await screen.findByRole("log");
    await later();
    await write(user, "Or write it here", "perhaps");
    expect(log().getByText("Choose Yes or No.")).toBeTruthy();
    await write(user, "Or write it here", "sure");
    await press(user, "Leave it out");
    expect(log().getByText("Left out")).toBeTruthy();
    await write(user, "How many?", "3");
    await press(user, "Change: Are you a group?");
    await press(user, "No");
    expect(log().queryByText("Left out")).toBeNull();
    expect(screen.getByRole("button", { name: "Send" })).toBeTruthy();
    await press(user, "Change: Are you a group?");
    await press(user, "Yes");
    // It was left out before, and stands there so again.
    expect(log().getByText("Left out")).toBeTruthy();
  });

  it("begins anew with nothing said", async () => {
    const { user, session } = opened();
    await screen.findByRole("log");
    await later();
    await press(user, "No");
    await write(user, "How many?", "2");
    await press(user, "Send");
    await user.click(await screen.findByRole("button", { name: "Send another" }));
    await later();
    expect(session.ownAnswers()).toEqual({});
    expect(log().queryByText("Left out")).toBeNull();
    expect(log().queryByText("How many?")).toBeNull();
    expect(screen.getByRole("button", { name: "Yes" })).toBeTruthy();
  });
});
