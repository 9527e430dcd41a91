// @vitest-environment jsdom
// What visitors enter into each type of field, what travels to the core, and what its answers look like.
import usual from "../api/generated/usual_words.json";
import { cleanup, fireEvent, waitFor, within } from "@testing-library/react";
import fc from "fast-check";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { UploadReply } from "../api/generated/wire";
import { BLOCK_TYPES, type BlockKind } from "../model/blocks";
import { drawn, option } from "../testing/one_block";
import { speakAs } from "../text/visitor";

// jsdom lays nothing out.
Element.prototype.scrollIntoView = () => undefined;

afterEach(() => {
  cleanup();
  speakAs(usual);
});

const OPTIONS = [option("deep", "Deep sky"), option("near", "Planets"), option("sun", "The Sun")];
const MANY = Array.from({ length: 30 }, (_each, at) => option(`o${at}`, `Star ${at}`));
const WITH_OTHER = { options: OPTIONS, other: true, other_label: "Something else" };

describe("text", () => {
  it.each<[BlockKind, string]>([
    ["short_text", "text"],
    ["long_text", "text"],
    ["number", "12,5"],
    ["money", "4.50"],
    ["email", "ingrid@example.org"],
    ["phone", "+49 40 123456"],
    ["web_address", "https://alderlight.example.org"],
  ])("of a %s travels as it was typed, and as nothing once it is cleared", async (kind, text) => {
    const { user, screen, latest } = drawn(kind);
    const box = screen.getByLabelText("Question");
    await user.type(box, text);
    expect(latest()).toBe(text);
    await user.clear(box);
    expect(latest()).toBeNull();
  });

  it.each<[BlockKind, string]>([
    ["date", "2026-11-27"],
    ["time", "18:30"],
    ["date_time", "2026-11-27T18:30"],
  ])("of a %s is what the browser's own control gives", (kind, text) => {
    const { screen, latest } = drawn(kind);
    fireEvent.change(screen.getByLabelText("Question"), { target: { value: text } });
    expect(latest()).toBe(text);
  });

  it("of an amount has the sign of its currency where the language puts it", () => {
    drawn("money", { tools: { locale: "en_GB", currency: "GBP" } });
    expect(document.querySelector(".cx-with-unit")!.firstElementChild!.textContent).toBe("£");
    cleanup();
    drawn("money", { tools: { locale: "de", currency: "EUR" } });
    expect(document.querySelector(".cx-with-unit")!.lastElementChild!.textContent).toBe("€");
  });
});

describe("products", () => {
  const WAYS = { options: [option("blue", "Blue"), option("grey", "Grey")] };
  const prices = { blue: "€11.00", grey: "€11.00" };

  it("are ordered by one more and one less, or by typing; none is nothing", async () => {
    const { user, screen, latest } = drawn("product", { facts: { prices: { "": "€9.50" }, left: { "": "3 left" } } });
    expect(screen.getByText("3 left")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "One more of Question" }));
    expect(latest()).toBe("1");
    await user.click(screen.getByRole("button", { name: "One less of Question" }));
    expect(latest()).toBeNull();
    await user.type(screen.getByLabelText("Question"), "12");
    expect(latest()).toBe("12");
  });

  it("with options are ordered of each", async () => {
    const { user, screen, latest } = drawn("product", { settings: WAYS, facts: { prices } });
    await user.click(screen.getByRole("button", { name: "One more of Grey" }));
    await user.type(screen.getByLabelText("Question Blue €11.00"), "2");
    expect(latest()).toEqual({ blue: "2", grey: "1" });
    await user.click(screen.getByRole("button", { name: "One less of Grey" }));
    expect(latest()).toEqual({ blue: "2" });
    await user.clear(screen.getByLabelText("Question Blue €11.00"));
    expect(latest()).toBeNull();
  });

  it("whose quantity is asked apart are chosen, but for what is gone", async () => {
    const settings = { ...WAYS, quantity: "apart" };
    const { user, screen, latest } = drawn("product", { settings, facts: { prices, gone: { blue: "Sold out." } } });
    await user.click(screen.getByLabelText("Blue · €11.00 · Sold out."));
    expect(latest()).toBeUndefined();
    await user.click(screen.getByLabelText("Grey · €11.00"));
    expect(latest()).toBe("grey");
  });

  it("that are sold out can only be taken back", async () => {
    const { user, screen, latest } = drawn("product", { answer: "1", facts: { gone: { "": "Back in spring" } } });
    expect(screen.getByRole("button", { name: "One more of Question" }).hasAttribute("disabled")).toBe(true);
    await user.click(screen.getByRole("button", { name: "One less of Question" }));
    expect(latest()).toBeNull();
    expect(screen.getByLabelText("Question").hasAttribute("readonly")).toBe(true);
  });
});

