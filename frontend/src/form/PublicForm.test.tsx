// @vitest-environment jsdom
// The public form as a visitor meets it: what is said, where the focus goes, and that no press is lost.
import { act, cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { receivedReply } from "../testing/received";
import type { FormFace, FormState, ReceivedReply } from "../api/generated/wire";
import type { Face } from "../model/blocks";
import { A_BRAND, block, factsWith } from "../testing/a_form";
import type { AnswerStore } from "./kept_answers";
import { Progress } from "./Progress";
import { PublicForm } from "./PublicForm";
import { FormSession } from "./session";
import { type Answers, AwayError, RefusedError } from "./transport";

Element.prototype.scrollIntoView = () => undefined;

const field = (id: string, more: object = {}) => block("short_text", id, { label: id, ...more }) as Face;
const face = (more: object = {}): FormFace =>
  ({
    title: "Plan a visit",
    lead: "",
    brand: A_BRAND,
    asks: ["adults"],
    locale: "en",
    languages: [],
    currency: "EUR",
    wording: { required: "Please answer this.", next: "Next", back: "Back", submit: "Send", messages: {} },
    presentation: "whole",
    enter: "next",
    progress: [],
    welcome: null,
    pages: [
      { id: "p1", title: "You", address: "", next_label: "", back_label: "", blocks: [field("adults"), field("name")] },
      { id: "p2", title: "Then", address: "", next_label: "", back_label: "Back to you", blocks: [field("note")] },
    ],
    ...more,
  }) as unknown as FormFace;

/** What a small form says of answers: more than 60 adults are too many, from 12 on a note is asked for. */
function stateOf(answers: Answers): FormState {
  const adults = Number(answers.adults ?? 0);
  const error = adults > 60 ? { code: "too_large", message: "Enter 60 or less." } : null;
  const blocks = {
    adults: factsWith({ error }),
    name: factsWith({ required: true }),
    note: factsWith({ shown: adults >= 12 }),
  };
  return { path: ["p1", "p2"], blocks };
}

const CONFIRMED = receivedReply("Thank you", {
  paragraphs: [
    { html: "<p>We wait for you.</p>", bars: [], picture: "", alternative: "" },
    { html: "", bars: [{ label: "Owl", share: 0.5, text: "50 %" }], picture: "", alternative: "" },
  ],
});

const ALL_WAYS = {
  face: face({ progress: ["left", "steps", "bar", "percent", "count"] }),
  state: { ...stateOf({}), left: 3 },
};

function opened({ shown = face(), store = null as AnswerStore | null } = {}) {
  const sent: { answers: Answers; resolve: (reply: ReceivedReply) => void; reject: (error: Error) => void }[] = [];
  const server = {
    state: (answers: Answers) => Promise.resolve(stateOf(answers)),
    submit: (answers: Answers) =>
      new Promise<ReceivedReply>((resolve, reject) => sent.push({ answers, resolve, reject })),
  };
  const session = new FormSession(shown, { state: stateOf({}) }, server, store);
  const [onRedirect, onOwnPage] = [vi.fn(), vi.fn()];
  render(
    <PublicForm
      session={session}
      form="form"
      upload={null}
      address="/f/a/b"
      onRedirect={onRedirect}
      onOwnPage={onOwnPage}
    />,
  );
  const user = userEvent.setup({ advanceTimers: vi.advanceTimersByTime });
  return { session, sent, user, onRedirect, onOwnPage };
}

const later = (ms = 500) => act(() => vi.advanceTimersByTimeAsync(ms));
const button = (name: string) => screen.getByRole("button", { name });

beforeEach(() => void vi.useFakeTimers({ shouldAdvanceTime: true }));
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

describe("Enter in a box of one line", () => {
  it("goes to the next field, and from the last to the button that sends", async () => {
    const { user, sent } = opened();
    await user.type(screen.getByLabelText("adults"), "12{Enter}");
    expect(document.activeElement).toBe(screen.getByLabelText(/^name/));
    await later();
    await user.keyboard("Ingrid{Enter}{Enter}");
    expect(document.activeElement).toBe(button("Send"));
    expect(sent).toHaveLength(0);
    await user.keyboard("{Enter}");
    await later();
    expect(sent).toHaveLength(1);
  });

  it("sends where the author wants it so", async () => {
    const { user, sent } = opened({ shown: face({ enter: "send" }) });
    await user.type(screen.getByLabelText(/^name/), "Ingrid{Enter}");
    await later();
    expect(sent).toHaveLength(1);
  });
});

describe("a page with errors", () => {
  const paged = () => opened({ shown: face({ presentation: "paged" }) });

  it("is not left: the first wrong field takes the focus, and a summary names what is wrong and leads to each", async () => {
    const { user } = paged();
    await user.type(screen.getByLabelText("adults"), "61");
    await user.click(button("Next"));
    await later();
    const summary = screen.getByRole("group", { name: "Some answers need another look." });
    expect(document.activeElement).toBe(screen.getByLabelText("adults"));
    expect(within(summary).getByRole("alert").textContent).toBe("Some answers need another look.");
    const found = within(summary).getAllByRole("listitem");
    expect(found.map((each) => each.textContent)).toEqual(["adults: Enter 60 or less.", "name: Please answer this."]);
    await user.click(within(summary).getByRole("link", { name: "name" }));
    expect(document.activeElement).toBe(screen.getByLabelText(/^name/));
    expect(screen.getByLabelText("adults").getAttribute("aria-describedby")).toBe("field-adults-error");
    await user.type(screen.getByLabelText(/^name/), "Ingrid");
    expect(screen.queryByRole("group", { name: "Some answers need another look." })).toBeNull();
  });

  it("keeps still while a button is pressed, so that the press is not lost", async () => {
    paged();
    fireEvent.change(screen.getByLabelText("adults"), { target: { value: "61" } });
    await later();
    screen.getByLabelText("adults").focus();
    fireEvent.pointerDown(button("Next"));
    fireEvent.blur(screen.getByLabelText("adults"));
    await later();
    expect(screen.queryByText("Enter 60 or less.")).toBeNull();
    fireEvent.pointerUp(button("Next"));
    fireEvent.click(button("Next"));
    await later();
    expect(screen.getAllByText("Enter 60 or less.")).toHaveLength(1);
    expect(screen.getByRole("group", { name: "Some answers need another look." })).toBeTruthy();
  });

  it("shows what it held back once a press is drawn away from the button", async () => {
    paged();
    fireEvent.change(screen.getByLabelText("adults"), { target: { value: "61" } });
    await later();
    fireEvent.pointerDown(button("Next"));
    fireEvent.blur(screen.getByLabelText("adults"));
    fireEvent.pointerUp(document.body);
    await later();
    expect(screen.getByText("Enter 60 or less.")).toBeTruthy();
  });
});

describe("going through the pages", () => {
  it("gives the focus to the page that was opened, and its own words to its buttons", async () => {
    const { user } = opened({ shown: face({ presentation: "paged", progress: ["count"] }) });
    await user.type(screen.getByLabelText("adults"), "12");
    await user.type(screen.getByLabelText(/^name/), "Ingrid");
    expect(screen.getByText("Page 1 of 2")).toBeTruthy();
    await user.click(button("Next"));
    await later();
    expect(document.activeElement).toBe(screen.getByRole("region", { name: "Then" }));
    expect(screen.getByText("Page 2 of 2")).toBeTruthy();
    await user.click(button("Back to you"));
    expect(screen.getByLabelText<HTMLInputElement>("adults").value).toBe("12");
    expect(document.activeElement).toBe(screen.getByRole("region", { name: "You" }));
  });

  it("begins after the welcome", async () => {
    const { user } = opened({ shown: face({ welcome: { title: "Hello", text: "<p>To us</p>", button: "Come in" } }) });
    expect(screen.queryByLabelText("adults")).toBeNull();
    await user.click(button("Come in"));
    expect(screen.getByLabelText("adults")).toBeTruthy();
  });

  it.each([
    ["steps", "list", "✓You2Then3Done"],
    ["percent", "status", "50 % done"],
    ["bar", "progressbar", ""],
  ])("tells progress as %s", async (progress, role, text) => {
    const { session } = opened({ shown: face({ presentation: "paged", progress: [progress] }) });
    session.change("name", "Ingrid");
    await act(() => session.next());
    const found = screen.getAllByRole(role).find((each) => each.textContent === text)!;
    if (progress === "bar") expect(found.getAttribute("aria-valuenow")).toBe("50");
    if (progress === "steps") expect(within(found).getByText("Then").closest("li")!.ariaCurrent).toBe("step");
    expect(found).toBeTruthy();
  });

  it("tells progress in several ways at once, and that all is done", () => {
    const { rerender } = render(<Progress {...ALL_WAYS} page="p1" done={false} />);
    expect(screen.getByRole("status").textContent).toBe("Page 1 of 2 · 0 % done · 3 questions left");
    expect(screen.getByRole("list").textContent).toBe("1You2Then3Done");
    rerender(<Progress {...ALL_WAYS} page={null} done />);
    expect(screen.getByRole("status").textContent).toBe("Done · 100 % done · 0 questions left");
    expect(screen.getByRole("progressbar").getAttribute("aria-valuenow")).toBe("100");
  });
});

describe("what is typed in", () => {
  it("keeps the focus when another block joins its line", async () => {
    const half = { width: "half" };
    const blocks = [field("note", half), field("adults", half)];
    const { user } = opened({ shown: face({ pages: [{ ...face().pages[0]!, blocks }] }) });
    const adults = screen.getByLabelText("adults");
    await user.type(adults, "1");
    await later();
    expect(screen.queryByLabelText("note")).toBeNull();
    await user.type(adults, "2");
    await later();
    expect(screen.getByLabelText("note")).toBeTruthy();
    expect(document.activeElement).toBe(adults);
    await user.keyboard("3");
    expect(screen.getByLabelText<HTMLInputElement>("adults").value).toBe("123");
  });

  it("is put back on another visit, which can be begun anew", async () => {
    const kept = {
      answers: { name: "Ingrid", gone: "x" },
      page: null,
      seed: 1,
      key: "k1",
      sending: false,
      at: Date.now(),
    };
    const store = { visit: "v1", elsewhere: false, load: () => kept, save: vi.fn(), clear: vi.fn() };
    const { user } = opened({ store });
    expect(screen.getByText(/We kept what you had filled in/)).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>(/^name/).value).toBe("Ingrid");
    await user.click(button("Start again"));
    expect(screen.getByLabelText<HTMLInputElement>(/^name/).value).toBe("");
    expect(store.clear).toHaveBeenCalled();
    expect(screen.queryByText(/We kept what you had filled in/)).toBeNull();
  });
});

