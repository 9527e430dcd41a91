// @vitest-environment jsdom
// The editor of rich text in what React hides and shows again.
import { render, screen } from "@testing-library/react";
import { Activity, act } from "react";
import { expect, it } from "vitest";
import { RichTextField } from "./RichTextField";

const wait = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

it("is there again after it was hidden while something loaded", async () => {
  const field = <RichTextField label="Words" value="<p>Clear skies</p>" onChange={() => undefined} />;
  const { rerender } = render(<Activity mode="visible">{field}</Activity>);
  rerender(<Activity mode="hidden">{field}</Activity>);
  await act(() => wait(50));
  rerender(<Activity mode="visible">{field}</Activity>);
  await act(() => wait(50));
  expect(screen.getByRole("textbox", { name: "Words" }).textContent).toBe("Clear skies");
});
