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
  ...{ number: 7, state: "paid", amount: "€25.00", refunded: "", left: "25.00", reason: "", card: "Aster 0002" },
  ...{ payer: "Ingrid Haugen", provider_number: "ab12", due_until: "2026-11-28T10:00:00Z" },
  ...{ created_at: "2026-11-27T10:00:00Z", changed_at: "2026-11-27T10:00:00Z" },
};
const SUMS = { test: false, count: 1, paid: "€25.00", refunded: "€0.00", due: "€0.00" };

beforeEach(() => {
  vi.spyOn(api, "accounts").mockResolvedValue({ accounts: [ACCOUNT] });
  vi.spyOn(api, "payments").mockResolvedValue({ payments: [PAID], sums: [SUMS] });
  vi.spyOn(api, "triedResponses").mockResolvedValue({ responses: [] });
  vi.spyOn(api, "outcome").mockResolvedValue({ to_pay: "€25.00", state: { blocks: {} } } as unknown as OutcomeReply);
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
    await waitFor(() => expect(refund).toHaveBeenLastCalledWith(expect.anything(), 7, "4.50"));
    expect(await view.screen.findByText("Given back.")).toBeTruthy();
  });
});