describe("choices", () => {
  it("of yes and no are true, false, or taken back", async () => {
    const { user, screen, latest } = drawn("yes_no");
    await user.click(screen.getByLabelText("Yes"));
    expect(latest()).toBe(true);
    await user.click(screen.getByLabelText("No"));
    expect(latest()).toBe(false);
    await user.click(screen.getByRole("button", { name: "Choose none" }));
    expect(latest()).toBeNull();
  });

  it.each<[BlockKind, object, string]>([
    ["yes_no", {}, "Yes"],
    ["single_choice", { options: OPTIONS }, "Planets"],
    ["rating", { count: 5 }, "4 of 5"],
    ["scale", { least: 1, most: 5, least_label: "", most_label: "" }, "2"],
  ])("of a %s can be taken back only where none is needed", async (kind, settings, choice) => {
    const { user, screen, latest } = drawn(kind, { settings });
    expect(screen.queryByRole("button", { name: "Choose none" })).toBeNull();
    await user.click(screen.getByLabelText(choice));
    await user.click(screen.getByRole("button", { name: "Choose none" }));
    expect(latest()).toBeNull();
    cleanup();
    const needed = drawn(kind, { settings, facts: { required: true } });
    await needed.user.click(screen.getByLabelText(choice));
    expect(screen.queryByRole("button", { name: "Choose none" })).toBeNull();
  });

  it("of one option travel by its id; own words beside the option that stands for them", async () => {
    const { user, screen, latest } = drawn("single_choice", { settings: WITH_OTHER });
    await user.click(screen.getByLabelText("Planets"));
    expect(latest()).toBe("near");
    await user.click(screen.getByRole("radio", { name: "Something else" }));
    await user.type(screen.getByRole("textbox", { name: "Something else" }), "Comets");
    expect(latest()).toEqual({ other: "Comets" });
    await user.click(screen.getByLabelText("Deep sky"));
    expect(screen.queryByRole("textbox")).toBeNull();
  });

  it("of several keep the order in which they were made", async () => {
    const { user, screen, latest } = drawn("several_choices", { settings: WITH_OTHER });
    for (const label of ["The Sun", "Deep sky", "Something else"])
      await user.click(screen.getByRole("checkbox", { name: label }));
    await user.type(screen.getByRole("textbox"), "Us");
    expect(latest()).toEqual(["sun", "deep", { other: "Us" }]);
    for (const label of ["The Sun", "Something else", "Deep sky"])
      await user.click(screen.getByRole("checkbox", { name: label }));
    expect(latest()).toBeNull();
  });

  it("that a rule bars can't be made, but one that was made stays in sight", () => {
    const facts = { barred: ["near", "sun"] };
    const { screen } = drawn("single_choice", { settings: { options: OPTIONS }, answer: "near", facts });
    expect(screen.getByLabelText<HTMLInputElement>("Planets").checked).toBe(true);
    expect(screen.getByLabelText<HTMLInputElement>("The Sun").disabled).toBe(true);
    expect(screen.getByLabelText<HTMLInputElement>("Deep sky").disabled).toBe(false);
  });

  it("are those on offer, with values inserted into their labels", () => {
    const facts = { options: ["sun", "deep"], texts: { "options.0.label": "Deep sky, €6" } };
    const { screen } = drawn("single_choice", { settings: { options: OPTIONS }, facts });
    expect(screen.getAllByRole("radio").map((each) => each.closest("label")!.textContent)).toEqual([
      "Deep sky, €6",
      "The Sun",
    ]);
  });

  it("that are shuffled keep their order while others come and go", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2 ** 31 }), fc.shuffledSubarray(MANY, { minLength: 2 }), (seed, some) => {
        const labels = (offered: readonly object[]) => {
          const ids = offered.map((each) => (each as { id: string }).id);
          const settings = { options: MANY, shuffled: true };
          const { container } = drawn("single_choice", { settings, facts: { options: ids }, tools: { seed } });
          const found = [...container.querySelectorAll(".cx-option")].map((each) => each.textContent);
          cleanup();
          return found;
        };
        const wanted = new Set(some.map((each) => (each as { label: string }).label));
        expect(labels(MANY).filter((label) => wanted.has(label))).toEqual(labels(some));
      }),
      { numRuns: 15 },
    );
  });
});

