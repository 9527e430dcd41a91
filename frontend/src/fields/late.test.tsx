// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, expect, it } from "vitest";
import { late } from "./late";

afterEach(cleanup);

function pieceThatFails(times: number) {
  let tries = 0;
  const load = () =>
    ++tries <= times ? Promise.reject(new Error("no line")) : Promise.resolve({ default: () => <p>Here it is</p> });
  return late<object>(load);
}

it("draws a piece once it has come", async () => {
  const Piece = pieceThatFails(0);
  await act(async () => render(<Piece />));
  expect(screen.getByText("Here it is")).toBeTruthy();
});

it("offers another try where it has not come, and never stands empty", async () => {
  const Piece = pieceThatFails(1);
  await act(async () => render(<Piece />));
  expect(screen.getByRole("alert").textContent).toContain("has not come through");
  await act(async () => screen.getByRole("button", { name: "Try again" }).click());
  expect(screen.getByText("Here it is")).toBeTruthy();
});

it("leaves what does the same in its place for as long", async () => {
  const Piece = pieceThatFails(1);
  await act(async () => render(<Piece meanwhile={<p>A plain one</p>} />));
  expect(screen.getByText("A plain one")).toBeTruthy();
  await expect(Piece.prefetch()).resolves.toBeUndefined();
});

it("takes no list from who uses it, and comes once they have left it", async () => {
  let arrive: (piece: { default: () => ReactNode }) => void = () => undefined;
  const Piece = late<object>(() => new Promise((resolve) => (arrive = resolve)));
  render(<Piece meanwhile={<select aria-label="A plain one" autoFocus />} />);
  fireEvent.keyDown(screen.getByLabelText("A plain one"), { key: "ArrowDown" });
  await act(async () => arrive({ default: () => <p>Here it is</p> }));
  expect(document.activeElement).toBe(screen.getByLabelText("A plain one"));
  await act(async () => screen.getByLabelText("A plain one").blur());
  expect(screen.getByText("Here it is")).toBeTruthy();
});

it("takes on the focus of what only waits in its place", async () => {
  const Piece = late<object>(async () => ({ default: () => <input id="it" aria-label="The real one" /> }));
  await act(async () => render(<Piece meanwhile={<input id="it" readOnly autoFocus />} />));
  expect(document.activeElement).toBe(screen.getByLabelText("The real one"));
});

it("asks for all that is missing at one press", async () => {
  const [First, Second] = [pieceThatFails(1), pieceThatFails(1)];
  await act(async () =>
    render(
      <>
        <First />
        <Second />
        <Second />
      </>,
    ),
  );
  await act(async () => screen.getAllByRole("button", { name: "Try again" })[1]!.click());
  expect(screen.getAllByText("Here it is")).toHaveLength(3);
});
