// What was ordered, line by line, what is taken off and added, and the total; a change of the total is told.
import type { OrderFace, OrderSummaryFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import { type InputProps, shownText } from "../input";

export function OrderSummaryContent({ block, controlId, facts }: InputProps<OrderSummaryFace>) {
  const label = shownText(facts, "label", block.label);
  const order = facts.order;
  const included = order?.taxes.filter((tax) => tax.included) ?? [];
  return (
    <section className="cx-order" aria-labelledby={label ? `${controlId}-title` : undefined}>
      {label && <h3 id={`${controlId}-title`}>{label}</h3>}
      {order && order.lines.length > 0 && <Lines order={order} />}
      {!facts.to_pay && !order?.lines.length && <p>{say("orderNothing")}</p>}
      {order && order.lines.length > 0 && (
        <div role="status">
          <p className="cx-order-total">
            <span>{say("total")}</span> <strong>{order.total}</strong>
          </p>
          {included.map((tax, at) => (
            <p key={at} className="cx-order-included">
              <span>{say("included", { tax: tax.label })}</span> <span>{tax.amount}</span>
            </p>
          ))}
        </div>
      )}
      {facts.unsettled && (
        <p role="status" className="cx-unsettled">
          {say("unsettled")}
        </p>
      )}
      {facts.to_pay && (
        <p role="status" className="cx-order-to-pay">
          {facts.to_pay}
        </p>
      )}
    </section>
  );
}

function Lines({ order }: { order: OrderFace }) {
  const sums = [
    ...(order.subtotal ? [{ label: say("subtotal"), amount: order.subtotal }] : []),
    ...order.discounts,
    ...(order.shipping ? [{ label: say("shipping"), amount: order.shipping }] : []),
    ...order.taxes.filter((tax) => !tax.included),
  ];
  return (
    <table>
      <tbody>
        {order.lines.map((line, at) => (
          <tr key={at}>
            <th scope="row">
              {line.quantity === "1" ? line.label : `${line.quantity} × ${line.label}`}
              {line.quantity !== "1" && <small> {say("each", { price: line.price })}</small>}
            </th>
            <td>{line.amount}</td>
          </tr>
        ))}
        {sums.map((sum, at) => (
          <tr key={`sum ${at}`} className="cx-order-sum">
            <th scope="row">{sum.label}</th>
            <td>{sum.amount}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