describe("a dropdown", () => {
  it("offers nothing, its options, and own words", async () => {
    const { user, screen, latest } = drawn("dropdown", { settings: WITH_OTHER });
    const list = screen.getByLabelText("Question");
    await user.selectOptions(list, "Planets");
    expect(latest()).toBe("near");
    await user.selectOptions(list, "Something else");
    await user.type(screen.getByRole("textbox", { name: "Something else" }), "x");
    expect(latest()).toEqual({ other: "x" });
    await user.selectOptions(list, "Choose …");
    expect(latest()).toBeNull();
  });

  const searched = async (given = {}) => {
    const view = drawn("dropdown", { settings: { options: MANY, label: "Question" }, ...given });
    return { ...view, box: await view.screen.findByRole("combobox", { expanded: false }) };
  };

  it("of many options is searched by typing, and chosen from by keyboard", async () => {
    const { user, screen, latest, box } = await searched();
    await user.click(box);
    await user.type(box, "star 2");
    expect(screen.getAllByRole("option").map((each) => each.textContent)[1]).toBe("Star 20");
    await user.keyboard("{ArrowDown}{ArrowDown}{ArrowUp}{Enter}");
    expect(latest()).toBe("o20");
    expect((box as HTMLInputElement).value).toBe("Star 20");
    expect(screen.queryByRole("listbox")).toBeNull();
  });

  it("of many options says that nothing fits, and Escape leaves the choice as it was", async () => {
    const { user, screen, entered, box } = await searched({ answer: "o3" });
    await user.type(box, "no such");
    expect(screen.getByText("Nothing fits.")).toBeTruthy();
    await user.keyboard("{Escape}");
    expect((box as HTMLInputElement).value).toBe("Star 3");
    expect(entered).toEqual([]);
    await user.clear(box);
    expect(entered).toEqual([null]);
  });

  it("of many options takes the one whose whole name was typed when it is left, and nothing of a part", async () => {
    const { user, latest, entered, box } = await searched({ answer: "o3" });
    await user.clear(box);
    await user.type(box, "star 2");
    await user.tab();
    expect(latest()).toBe("o2");
    expect((box as HTMLInputElement).value).toBe("Star 2");
    const before = entered.length;
    await user.click(box);
    await user.type(box, "sta");
    await user.tab();
    expect(entered).toHaveLength(before);
  });

  it("of many options does not give a barred one", async () => {
    const { user, entered, box } = await searched({ facts: { barred: ["o7"] } });
    await user.type(box, "star 7{Enter}");
    expect(entered).toEqual([]);
  });
});

