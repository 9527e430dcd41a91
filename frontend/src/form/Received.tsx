// What visitors read once their answers were received, and what they can do then: print, keep, hand on, begin again.
import { type ComponentProps, useEffect, useRef, useState } from "react";
import type { ConfirmationFace, ReceivedReply } from "../api/generated/wire";
import { late } from "../fields/late";
import { RichText } from "../fields/RichText";
import { say } from "../text/visitor";
import { Bars } from "./Bars";
import { rememberUnpaid } from "./unpaid";

const Paying = late<ComponentProps<typeof import("./Paying").default>>(() => import("./Paying"));

interface Props {
  received: ReceivedReply;
  /** The form's id, for what the device remembers of it. */
  form: string;
  /** Takes what became of the payment. */
  onNews: (received: ReceivedReply) => void;
  /** The form's own address, to begin again and to hand on; null in a preview. */
  address: string | null;
  onAgain: () => void;
}

/** What is to be paid first, where something is; then the confirmation. */
export default function Received(props: Props) {
  const { received, form } = props;
  const { payment } = received;
  useEffect(() => {
    if (payment) rememberUnpaid(form, payment.state === "due" ? received.page : null);
  }, [form, payment, received.page]);
  return payment && payment.state !== "paid" ? <Paying {...props} /> : <Confirmed {...props} />;
}

function Confirmed({ received: { confirmation, page, payment }, address, onAgain }: Props) {
  const title = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    title.current?.focus();
  }, []);
  const { printing, again, sharing } = confirmation;
  return (
    <div className="cx-received">
      <div role="status">
        <h2 ref={title} tabIndex={-1}>
          {confirmation.title}
        </h2>
        {payment?.amount && <p className="cx-paid">{say("payPaid", { amount: payment.amount })}</p>}
        {payment?.plan && <p className="cx-paid">{payment.plan}</p>}
        {confirmation.paragraphs.map((paragraph, at) => (
          <Piece key={at} piece={paragraph} />
        ))}
      </div>
      {(printing || again) && (
        <div className="cx-after">
          {again && (
            <button type="button" className="cx-back" onClick={onAgain}>
              {say("again")}
            </button>
          )}
          {printing && (
            <button type="button" className="cx-back" onClick={() => print()}>
              {say("print")}
            </button>
          )}
          {printing && page && (
            <a className="cx-back" href={`${page}/pdf`} download>
              {say("keepPdf")}
            </a>
          )}
        </div>
      )}
      {sharing && <Sharing address={address} />}
    </div>
  );
}

function Piece({ piece }: { piece: ConfirmationFace["paragraphs"][number] }) {
  if (piece.bars.length > 0) return <Bars bars={piece.bars} />;
  if (piece.picture)
    return (
      <figure className="cx-picture">
        <img src={piece.picture} alt={piece.alternative} />
      </figure>
    );
  return <RichText html={piece.html} />;
}

/** The form's address, to copy, to mail, or to give to what the device itself shares by. Nothing of others is loaded. */
function Sharing({ address }: { address: string | null }) {
  const [copied, setCopied] = useState(false);
  const link = address === null ? "" : new URL(address, location.href).href;
  const mayShare = link !== "" && typeof navigator.share === "function";
  return (
    <div className="cx-share" role="group" aria-labelledby="share-title">
      <h3 id="share-title">{say("share")}</h3>
      <p>
        <a href={link || undefined}>{link}</a>
      </p>
      <div className="cx-after">
        <button
          type="button"
          className="cx-back"
          disabled={!link}
          onClick={() => void navigator.clipboard.writeText(link).then(() => setCopied(true))}
        >
          {say("copyLink")}
        </button>
        <a className="cx-back" href={link ? `mailto:?body=${encodeURIComponent(link)}` : undefined}>
          {say("mailLink")}
        </a>
        {mayShare && (
          <button
            type="button"
            className="cx-back"
            // Who thinks better of it closes the device's own window; there is nothing to tell of that.
            onClick={() => void navigator.share({ url: link, title: document.title }).catch(() => undefined)}
          >
            {say("shareBy")}
          </button>
        )}
      </div>
      <p role="status">{copied && say("linkCopied")}</p>
    </div>
  );
}
