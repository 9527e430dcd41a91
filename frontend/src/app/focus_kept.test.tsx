// @vitest-environment jsdom
// The focus goes on where what had it goes away, and is let go where somebody leaves by themselves.
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { useFocusKept } from "./focus_kept";
import { leaveFocus } from "./leave_focus";

beforeEach(() => {
  vi.useFakeTimers();
  // jsdom lays nothing out.
  vi.spyOn(Element.prototype, "getClientRects").mockReturnValue([{}] as never);
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.restoreAllMocks();
});

function Screen({ offered }: { offered: boolean }) {
  useFocusKept();
  return (
    <main>
      <h1>Rules</h1>
      {offered && <button type="button">Remove</button>}
    </main>
  );
}

const shown = (offered: boolean) => (
  <MemoryRouter>
    <Screen offered={offered} />
  </MemoryRouter>
);

function focused() {
  const { rerender } = render(shown(true));
  const button = screen.getByRole("button");
  act(() => button.focus());
  return { button, takeAway: () => rerender(shown(false)) };
}

it("goes to the heading where the button that was pressed is gone", () => {
  const { button, takeAway } = focused();
  fireEvent.keyUp(button, { key: "Enter" });
  takeAway();
  act(() => vi.advanceTimersByTime(100));
  expect(document.activeElement).toBe(screen.getByRole("heading", { name: "Rules" }));
});

it.each([
  ["Tab", () => fireEvent.keyDown(document.activeElement!, { key: "Tab" })],
  ["a press on nothing", () => fireEvent.pointerDown(document.body)],
])("is let go by %s", (_how, leave) => {
  const { button } = focused();
  leave();
  act(() => button.blur());
  fireEvent.keyUp(document.body, { key: "Tab" });
  act(() => vi.advanceTimersByTime(4000));
  expect(document.activeElement).toBe(document.body);
});

it("goes on to the heading from what is done with, and not back", () => {
  const { button } = focused();
  act(() => leaveFocus(button));
  fireEvent.keyUp(document.body, { key: "Enter" });
  act(() => vi.advanceTimersByTime(100));
  expect(document.activeElement).toBe(screen.getByRole("heading", { name: "Rules" }));
});