describe("opinions", () => {
  it("say what a step of a rating and the ends of a scale mean", () => {
    const { screen } = drawn("rating", { settings: { count: 3 }, answer: "2" });
    expect(screen.getByLabelText<HTMLInputElement>("2 of 3").checked).toBe(true);
    cleanup();
    drawn("scale", { settings: { least: 0, most: 3, least_label: "not at all", most_label: "very" } });
    expect(screen.getAllByRole("radio").map((each) => each.getAttribute("aria-label"))).toEqual([
      "0, not at all",
      "1",
      "2",
      "3, very",
    ]);
  });

  it("in a grid travel by the ids of question and option, and can be taken back together", async () => {
    const settings = {
      options: OPTIONS,
      questions: [
        { id: "q1", code: "q1", label: "In May" },
        { id: "q2", code: "q2", label: "In June" },
      ],
    };
    const { user, screen, latest } = drawn("grid", { settings, answer: { q1: "near" } });
    expect(screen.getByLabelText<HTMLInputElement>("In May: Planets").checked).toBe(true);
    await user.click(screen.getByLabelText("In June: The Sun"));
    expect(latest()).toEqual({ q1: "near", q2: "sun" });
    await user.click(screen.getByRole("button", { name: "Choose none" }));
    expect(latest()).toBeNull();
  });

  // As the browser writes it, and as the core does: with no more decimals than it has.
  it.each([
    ["en", 1500, "1,500", "1,500.00"],
    ["de", 1500, "1.500", "1.500,00"],
    ["pl", 1500, "1500", "1\u00a0500"],
    ["sv", -250, "\u2212250", "-250"],
    ["en", 0.5, "0.50", "0.5"],
  ])("on a slider in %s stand at %d, however that is written", (locale, value, ...texts) => {
    for (const answer of texts) {
      const settings = { least: "-500", most: "2000", step: "0.25", unit: "" };
      const { screen } = drawn("slider", { settings, answer, tools: { locale } });
      expect(Number(screen.getByRole<HTMLInputElement>("slider").value)).toBe((value + 500) * 4);
      cleanup();
    }
  });

  it("on a slider come back to where they were left", () => {
    const steps = fc.constantFrom("1", "5", "0.1", "0.25", "2.5");
    const locales = fc.constantFrom("en", "de", "fr", "de_CH", "ar", "pl");
    fc.assert(
      fc.property(fc.integer({ min: -50, max: 50 }), steps, fc.nat(40), locales, (least, step, at, locale) => {
        const most = String(least + 40 * Number(step));
        const settings = { least: String(least), most, step, unit: "" };
        const first = drawn("slider", { settings, tools: { locale } });
        const slider = first.screen.getByRole("slider");
        // The middle is where it stands already.
        fireEvent.change(slider, { target: { value: at === 20 ? 21 : at } });
        const answer = first.latest()!;
        cleanup();
        const again = drawn("slider", { settings, answer, tools: { locale } });
        expect(Number(again.screen.getByRole<HTMLInputElement>("slider").value)).toBe(at === 20 ? 21 : at);
        cleanup();
      }),
      { numRuns: 40 },
    );
  });

  it("on a slider are none until it is moved or clicked where it stands", () => {
    const { screen, latest, entered } = drawn("slider", {
      settings: { least: "0", most: "10", step: "1", unit: "km" },
    });
    expect(screen.getByText("Not chosen yet")).toBeTruthy();
    expect(entered).toEqual([]);
    fireEvent.pointerUp(screen.getByRole("slider"));
    expect(latest()).toBe("5");
    expect(screen.getByText("5 km")).toBeTruthy();
  });
});

