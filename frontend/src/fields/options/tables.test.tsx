// @vitest-environment jsdom
// The tables of options and of a grid's questions, as they are filled in the inspector.
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { GridField, ProductField, SingleChoiceField } from "../../api/generated/wire";
import type { Block } from "../../model/blocks";
import { block } from "../../testing/a_form";
import { option } from "../../testing/one_block";
import { GridQuestions } from "../grid/Settings";
import { ProductPrices } from "../product/Settings";
import type { SettingsProps } from "../settings_props";
import { OptionTable } from "./OptionTable";

afterEach(cleanup);

function filled<Field extends Block>(Table: (props: SettingsProps<Field>) => React.ReactNode, start: Field) {
  let latest = start;
  const open = vi.fn();
  function Inspector() {
    const [now, setNow] = useState(start);
    latest = now;
    const edit = (changes: object) => setNow((before) => ({ ...before, ...changes }));
    const rename = (setting: string, name: string) => {
      const [list = "", at, last = ""] = setting.split(".");
      const items = (now as unknown as Record<string, Record<string, unknown>[]>)[list]!;
      edit({ [list]: items.map((item, index) => (index === Number(at) ? { ...item, [last]: name } : item)) });
      return Promise.resolve();
    };
    return <Table block={now} edit={edit} open={open} rename={rename} mayFollow={(code) => code !== "sun"} />;
  }
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Inspector />
    </QueryClientProvider>,
  );
  return { user: userEvent.setup(), open, now: () => latest };
}

const paste = (name: string, text: string) =>
  fireEvent.paste(screen.getByLabelText(name), { clipboardData: { getData: () => text } });

describe("options", () => {
  const START = block("single_choice", "show", {
    options: [option("deep", "Deep sky"), option("near", "Planets"), { ...option("sun", "Sun"), shown: "adults > 2" }],
  }) as SingleChoiceField;
  const table = () => filled(OptionTable, START);
  const told = (field: SingleChoiceField) =>
    field.options.map(({ code, label, counts_as }) => `${code} ${label} ${counts_as}`.trim());

  it("are made by typing, with a code of their own", async () => {
    const { user, now } = table();
    await user.type(screen.getByLabelText("New option"), "Ärger & Sun{Enter}Sun{Enter} {Enter}");
    await user.tab();
    expect(now().options.map(({ code }) => code)).toEqual(["deep", "near", "sun", "arger_sun", "sun_2"]);
    expect(new Set(now().options.map(({ id }) => id)).size).toBe(5);
  });

  it("come from a spreadsheet, while one word is only a word", () => {
    const { now } = table();
    paste("New option", "Comet");
    expect(now()).toBe(START);
    paste("New option", "Comet\tcomet\t4,50\nMeteor\tcomet\t$3");
    expect(told(now()).slice(3)).toEqual(["comet Comet 4.50", "comet_2 Meteor 3"]);
  });

  it("are renamed; an empty code is not kept", async () => {
    const { user, now } = table();
    const code = screen.getByLabelText<HTMLInputElement>("Code of option 1");
    await user.clear(code);
    expect([code.value, now().options[0]!.code]).toEqual(["", "deep"]);
    await user.tab();
    expect(code.value).toBe("deep");
    await user.type(code, "er{Enter}");
    expect(now().options[0]!.code).toBe("deeper");
  });

  it("have codes that follow their labels until something reads them, and keep what tells them apart", async () => {
    const { user, now } = table();
    await user.type(screen.getByLabelText("New option"), "2–3 lenses{Enter}36{Enter}");
    await user.type(screen.getByLabelText("Label of option 4"), " at most");
    await user.type(screen.getByLabelText("Label of option 3"), " by day");
    expect(now().options.map(({ code }) => code)).toEqual(["deep", "near", "sun", "2_3_lenses_at_most", "36"]);
  });

  it("count as exact numbers, and say so where that is none", async () => {
    const { user, now } = table();
    const counts = screen.getByLabelText<HTMLInputElement>("Option 2 counts as");
    await user.clear(counts);
    await user.type(counts, "4,5");
    expect(now().options[1]!.counts_as).toBe("4.5");
    await user.type(counts, "x");
    expect(screen.getByText("a number such as 2.5 is wanted, or nothing")).toBeTruthy();
    expect(now().options[1]!.counts_as).toBe("4.5");
    await user.tab();
    expect(counts.value).toBe("4.5");
  });

  it("change places by keyboard and by menu, but never leave the table", async () => {
    const { user, now } = table();
    const codes = () => now().options.map(({ code }) => code);
    await user.click(screen.getByLabelText("Label of option 1"));
    await user.keyboard("{Alt>}{ArrowUp}{/Alt}");
    expect(codes()).toEqual(["deep", "near", "sun"]);
    await user.keyboard("{Alt>}{ArrowDown}{ArrowDown}{/Alt}");
    expect(codes()).toEqual(["near", "sun", "deep"]);
    expect((document.activeElement as HTMLInputElement).value).toBe("Deep sky");
    await user.click(screen.getByLabelText("More for option 2"));
    await user.click(screen.getByRole("menuitem", { name: "Move up (Alt+↑)" }));
    expect(codes()).toEqual(["sun", "near", "deep"]);
  });

  it("show their rules, open them, and are removed", async () => {
    const { user, now, open } = table();
    await user.click(screen.getByLabelText("More for option 3"));
    await user.click(screen.getByRole("menuitem", { name: "Shown when … adults > 2" }));
    expect(open).toHaveBeenCalledWith("options.2.shown");
    await user.click(screen.getByLabelText("More for option 1"));
    await user.click(screen.getByRole("menuitem", { name: "Remove option 1" }));
    expect(now().options.map(({ code }) => code)).toEqual(["near", "sun"]);
  });

  it("are edited all at once as text, and keep their rules by their code", async () => {
    const { user, now } = table();
    await user.click(screen.getByRole("button", { name: "All as text" }));
    const text = screen.getByLabelText<HTMLTextAreaElement>("Label, code, number and price, with tabs between");
    fireEvent.change(text, { target: { value: "The Sun\tsun\t7\nMoon\t\nDeep sky\tdeep\t" } });
    expect(now()).toBe(START);
    fireEvent.blur(text);
    expect(told(now())).toEqual(["sun The Sun 7", "moon Moon 0", "deep Deep sky 0"]);
    expect(now().options[0]).toMatchObject({ id: "sun", shown: "adults > 2" });
    await user.click(screen.getByRole("button", { name: "As a table" }));
    expect(screen.getByText("3 options")).toBeTruthy();
  });
});