describe("handing in", () => {
  const filled = async () => {
    const view = opened();
    await view.user.type(screen.getByLabelText(/^name/), "Ingrid");
    await view.user.click(button("Send"));
    return view;
  };

  it("says that it sends, takes no second press, and then gives the focus to the confirmation", async () => {
    const { user, sent } = await filled();
    expect(button("Sending …").ariaDisabled).toBe("true");
    await user.click(button("Sending …"));
    expect(sent.map(({ answers }) => answers)).toEqual([{ name: "Ingrid" }]);
    await act(async () => sent[0]!.resolve(CONFIRMED));
    const title = await screen.findByRole("heading", { name: "Thank you" });
    expect(document.activeElement).toBe(title);
    expect(screen.getByText("We wait for you.")).toBeTruthy();
    expect(screen.getByText("Owl").closest("div")!.textContent).toBe("Owl50 %");
  });

  it("goes on by itself when the connection is back, and says what it is doing meanwhile", async () => {
    const { sent } = await filled();
    await act(async () => sent[0]!.reject(new AwayError()));
    expect(screen.getByText(/Your answers are kept here, and we send them/)).toBeTruthy();
    await later(1_200);
    expect(sent).toHaveLength(2);
    await act(async () => sent[1]!.reject(new AwayError()));
    await act(async () => void dispatchEvent(new Event("online")));
    expect(sent).toHaveLength(3);
    await act(async () => sent[2]!.resolve(CONFIRMED));
    expect(await screen.findByRole("heading", { name: "Thank you" })).toBeTruthy();
  });

  it("that is refused shows why at the fields and above them", async () => {
    const { sent } = await filled();
    const errors = { name: { code: "taken", message: "Somebody has that name." } };
    const reply = { code: "invalid", message: "Some answers need another look.", errors };
    await act(async () => sent[0]!.reject(new RefusedError(reply)));
    expect(screen.getAllByText(/Somebody has that name/)).toHaveLength(2);
    expect(button("Send").ariaDisabled).toBeNull();
  });

  it("leads elsewhere where the confirmation does", async () => {
    const { sent, onRedirect } = await filled();
    const redirect = "https://alderlight.example.org/thanks";
    await act(async () => sent[0]!.resolve(receivedReply("", { redirect })));
    expect(onRedirect).toHaveBeenCalledExactlyOnceWith(redirect, false);
  });

  it("goes on to its own page where the confirmation has one", async () => {
    const { sent, onOwnPage } = await filled();
    await act(async () => sent[0]!.resolve(receivedReply("Thank you", { own_page: true })));
    expect(onOwnPage).toHaveBeenCalledExactlyOnceWith("/received/f/1/m");
  });

  it("can be printed, kept, handed on, and filled in once more", async () => {
    const { sent, user } = await filled();
    await act(async () => sent[0]!.resolve(receivedReply("Thank you", { again: true, printing: true, sharing: true })));
    expect((await screen.findByRole("link", { name: "Keep as PDF" })).getAttribute("href")).toBe("/received/f/1/m/pdf");
    const link = new URL("/f/a/b", location.href).href;
    expect(screen.getByRole("link", { name: "By e-mail" }).getAttribute("href")).toBe(
      `mailto:?body=${encodeURIComponent(link)}`,
    );
    await user.click(button("Send another"));
    expect(screen.queryByRole("heading", { name: "Thank you" })).toBeNull();
    expect(button("Send")).toBeTruthy();
  });
});