describe("values of several parts", () => {
  it("travel part by part, and as nothing once all are cleared", async () => {
    const { user, screen, latest } = drawn("name", { settings: { parts: "two" } });
    await user.type(screen.getByLabelText("First name"), "Ingrid");
    await user.type(screen.getByLabelText("Last name"), "H");
    expect(latest()).toEqual({ first: "Ingrid", last: "H" });
    await user.clear(screen.getByLabelText("First name"));
    await user.clear(screen.getByLabelText("Last name"));
    expect(latest()).toBeNull();
  });

  it("have a country in the form's language", async () => {
    const { user, screen, latest } = drawn("address", { settings: { country: true }, tools: { locale: "de" } });
    await user.type(screen.getByLabelText("Town"), "Alder");
    await user.selectOptions(screen.getByLabelText("Country"), "Deutschland");
    expect(latest()).toEqual({ town: "Alder", country: "DE" });
  });

  it("are named by the author's words", () => {
    speakAs({ first: "Vorname", street: "Straße" });
    const { screen } = drawn("name", { settings: { parts: "two" } });
    expect(screen.getByLabelText("Vorname")).toBeTruthy();
    cleanup();
    drawn("address");
    expect(screen.getByLabelText("Straße")).toBeTruthy();
  });

  it("tell which part is missing", () => {
    const { screen } = drawn("name", { settings: { parts: "two" }, answer: { first: "Ingrid" }, error: "Last name?" });
    expect(screen.getByLabelText("First name").getAttribute("aria-invalid")).toBeNull();
    expect(screen.getByLabelText("Last name").getAttribute("aria-invalid")).toBe("true");
  });
});

describe("a consent", () => {
  it("is given or not, beside its statement", async () => {
    const settings = { statement: "<p>I have read <strong>it</strong>.</p>" };
    const { user, screen, latest } = drawn("consent", { settings });
    await user.click(screen.getByRole("checkbox", { name: /^Question I have read it/ }));
    expect(latest()).toBe(true);
    await user.click(screen.getByRole("checkbox"));
    expect(latest()).toBeNull();
  });
});

describe("a signature", () => {
  it("is drawn as strokes in a box of 600 by 200", async () => {
    const { screen, latest } = drawn("signature");
    const pad = await screen.findByRole("img", { name: "Draw your signature here" });
    pad.getBoundingClientRect = () => ({ left: 0, top: 0, width: 300, height: 100 }) as DOMRect;
    pad.setPointerCapture = () => undefined;
    // jsdom's pointer events know no place.
    const at = (what: string, clientX: number, clientY: number) =>
      fireEvent(pad, new MouseEvent(what, { clientX, clientY, bubbles: true }));
    at("pointerdown", 10, 10);
    at("pointermove", 20, 30);
    at("pointermove", 900, -5);
    at("pointerup", 900, -5);
    expect(latest()).toEqual({ strokes: [[20, 20, 40, 60, 600, 0]] });
    at("pointerdown", 1, 1);
    at("pointerup", 1, 1);
    expect((latest() as { strokes: unknown[] }).strokes).toHaveLength(1);
  });

  it("can be typed instead, which clears what was drawn", async () => {
    const { user, screen, latest } = drawn("signature", { answer: { strokes: [[1, 1, 2, 2]] } as never });
    await user.click(await screen.findByRole("button", { name: "Type your name instead" }));
    expect(latest()).toBeNull();
    await user.type(screen.getByLabelText("Your name as signature"), "Ingrid");
    expect(latest()).toEqual({ typed: "Ingrid" });
    await user.click(screen.getByRole("button", { name: "Draw instead" }));
    expect(latest()).toBeNull();
  });

  it.each([[{ typed: "Ingrid" }], [{ strokes: [[1, 1, 2, 2]] }]])("of %j that is locked stays", async (answer) => {
    const { screen } = drawn("signature", { answer: answer as never, facts: { locked: true } });
    await waitFor(() => expect(document.querySelector(".cx-signature")).not.toBeNull());
    expect(screen.queryAllByRole("button")).toEqual([]);
  });
});

