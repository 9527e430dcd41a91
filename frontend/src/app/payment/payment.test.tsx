// @vitest-environment jsdom
// The payment area on the bench: settings as they are pressed, what would be paid, and money given back in two steps.
import { cleanup, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api, ApiError } from "../../api/client";
import type { OutcomeReply, PaymentReply } from "../../api/generated/wire";
import { A_FORM } from "../../testing/a_form";
import { onTheBench } from "../../testing/on_the_bench";
import { PaymentArea } from "./PaymentArea";

const ACCOUNT = { id: "a1", provider: "practice bank", name: "Shop", last_four: "4711", cards: ["Aster", "Boreal"] };
const PAID: PaymentReply = {
  ...{ form: "f1", form_name: "Shop", turn: 0, day: null, test: false, currency: "EUR", receipt: 12 },
  ...{ plan: "", plan_state: "", next_on: null },
  ...{ number: 7, state: "paid", amount: "€25.00", refunded: "", left: "25.00", reason: "", card: "Aster 0002" },
  ...{ payer: "Ingrid Haugen", provider_number: "ab12", due_until: "2026-11-28T10:00:00Z" },
  ...{ created_at: "2026-11-27T10:00:00Z", changed_at: "2026-11-27T10:00:00Z" },
};
const PLAN = { every: 1, unit: "month", times: "", shared: false, fee: "", first_day: "", when: "" };
const LATER = {
  words: "€25.00 now, then €18.00 each month until it is stopped, next on 23 December 2026",
  charges: [{ day: "2026-12-23", amount: "€18.00" }],
  ...{ more: null, last_day: null, whole: "" },
};
const SUMS = { test: false, count: 1, paid: "€25.00", refunded: "€0.00", due: "€0.00" };

