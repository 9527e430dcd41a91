// @vitest-environment jsdom
import { describe, expect, it } from "vitest";
import { attributesOf, type SnippetOptions, snippetOf, standOf } from "./snippet";

const ADDRESS = "https://forms.example.org/f/alderlight/visit";
const options = (changes: Partial<SnippetOptions>): SnippetOptions => ({
  way: "page",
  title: "Plan a visit",
  button: "Come up",
  opener: "",
  after: "",
  shown: "",
  language: "",
  greeting: "",
  leaving: false,
  width: "",
  room: "640",
  fragment: false,
  values: {},
  list: "",
  close: "Close",
  colour: "#2b3a8c",
  on: "#ffffff",
  strict: false,
  ...changes,
});

describe("a snippet", () => {
  it("keeps room, has a link for where no script runs, and the script of its version", () => {
    expect(snippetOf(ADDRESS, options({}))).toBe(
      '<div data-codexa="alderlight/visit" data-codexa-title="Plan a visit" data-codexa-room="640" style="min-height: 640px">' +
        `<a href="${ADDRESS}">Plan a visit</a></div>\n` +
        '<script async src="https://forms.example.org/embed/1.js"></script>',
    );
  });

  it("has nothing inline for a page that lets in none, and its script first", () => {
    const [script, place] = snippetOf(ADDRESS, options({ strict: true })).split("\n");
    expect(script).toBe('<script src="https://forms.example.org/embed/1.js"></script>');
    expect(place).not.toContain("style=");
  });

  it("says of each way only what means something there", () => {
    const popUp = attributesOf(options({ way: "pop-up", after: "5", leaving: true, fragment: true }));
    expect(popUp).toEqual({
      as: "pop-up",
      title: "Plan a visit",
      button: "Come up",
      after: "5",
      leaving: "",
      colour: "#2b3a8c",
      on: "#ffffff",
    });
    expect(attributesOf(options({ way: "tab", after: "5", leaving: true }))).not.toHaveProperty("after");
    const corner = attributesOf(options({ way: "corner", after: "5", greeting: "Hello", shown: "chat" }));
    expect(corner).toMatchObject({ as: "corner", after: "5", greeting: "Hello", shown: "chat" });
    expect(attributesOf(options({ way: "corner", after: "5" }))).not.toHaveProperty("after");
    expect(snippetOf(ADDRESS, options({ way: "link", shown: "chat" }))).toContain("?codexa-shown=chat");
    expect(attributesOf(options({ language: "de" }))).toMatchObject({ language: "de" });
    expect(snippetOf(ADDRESS, options({ way: "frame", language: "de" }))).toContain("?codexa-language=de");
    expect(attributesOf(options({ way: "pop-up", opener: ".order" }))).not.toHaveProperty("button");
    expect(snippetOf(ADDRESS, options({ way: "link" }))).toBe(`<a href="${ADDRESS}">Plan a visit</a>`);
    expect(snippetOf(ADDRESS, options({ way: "frame", width: "500" }))).toContain('width="500" height="640"');
  });

  it("lets no sign of a title or a value end what it stands in", () => {
    document.body.innerHTML = snippetOf(
      ADDRESS,
      options({ title: `"><script>alert(1)</script>&`, values: { talk: 'Glass & "patience" + 50 % #7' } }),
    );
    const place = document.querySelector<HTMLElement>("[data-codexa]")!;
    expect(place.dataset.codexaTitle).toBe(`"><script>alert(1)</script>&`);
    expect(new URLSearchParams(place.dataset.codexaValues).get("talk")).toBe('Glass & "patience" + 50 % #7');
    const link = new URL(place.querySelector("a")!.href);
    expect(link.searchParams.get("talk")).toBe('Glass & "patience" + 50 % #7');
    expect(document.querySelectorAll("script")).toHaveLength(1);
  });

  it("stands so on the practice website", () => {
    const stands = new URL(standOf("http://127.0.0.1:8790", ADDRESS, options({ way: "corner", width: "420" })));
    expect(stands.pathname).toBe("/stand");
    expect(Object.fromEntries(stands.searchParams)).toMatchObject({
      form: "alderlight/visit",
      as: "corner",
      width: "420",
    });
  });
});
