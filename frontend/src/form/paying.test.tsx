// @vitest-environment jsdom
// What a visitor sees of a payment: the bank's boxes, what the server says of them, and where they go on another time.
import { act, cleanup, render, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { ReceivedReply } from "../api/generated/wire";
import { receivedReply } from "../testing/received";
import Received from "./Received";
import { unpaidPage } from "./unpaid";

const DUE = {
  state: "due",
  amount: "€25.00",
  plan: "",
  page: "http://bank.example/pay/1",
  in_frame: true,
  reason: "",
  practice: false,
  away: false,
};
type Payment = NonNullable<ReceivedReply["payment"]>;

let server: Payment;

function opened(payment: Partial<Payment>) {
  server = { ...DUE, ...payment } as Payment;
  function Page() {
    const [received, take] = useState<ReceivedReply>({ ...receivedReply("Thank you"), payment: server });
    return <Received received={received} form="f1" address={null} onAgain={() => undefined} onNews={take} />;
  }
  return render(<Page />);
}

const later = (ms = 50) => act(() => vi.advanceTimersByTimeAsync(ms));
const said = (text: string | RegExp) => screen.queryByText(text) !== null;

beforeEach(() => {
  vi.useFakeTimers({ shouldAdvanceTime: true });
  vi.stubGlobal("fetch", () =>
    Promise.resolve(new Response(JSON.stringify({ ...receivedReply("Thank you"), payment: server }))),
  );
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.useRealTimers();
  localStorage.clear();
});

describe("a payment that is due", () => {
  it("shows the bank's boxes, and can be gone on with till it is paid", async () => {
    opened({});
    expect(await screen.findByRole("heading", { name: "To pay: €25.00" })).toBeTruthy();
    expect(screen.getByTitle("Card for the payment").getAttribute("src")).toBe(DUE.page);
    expect(unpaidPage("f1")).toBe("/received/f/1/m");
    server = { ...server, state: "paid" };
    await later(6_500);
    expect(said("Paid: €25.00")).toBe(true);
    expect(screen.getByRole("heading", { name: "Thank you" })).toBeTruthy();
    expect(unpaidPage("f1")).toBeNull();
  });

  it("says why a card was refused, and that the bank is away, and goes on asking", async () => {
    opened({ page: "", away: true });
    await screen.findByRole("heading", { name: "To pay: €25.00" });
    expect(said(/can't be reached just now/)).toBe(true);
    server = { ...server, page: DUE.page, away: false, reason: "The card was declined." };
    await later(6_500);
    expect(said("That did not work: The card was declined. Nothing was charged.")).toBe(true);
  });

  it("hears the bank's own frame, and nobody else", async () => {
    opened({});
    const frame = await screen.findByTitle<HTMLIFrameElement>("Card for the payment");
    await later();
    server = { ...server, state: "paid" };
    const tell = (origin: string, source: Window | null) =>
      act(() => {
        window.dispatchEvent(new MessageEvent("message", { data: { practiceBank: "paid" }, origin, source }));
        return vi.advanceTimersByTimeAsync(50);
      });
    await tell("http://elsewhere.example", frame.contentWindow);
    await tell("http://bank.example", window);
    expect(said("Paid: €25.00")).toBe(false);
    await tell("http://bank.example", frame.contentWindow);
    expect(said("Paid: €25.00")).toBe(true);
  });

  it("that has expired says so, and shows no boxes", async () => {
    opened({ state: "expired", page: "" });
    await screen.findByRole("heading", { name: "To pay: €25.00" });
    expect(said(/The time to pay is over/)).toBe(true);
    expect(screen.queryByTitle("Card for the payment")).toBeNull();
    expect(unpaidPage("f1")).toBeNull();
  });

  it("tells a plan, and leads to the bank's own page where no frame is wanted", async () => {
    opened({ amount: "", plan: "nothing now, then €18.00 each month", in_frame: false });
    expect(await screen.findByRole("heading", { name: "Card for what is paid later" })).toBeTruthy();
    expect(screen.getByText("nothing now, then €18.00 each month")).toBeTruthy();
    expect(screen.getByRole("link", { name: "Pay at the bank" }).getAttribute("href")).toBe(DUE.page);
    expect(screen.queryByTitle("Card for the payment")).toBeNull();
  });
});