beforeEach(() => {
  vi.spyOn(api, "accounts").mockResolvedValue({ accounts: [ACCOUNT] });
  vi.spyOn(api, "practiceCards").mockResolvedValue({ cards: ["Aster", "Comet"] });
  vi.spyOn(api, "payments").mockResolvedValue({ payments: [PAID], sums: [SUMS] });
  vi.spyOn(api, "triedResponses").mockResolvedValue({ responses: [] });
  vi.spyOn(api, "outcome").mockResolvedValue({
    to_pay: "€25.00",
    plan: null,
    state: { blocks: {} },
  } as unknown as OutcomeReply);
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const opened = (payment: object = { on: true }) =>
  onTheBench(<PaymentArea />, { form: { ...A_FORM, payment: { ...A_FORM.payment, ...payment } } });

describe("the payment area", () => {
  it("is switched on, and says what a visitor would pay", async () => {
    const view = opened({});
    await view.user.click(view.screen.getByLabelText("Ask for a payment once the form is handed in"));
    expect(view.bench().form.payment.on).toBe(true);
    const would = within(view.screen.getByRole("region", { name: "What a visitor would pay" }));
    expect(await would.findByText("€25.00")).toBeTruthy();
    expect(would.getByText("24 hours later")).toBeTruthy();
  });

  it("sends the money to an account of the team's, of whose cards some are taken", async () => {
    const view = opened();
    await view.user.click(view.screen.getByRole("combobox", { name: "The money goes to" }));
    await view.user.click(await view.screen.findByRole("option", { name: /^Shop · practice bank/ }));
    expect(view.bench().form.payment).toMatchObject({ practice: false, account: "a1" });
    await view.user.click(view.screen.getByRole("combobox", { name: "Cards that are taken" }));
    await view.user.click(await view.screen.findByRole("option", { name: "Boreal" }));
    expect(view.bench().form.payment.cards).toEqual(["Boreal"]);
  });

  it("gives money back only at the second press, and says why it can't", async () => {
    const refund = vi.spyOn(api, "refund").mockRejectedValueOnce(new ApiError("refund_refused", "At most 25.00 EUR"));
    refund.mockResolvedValueOnce({ told: "Given back." });
    const view = opened();
    await view.user.click(await view.screen.findByRole("button", { name: "Give back of payment 7" }));
    const box = within(view.screen.getByRole("group", { name: "Give back of payment 7" }));
    await view.user.click(box.getByRole("button", { name: "Give it back …" }));
    expect(refund).not.toHaveBeenCalled();
    await view.user.click(box.getByRole("button", { name: "Yes, give 25.00 EUR back to Ingrid Haugen" }));
    expect(await view.screen.findByText("At most 25.00 EUR")).toBeTruthy();
    await view.user.clear(box.getByLabelText("How much, in EUR"));
    await view.user.type(box.getByLabelText("How much, in EUR"), "4,50");
    await view.user.click(box.getByRole("button", { name: "Give it back …" }));
    await view.user.click(box.getByRole("button", { name: /^Yes, give 4,50/ }));
    await waitFor(() => expect(refund).toHaveBeenLastCalledWith("f1", 7, 0, "4.50"));
    expect(await view.screen.findByText("Given back.")).toBeTruthy();
  });

  it("has it paid by plans, each said in a sentence; the first that holds counts", async () => {
    const view = opened();
    await view.user.click(view.screen.getByRole("button", { name: "Add a plan" }));
    expect(view.bench().form.payment.plans).toEqual([PLAN]);
    const plan = within(view.screen.getByRole("group", { name: "Plan 1" }));
    await view.user.click(plan.getByRole("combobox", { name: "Unit" }));
    await view.user.click(await view.screen.findByRole("option", { name: "year" }));
    await view.user.click(plan.getByRole("combobox", { name: "How often" }));
    await view.user.click(await view.screen.findByRole("option", { name: "so many times" }));
    await view.user.click(plan.getByRole("combobox", { name: "Each payment is" }));
    await view.user.click(await view.screen.findByRole("option", { name: /^its share/ }));
    expect(view.bench().form.payment.plans[0]).toMatchObject({ unit: "year", shared: true });
    for (const name of [/no first fee/, /is paid at once/, /for everybody who pays/]) {
      await view.user.click(plan.getByRole("button", { name }));
    }
    expect(plan.getByRole("group", { name: "Paid once, with the first" })).toBeTruthy();
    await view.user.click(view.screen.getByRole("button", { name: "Add a plan" }));
    await view.user.click(view.screen.getByRole("button", { name: "Plan 2: before the one above" }));
    expect(view.bench().form.payment.plans.map(({ unit }) => unit)).toEqual(["month", "year"]);
    await view.user.click(view.screen.getByRole("button", { name: "Remove Plan 1" }));
    expect(view.bench().form.payment.plans.map(({ unit }) => unit)).toEqual(["year"]);
  });

  it("takes an amount of its own, and rules for who pays", async () => {
    const view = opened();
    await view.user.click(view.screen.getByRole("combobox", { name: "Charge" }));
    await view.user.click(await view.screen.findByRole("option", { name: /a formula or a figure/ }));
    await view.user.click(view.screen.getByRole("button", { name: /add a rule for who pays/ }));
    expect(view.screen.getByRole("group", { name: "Only when" })).toBeTruthy();
  });

  it("shows what is paid later beside what is paid now", async () => {
    const outcome = { to_pay: "€25.00", plan: LATER, state: { blocks: {} } } as unknown as OutcomeReply;
    vi.mocked(api.outcome).mockResolvedValue(outcome);
    const view = opened({ on: true, plans: [PLAN] });
    const would = within(view.screen.getByRole("region", { name: "What a visitor would pay" }));
    expect(await would.findByText("23 Dec 2026")).toBeTruthy();
    expect(would.getByText("and so on, until it is stopped")).toBeTruthy();
  });

  it("tells all that came of a payment; its plan is stopped at the second press, a charge tried again", async () => {
    const charge: PaymentReply = { ...PAID, turn: 1, day: "2026-12-23", state: "failed", left: "", amount: "€18.00" };
    const first: PaymentReply = { ...PAID, plan: LATER.words, plan_state: "running", next_on: "2027-01-23" };
    const event = { kind: "charge failed", at: "2026-12-23T01:00:00Z", person: null, card: "", reason: "Declined." };
    vi.spyOn(api, "payment").mockResolvedValue({
      payments: [first, charge],
      to_come: [{ day: "2027-01-23", amount: "€18.00" }],
      more: null,
      events: [{ ...event, charge: 1, amount: "€18.00" }],
    });
    const stop = vi.spyOn(api, "stopPlan").mockResolvedValue({ told: "Stopped: nothing more is charged." });
    const again = vi.spyOn(api, "chargeAgain").mockRejectedValue(new ApiError("plan_refused", "The bank is away."));
    const view = opened();
    await view.user.click(await view.screen.findByRole("button", { name: "Open payment 7" }));
    expect(await view.screen.findByText("Declined · charge 1 · €18.00 · Declined.")).toBeTruthy();
    await view.user.click(view.screen.getByRole("button", { name: "Charge €18.00 again: charge 1" }));
    expect(again).toHaveBeenCalledWith("f1", 7, 1);
    expect(await view.screen.findByText("The bank is away.")).toBeTruthy();
    await view.user.click(view.screen.getByRole("button", { name: "Stop the plan …" }));
    expect(stop).not.toHaveBeenCalled();
    await view.user.click(view.screen.getByRole("button", { name: "Yes, charge nothing more" }));
    expect(await view.screen.findByText("Stopped: nothing more is charged.")).toBeTruthy();
  });
});
