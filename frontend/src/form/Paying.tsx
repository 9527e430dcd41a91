// Paying, in the form's place: what is to be paid, the bank's own boxes in a frame, and what became of it. How the
// payment stands is always the server's word; the frame only says that there may be news.
import { useCallback, useEffect, useRef, useState } from "react";
import type { BlockState, OrderSummaryFace, ReceivedReply } from "../api/generated/wire";
import { OrderSummaryContent } from "../fields/order_summary/Input";
import { say } from "../text/visitor";
import { askPayment } from "./transport";

const LOOK_MS = 6_000;
const LEAST_HEIGHT = 260;
const NAMELESS: OrderSummaryFace = { id: "order", type: "order_summary", label: "", width: "full" };
const UNUSED = {
  answer: null,
  required: false,
  locked: false,
  invalid: false,
  describedBy: undefined,
  onChange: () => undefined,
} as const;

interface Props {
  received: ReceivedReply;
  onNews: (received: ReceivedReply) => void;
}

export default function Paying({ received, onNews }: Props) {
  const payment = received.payment!;
  const { order } = received;
  // In a preview of the draft nothing is kept, so there is nothing that could be paid.
  const isPreview = !received.page;
  const framed = location.pathname.startsWith("/embed/");
  const title = useRef<HTMLHeadingElement>(null);
  const frame = useRef<HTMLIFrameElement>(null);
  const [height, setHeight] = useState(LEAST_HEIGHT);
  const [away, setAway] = useState(payment.away);
  const look = useCallback(
    () =>
      askPayment(received.page).then(
        (news) => {
          setAway(news.payment?.away ?? false);
          onNews(news);
        },
        () => setAway(true),
      ),
    [received.page, onNews],
  );
  useEffect(() => {
    title.current?.focus();
  }, []);
  useEffect(() => {
    if (payment.state !== "due" || isPreview) return;
    void look();
    const again = setInterval(() => void look(), LOOK_MS);
    return () => clearInterval(again);
  }, [look, payment.state, isPreview]);
  const origin = payment.page ? new URL(payment.page).origin : "";
  useEffect(() => {
    const hear = (event: MessageEvent<{ practiceBank?: string; height?: number }>) => {
      if (event.origin !== origin || event.source !== frame.current?.contentWindow) return;
      if (typeof event.data.height === "number") setHeight(Math.max(LEAST_HEIGHT, Math.min(event.data.height, 900)));
      if (event.data.practiceBank && event.data.practiceBank !== "open") void look();
    };
    addEventListener("message", hear);
    return () => removeEventListener("message", hear);
  }, [origin, look]);
  return (
    <div className="cx-received cx-paying">
      <h2 ref={title} tabIndex={-1}>
        {payment.amount ? say("payTitle", { amount: payment.amount }) : say("payCard")}
      </h2>
      {payment.practice && <p className="cx-practice">{say("payPractice")}</p>}
      {order && order.lines.length > 0 && (
        <OrderSummaryContent
          {...UNUSED}
          block={NAMELESS}
          controlId="order"
          facts={{ shown: true, order } as BlockState}
        />
      )}
      {payment.plan && <p className="cx-order-to-pay">{payment.plan}</p>}
      <div role="status">
        {payment.state === "expired" && <p>{say("payOver")}</p>}
        {payment.state === "due" && away && <p>{say("payAway")}</p>}
        {payment.state === "due" && !away && !payment.page && !isPreview && <p>{say("payWaiting")}</p>}
        {payment.state === "due" && payment.reason && (
          <p className="cx-error">{say("payFailed", { reason: payment.reason })}</p>
        )}
      </div>
      {isPreview && (
        <p>
          The bank’s boxes for the card stand here.{" "}
          <button
            type="button"
            className="cx-back"
            onClick={() => onNews({ ...received, payment: { ...payment, state: "paid" } })}
          >
            Go on as if it was paid
          </button>
        </p>
      )}
      {payment.state === "due" && payment.page && !payment.in_frame && (
        <p>
          <a
            className="cx-submit cx-pay-there"
            href={payment.page}
            target={framed ? "_blank" : undefined}
            rel="noreferrer"
          >
            {say("payThere")}
          </a>
        </p>
      )}
      {payment.state === "due" && payment.page && payment.in_frame && (
        <>
          <iframe ref={frame} title={say("payFrame")} src={payment.page} style={{ height }} />
          <p className="cx-help">{say("payWhere")}</p>
        </>
      )}
    </div>
  );
}