describe("a grid's questions", () => {
  const START = block("grid", "opinions", {
    questions: [
      { id: "q1", code: "may", label: "In May" },
      { id: "q2", code: "june", label: "In June" },
    ],
  }) as GridField;
  const codes = (field: GridField) => field.questions.map(({ code }) => code);

  it("are typed, pasted, renamed, moved and removed", async () => {
    const { user, now } = filled(GridQuestions, START);
    await user.type(screen.getByLabelText("New question"), "In July{Enter}");
    paste("New question", "In August\nIn September\tsept");
    expect(codes(now())).toEqual(["may", "june", "in_july", "in_august", "sept"]);
    await user.type(screen.getByLabelText("Code of question 3"), "_2026");
    await user.type(screen.getByLabelText("Question 1"), "{Alt>}{ArrowDown}{/Alt}");
    await user.click(screen.getByLabelText("Remove question 4"));
    expect(codes(now())).toEqual(["june", "may", "in_july_2026", "sept"]);
    expect(within(screen.getByRole("group", { name: "Questions" })).getByText("4 questions")).toBeTruthy();
  });
});

describe("a product's prices", () => {
  const LAMP = block("product", "lamp", { price: "9.50" }) as ProductField;
  const told = (field: ProductField) =>
    field.options.map(({ code, label, price, stock }) => `${code} ${label} ${price} ${stock ?? "-"}`);

  it("are one, or those of options, which begin with it", async () => {
    const { user, now } = filled(ProductPrices, LAMP);
    const price = screen.getByLabelText("Price of each");
    await user.clear(price);
    await user.type(price, "12");
    await user.type(screen.getByLabelText("New option"), "Red{Enter}Red{Enter}");
    expect(told(now())).toEqual(["red Red 12 -", "red_2 Red 12 -"]);
    expect(screen.queryByLabelText("Price of each")).toBeNull();
    await user.type(screen.getByLabelText("Stock of option 2"), "30");
    await user.clear(screen.getByLabelText("Price of option 2"));
    await user.type(screen.getByLabelText("Price of option 2"), "8,5");
    await user.click(screen.getByRole("button", { name: "Remove option 1" }));
    expect(told(now())).toEqual(["red_2 Red 8.5 30"]);
  });

  it("come from a spreadsheet as label and price, and keep their order by keyboard", async () => {
    const { user, now } = filled(ProductPrices, LAMP);
    paste("New option", "Blue\t11\nGrey\t€ 12,50");
    expect(told(now())).toEqual(["blue Blue 11 -", "grey Grey 12.50 -"]);
    await user.click(screen.getByLabelText("Label of option 2"));
    await user.keyboard("{Alt>}{ArrowUp}{/Alt}");
    await user.type(screen.getByLabelText("Label of option 1"), "ish");
    expect(told(now())[0]).toBe("greyish Greyish 12.50 -");
  });
});
