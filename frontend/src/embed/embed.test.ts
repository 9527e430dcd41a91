// @vitest-environment jsdom
// The script that websites load, in a page of its own making: places, what the frame says, and what is said on.
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";

const FORMS = "https://forms.example.org";

const watching: MutationObserver[] = [];

beforeAll(async () => {
  const script = Object.assign(document.createElement("script"), { src: `${FORMS}/embed/1.js` });
  Object.defineProperty(document, "currentScript", { value: script, configurable: true });
  vi.stubGlobal(
    "MutationObserver",
    class extends MutationObserver {
      constructor(callback: MutationCallback) {
        super(callback);
        watching.push(this);
      }
    },
  );
  vi.stubGlobal(
    "CSSStyleSheet",
    class {
      replaceSync = () => undefined;
    },
  );
  await import("./embed");
});
afterAll(() => {
  for (const each of watching) each.disconnect();
  vi.unstubAllGlobals();
});

/** Puts this into the page, where the script finds it. */
async function load(body: string) {
  document.body.innerHTML = body;
  await new Promise((done) => setTimeout(done));
}

const host = (at = 0) => document.querySelectorAll<HTMLElement>("[data-codexa]")[at]!;
const frame = (at = 0) => host(at).shadowRoot!.querySelector("iframe")!;

/** What the form in a frame says; from another origin or window, if that is tried. */
function say(message: unknown, { origin = FORMS, source = frame().contentWindow as Window | null } = {}) {
  window.dispatchEvent(new MessageEvent("message", { data: message, origin, source }));
}

const heard = (name: string) => {
  const listener = vi.fn<(event: Event) => void>();
  document.addEventListener(`codexa:${name}`, listener);
  return () => listener.mock.calls.map(([event]) => (event as CustomEvent<object>).detail);
};

beforeEach(() => {
  sessionStorage.clear();
  history.replaceState(null, "", "/visit?topic=stars");
  HTMLDialogElement.prototype.showModal = function (this: HTMLDialogElement) {
    this.open = true;
  };
  HTMLDialogElement.prototype.show = HTMLDialogElement.prototype.showModal;
  HTMLDialogElement.prototype.close = function (this: HTMLDialogElement) {
    this.open = false;
    this.dispatchEvent(new Event("close"));
  };
});
afterEach(() => sessionStorage.clear());

describe("a place in the page", () => {
  it("becomes a frame that knows where it stands, with the page's own values and those of the place", async () => {
    await load(
      '<div data-codexa="alderlight/visit" data-codexa-title="Visit" data-codexa-values="guests=4&topic=moon"></div>',
    );
    const address = new URL(frame().src);
    expect(address.origin + address.pathname).toBe(`${FORMS}/embed/alderlight/visit`);
    expect(Object.fromEntries(address.searchParams)).toEqual({
      topic: "moon",
      guests: "4",
      "codexa-as": "script",
      "codexa-from": `${location.origin}/visit`,
    });
    expect(frame().title).toBe("Visit");
  });

  it("keeps its room, grows with the form, and shrinks to nothing for no message", async () => {
    await load('<div data-codexa="a/b" data-codexa-room="700"></div>');
    expect(host().style.minHeight).toBe("700px");
    for (const height of [812.4, 0, -5, NaN, "900", null]) say({ codexa: "height", height });
    expect(frame().style.height).toBe("813px");
    expect(frame().style.getPropertyPriority("height")).toBe("important");
    say({ codexa: "height", height: 10 ** 9 });
    expect(frame().style.height).toBe("50000px");
  });

  it("tells the page what happened, once each, never more than is meant for it", async () => {
    await load('<div data-codexa="a/b" data-codexa-list="happened"></div>');
    const [submitted, pages] = [heard("submitted"), heard("page")];
    say({ codexa: "submitted", id: 7, answers: { secret: 1 } });
    say({ codexa: "page", page: "two" });
    expect(submitted()).toEqual([{ form: "a/b", id: 7 }]);
    expect(pages()).toEqual([{ form: "a/b", page: "two" }]);
    expect((window as unknown as { happened: object[] }).happened).toEqual([
      { event: "codexa:submitted", form: "a/b", id: 7 },
      { event: "codexa:page", form: "a/b", page: "two" },
    ]);
  });

  it("hears nobody else: another origin, another window, or what is no message", async () => {
    await load('<div data-codexa="a/b"></div>');
    const ready = heard("ready");
    say({ codexa: "ready" }, { origin: "https://stranger.example.org" });
    say({ codexa: "ready" }, { source: window });
    for (const message of [null, "ready", 7, { codexa: "constructor" }, { codexa: ["ready"] }]) say(message);
    expect(ready()).toEqual([]);
    say({ codexa: "ready" });
    expect(ready()).toEqual([{ form: "a/b" }]);
  });

  it("is found when a script puts it there later, and again when it was taken off", async () => {
    await load("");
    document.body.innerHTML = '<main><div data-codexa="a/late"></div></main>';
    await vi.waitFor(() => expect(host().shadowRoot).not.toBeNull());
    const place = host();
    place.remove();
    await new Promise((done) => setTimeout(done));
    document.body.append(place);
    await new Promise((done) => setTimeout(done));
    const ready = heard("ready");
    say({ codexa: "ready" });
    expect(ready()).toHaveLength(1);
  });
});