describe("files", () => {
  const file = (name: string) => new File(["x"], name, { type: "image/png" });
  const reply = (id: string): UploadReply => ({ id, name: `${id}.png`, size: 1, thumbnail: null });

  /** A server for files whose replies the test gives when it likes, and what the form still waits for. */
  function aServer() {
    const sent: { name: string; resolve: (reply: UploadReply) => void; reject: (error: Error) => void }[] = [];
    const missing = new Set<number>();
    const upload = (_block: string, { name }: File) =>
      new Promise<UploadReply>((resolve, reject) => sent.push({ name, resolve, reject }));
    const waitFor = vi.fn((key: number) => void missing.add(key));
    const waitNoMore = vi.fn((key: number) => void missing.delete(key));
    return { sent, missing, tools: { upload, waitFor, waitNoMore } };
  }

  it("are waited for until they arrive, and no more than fit are sent", async () => {
    const server = aServer();
    const { user, screen, latest } = drawn("file_upload", { settings: { most: 2 }, tools: server.tools });
    const box = await screen.findByLabelText(/^Question/);
    await user.upload(box, [file("a.png"), file("b.png"), file("c.png")]);
    expect(server.sent.map((each) => each.name)).toEqual(["a.png", "b.png"]);
    expect(server.missing.size).toBe(2);
    server.sent[1]!.resolve(reply("b"));
    await waitFor(() => expect(latest()).toEqual(["b"]));
    server.sent[0]!.resolve(reply("a"));
    await waitFor(() => expect(latest()).toEqual(["b", "a"]));
    expect(server.missing.size).toBe(0);
    expect(screen.queryByLabelText(/^Question/)).toBeNull();
    await user.click(screen.getByRole("button", { name: "Remove b.png" }));
    expect(latest()).toEqual(["a"]);
  });

  it("that fail say why, and are sent again or removed", async () => {
    const server = aServer();
    const { user, screen, latest } = drawn("file_upload", { settings: { most: 1 }, tools: server.tools });
    await user.upload(await screen.findByLabelText(/^Question/), file("a.png"));
    server.sent[0]!.reject(new Error("Too large."));
    expect((await screen.findByRole("alert")).textContent).toBe("Too large.");
    expect(server.missing.size).toBe(1);
    await user.click(screen.getByRole("button", { name: "Try again" }));
    server.sent[1]!.reject(new Error("Away."));
    await screen.findByText("Away.");
    await user.click(screen.getByRole("button", { name: "Remove a.png" }));
    expect(server.missing.size).toBe(0);
    expect(latest()).toBeUndefined();
  });

  it("that fail after their page was left are not waited for: nobody could send them again", async () => {
    const server = aServer();
    const { user, screen, unmount } = drawn("file_upload", { tools: server.tools });
    await user.upload(await screen.findByLabelText(/^Question/), file("a.png"));
    unmount();
    expect(server.missing.size).toBe(1);
    server.sent[0]!.reject(new Error("Away."));
    await waitFor(() => expect(server.missing.size).toBe(0));
  });
});

const QUESTIONS = BLOCK_TYPES.filter(({ blank }) => "default" in blank).map(({ type }) => type);

describe.each(QUESTIONS)("a %s", (kind) => {
  const settings =
    "options" in (BLOCK_TYPES.find(({ type }) => type === kind)?.blank ?? {}) ? { options: OPTIONS } : {};

  it("is found by its label, and tells its help and what is wrong with it", async () => {
    const { screen, container } = drawn(kind, { settings, facts: { required: true }, error: "This is wrong." });
    const named = await screen.findAllByLabelText(/^Question/);
    const texts = (ids: string) => ids.split(" ").map((id) => document.getElementById(id)?.textContent);
    const described = named
      .flatMap((each) => [each, ...each.querySelectorAll("[aria-describedby]")])
      .flatMap((each) => texts(each.getAttribute("aria-describedby") ?? ""));
    expect(described).toEqual(expect.arrayContaining(["Some help", "This is wrong."]));
    const marked = container.querySelectorAll('[aria-invalid="true"], [data-invalid="true"]');
    expect(marked.length).toBeGreaterThan(0);
  });

  it("that is locked takes nothing", async () => {
    const { user, container, entered } = drawn(kind, { settings, facts: { locked: true } });
    await waitFor(() => expect(container.querySelector(".cx-drop")?.textContent).not.toBe("One moment …"));
    for (const control of container.querySelectorAll<HTMLElement>("input, select, textarea, button")) {
      await user.click(control);
      await user.keyboard("1");
    }
    expect(entered).toEqual([]);
    expect(within(container).queryAllByRole("button")).toEqual([]);
  });
});
