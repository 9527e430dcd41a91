// @vitest-environment jsdom
// The editor of rich text in what React hides and shows again.
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import type { Editor } from "@tiptap/react";
import { Activity, act } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { takenOut } from "./rich_text_limits";
import { RichTextField } from "./RichTextField";

afterEach(cleanup);

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

describe("the toolbar", () => {
  const written = async (value: string, ...tools: string[]) => {
    const onChange = vi.fn();
    render(<RichTextField label="Words" value={value} onChange={onChange} />);
    const box = await screen.findByRole<HTMLElement & { editor: Editor }>("textbox", { name: "Words" });
    box.editor.commands.selectAll();
    for (const name of tools) fireEvent.click(screen.getByRole("button", { name }));
    return String(onChange.mock.lastCall?.[0]);
  };

  it.each([
    [["Underlined"], "<p><u>Clear skies</u></p>"],
    [["Accent"], '<p><span class="cx-accent">Clear skies</span></p>'],
    [["Small", "Large"], '<p><span class="cx-large">Clear skies</span></p>'],
    [["Large", "Large"], "<p>Clear skies</p>"],
    [["Centred"], '<p class="cx-centre">Clear skies</p>'],
    [["Centred", "At the end"], '<p class="cx-end">Clear skies</p>'],
    [["Centred", "Centred"], "<p>Clear skies</p>"],
  ])("sets words and lines: %s", async (tools, html) => {
    expect(await written("<p>Clear skies</p>", ...tools)).toBe(html);
  });

  it("keeps what an earlier text was set with", async () => {
    const text = '<p class="cx-small">Go <span class="cx-accent">back</span></p>';
    expect(await written(text, "Bold", "Bold")).toBe(text);
  });
});

describe("HTML that holds more than a text may", () => {
  it.each([
    ['<p class="cx-small">Fine <a href="https://example.org" rel="noopener">there</a></p>', []],
    ['<p onclick="x()" style="color:red">a</p><script>x()</script>', ["onclick of <p>", "style of <p>", "<script>"]],
    [
      '<a href="javascript:x()">a</a> <span class="big cx-large">b</span>',
      ["the address javascript:x()", "the class big"],
    ],
    ['<a href="{link}">a</a>', []],
  ])("is told what will be taken out: %s", (html, told) => {
    expect(takenOut(html)).toEqual(told);
  });
});