describe("a window", () => {
  const POP_UP =
    '<button id="mine">Mine</button><div data-codexa="a/b" data-codexa-as="pop-up" data-codexa-opener="#mine" data-codexa-title="Order"></div>';
  const dialog = () => host().shadowRoot!.querySelector("dialog")!;

  it("is opened by what of the page is named, loads its form then, and is closed by the form's own Escape", async () => {
    await load(POP_UP);
    expect(host().shadowRoot!.querySelector("iframe")).toBeNull();
    const [opened, closed] = [heard("opened"), heard("closed")];
    document.querySelector<HTMLElement>("#mine")!.click();
    expect([dialog().open, dialog().getAttribute("aria-label")]).toEqual([true, "Order"]);
    const first = frame();
    say({ codexa: "leave" });
    expect([dialog().open, opened().length, closed().length]).toEqual([false, 1, 1]);
    expect(document.activeElement?.id).toBe("mine");
    document.querySelector<HTMLElement>("#mine")!.click();
    expect(frame()).toBe(first);
  });

  it("that was closed opens by itself no more, and a selector that is none harms nothing", async () => {
    await load(
      '<p>x</p><div data-codexa="a/b" data-codexa-as="corner" data-codexa-leaving data-codexa-opener="][" data-codexa-button="Ask"></div>',
    );
    const leaveThePage = () => document.dispatchEvent(new MouseEvent("mouseout", { clientY: -1, relatedTarget: null }));
    leaveThePage();
    expect(dialog().open).toBe(true);
    host().shadowRoot!.querySelector<HTMLElement>("[aria-label=Close]")!.click();
    leaveThePage();
    document.querySelector("p")!.click();
    expect(dialog().open).toBe(false);
    host().shadowRoot!.querySelector<HTMLElement>("button.open")!.click();
    expect(dialog().open).toBe(true);
  });
});

describe("a corner window that greets", () => {
  const CORNER =
    '<div data-codexa="a/quiz" data-codexa-as="corner" data-codexa-shown="chat" data-codexa-after="0" ' +
    'data-codexa-greeting="Do you know the sky?">Quiz</div>';
  const greeting = () => host().shadowRoot!.querySelector(".greeting");

  it("says its words without opening, opens by a press on them, and asks for the conversation", async () => {
    await load(CORNER);
    await vi.waitFor(() => expect(greeting()?.textContent).toContain("Do you know the sky?"));
    expect(host().shadowRoot!.querySelector("iframe")).toBeNull();
    greeting()!.querySelector<HTMLElement>(".words")!.click();
    expect(greeting()).toBeNull();
    expect(frame().src).toContain("codexa-shown=chat");
  });

  it("is silent for good once it was sent away", async () => {
    await load(CORNER);
    await vi.waitFor(() => expect(greeting()).not.toBeNull());
    greeting()!.querySelector<HTMLElement>(".hush")!.click();
    await load(CORNER);
    await new Promise((done) => setTimeout(done, 30));
    expect(greeting()).toBeNull();
  });
});
