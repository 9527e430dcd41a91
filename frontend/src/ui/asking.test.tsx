// @vitest-environment jsdom
// Small pieces of the workbench that keep people from losing something.
import { cleanup, render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Words } from "../app/brand/Words";
import { A_FORM } from "../testing/a_form";
import { onTheBench } from "../testing/on_the_bench";
import { AskFirst } from "./AskFirst";
import { DecimalField } from "./DecimalField";
import { KeptTextField } from "./KeptTextField";

afterEach(cleanup);

describe("what can't be undone", () => {
  const asked = (warning: string | null) => {
    const done = vi.fn();
    render(<AskFirst label="Delete" color="error" warning={warning} onDone={done} />);
    return { done, user: userEvent.setup() };
  };

  it("says what will happen, and happens on a second press, by keyboard too", async () => {
    const { done, user } = asked("It will be gone.");
    await user.click(screen.getByRole("button", { name: "Delete" }));
    expect(screen.getByRole("alert").textContent).toContain("It will be gone.");
    expect(done).not.toHaveBeenCalled();
    await user.keyboard("{Enter}");
    expect(done).toHaveBeenCalledOnce();
    expect(screen.queryByRole("alert")).toBeNull();
  });

  it("is left as it is, or done at once where nothing needs to be asked", async () => {
    const { done, user } = asked("It will be gone.");
    await user.click(screen.getByRole("button", { name: "Delete" }));
    await user.click(screen.getByRole("button", { name: "Leave it" }));
    expect(done).not.toHaveBeenCalled();
    cleanup();
    const plain = asked(null);
    await plain.user.click(screen.getByRole("button", { name: "Delete" }));
    expect(plain.done).toHaveBeenCalledOnce();
  });
});

describe("a text that is never blank", () => {
  it("may be cleared while it is typed, and is then what was written last", async () => {
    const kept: string[] = [];
    function Field() {
      const [name, setName] = useState("Spring");
      const keep = (text: string) => {
        kept.push(text);
        setName(text);
      };
      return <KeptTextField label="Name" value={name} onKeep={keep} />;
    }
    render(<Field />);
    const user = userEvent.setup();
    const field = screen.getByLabelText<HTMLInputElement>("Name");
    await user.clear(field);
    expect([field.value, kept]).toEqual(["", []]);
    await user.type(field, " ");
    await user.tab();
    expect(field.value).toBe("Spring");
    await user.clear(field);
    await user.type(field, "May");
    expect(kept).toEqual(["M", "Ma", "May"]);
  });
});

describe("a number", () => {
  it.each([
    ["7,25", false, "7.25", ""],
    ["-3", false, "-3", ""],
    ["", false, null, ""],
    ["1e3", false, undefined, "a number such as 2.5 is wanted, or nothing"],
    ["12", true, "12", ""],
    ["1.5", true, undefined, "a whole number is wanted, or nothing"],
  ])("typed as %j (whole: %s) is kept as %j", async (text, whole, expected, wrong) => {
    let kept: string | null | undefined;
    render(<DecimalField label="Most" value="5" whole={whole} onChange={(value) => (kept = value)} />);
    const user = userEvent.setup();
    const field = screen.getByLabelText<HTMLInputElement>("Most");
    await user.clear(field);
    kept = text === "" ? kept : undefined;
    if (text) await user.paste(text);
    expect(kept).toBe(expected);
    if (wrong) expect(screen.getByText(wrong)).toBeTruthy();
    else expect(field.getAttribute("aria-invalid")).toBe("false");
  });

  it.each([
    ["40", "“40” was not taken: 30 is the most. 5 stays."],
    ["0", "“0” was not taken: 1 is the least. 5 stays."],
    ["", "“” was not taken: a number is wanted here. 5 stays."],
  ])("that is not taken turns back when it is left, and says so: %j", async (text, said) => {
    const kept = vi.fn();
    render(<DecimalField whole label="Most" value="5" least={1} most={30} blank={false} onChange={kept} />);
    const user = userEvent.setup();
    const field = screen.getByLabelText<HTMLInputElement>("Most");
    await user.clear(field);
    if (text) await user.paste(text);
    await user.tab();
    expect([field.value, kept.mock.calls.length]).toEqual(["5", 0]);
    expect(screen.getByText(said)).toBeTruthy();
  });
});

describe("the author's words", () => {
  const WORDING = {
    submit: "Send",
    next: "Next",
    back: "Back",
    required: "Please answer this.",
    confirmation_title: "Thank you",
    confirmation_text: "",
    messages: { none: "Nothing of these" },
  };
  const opened = () => {
    const view = onTheBench(<Words />, { form: { ...A_FORM, wording: WORDING } as never });
    return { ...view, wording: () => view.bench().form.wording };
  };

  it("for buttons are never none; for what follows they may be", async () => {
    const { user, wording } = opened();
    await user.clear(screen.getByLabelText("Button that sends"));
    await user.clear(screen.getByLabelText("After sending: heading"));
    expect(wording()).toMatchObject({ submit: "Send", confirmation_title: "" });
    await user.type(screen.getByLabelText("Button to go on"), " page");
    expect(wording().next).toBe("Next page");
  });

  it("stand in place of the usual ones until they are cleared", async () => {
    const { user, wording } = opened();
    await user.click(screen.getByRole("button", { name: "Choices · 1 of your own" }));
    await user.clear(screen.getByLabelText("Button that takes a choice back"));
    expect(wording().messages).toEqual({});
    const usual = screen.getByLabelText<HTMLInputElement>("In an empty dropdown");
    expect(usual.placeholder).toBe("Choose …");
    await user.type(usual, "Which?");
    expect(wording().messages).toEqual({ choose: "Which?" });
  });
});
