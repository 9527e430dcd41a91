// What a visitor would pay with the answers that are tried, as a small time line.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { OrderSummaryContent } from "../../fields/order_summary/Input";
import type { OrderSummaryFace, TriedPlanReply } from "../../api/generated/wire";
import { asDate, counted } from "../../text/words";
import { brandClasses, brandStyle } from "../../form/brand";
import { useBench } from "../workbench/bench";
import { useOutcome } from "../workbench/useOutcome";

const UNUSED = { answer: null, required: false, locked: false, invalid: false, describedBy: undefined } as const;

/** What is paid later by a plan: the first charges with their days, how it goes on, and all of it together. */
function Later({ plan: { charges, more, last_day, whole } }: { plan: TriedPlanReply }) {
  const goesOn = more === null ? "and so on, until it is stopped" : `and ${counted(more, "time")} more`;
  return (
    <>
      {charges.map(({ day, amount }) => (
        <li key={day}>
          <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
            {asDate(day)}
          </Typography>
          <Typography sx={{ fontVariantNumeric: "tabular-nums", fontWeight: 600 }}>{amount}</Typography>
        </li>
      ))}
      {more !== 0 && (
        <li>
          <Typography sx={{ mt: 1 }}>
            {goesOn}
            {last_day && `, the last on ${asDate(last_day)}`}
          </Typography>
        </li>
      )}
      {whole && (
        <li>
          <Typography sx={{ mt: 1, fontVariantNumeric: "tabular-nums" }}>In all {whole}</Typography>
        </li>
      )}
    </>
  );
}

export function WouldPay() {
  const { form, parts } = useBench();
  const outcome = useOutcome();
  const summary = [...parts.values()].find((entry) => entry.what === "block" && entry.part.type === "order_summary");
  const facts = summary && outcome?.state.blocks[summary.id];
  const due = outcome?.to_pay ?? "";
  const plan = outcome?.plan ?? null;
  return (
    <Box component="section" aria-label="What a visitor would pay" sx={{ display: "grid", gap: 1.5 }}>
      {facts && summary.what === "block" && (
        <Box
          className={brandClasses(form.brand)}
          style={brandStyle(form.brand)}
          sx={{ p: 2, borderRadius: 1, border: 1, borderColor: "divider", bgcolor: "background.paper" }}
        >
          <OrderSummaryContent
            {...UNUSED}
            block={summary.part as OrderSummaryFace}
            controlId="would-pay"
            facts={facts}
            onChange={() => undefined}
          />
        </Box>
      )}
      <Box component="ol" sx={{ m: 0, pl: 2, borderLeft: 2, borderColor: "note.money", listStyle: "none" }}>
        <li>
          <Typography variant="body2" color="text.secondary">
            Now, once it is handed in
          </Typography>
          <Typography variant="h2" component="p" sx={{ fontVariantNumeric: "tabular-nums" }}>
            {form.payment.on ? due || "nothing: it is complete at once" : "nothing: no payment is asked for"}
          </Typography>
        </li>
        {due && (
          <li>
            <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
              {form.payment.hours} hours later
            </Typography>
            <Typography>what is not paid expires, and what was ordered is free again</Typography>
          </li>
        )}
        {plan && <Later plan={plan} />}
      </Box>
    </Box>
  );
}
