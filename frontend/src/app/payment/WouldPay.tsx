// What a visitor would pay with the answers that are tried, as a small time line.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { OrderSummaryContent } from "../../fields/order_summary/Input";
import type { OrderSummaryFace } from "../../api/generated/wire";
import { brandClasses, brandStyle } from "../../form/brand";
import { useBench } from "../workbench/bench";
import { useOutcome } from "../workbench/useOutcome";

const UNUSED = { answer: null, required: false, locked: false, invalid: false, describedBy: undefined } as const;

export function WouldPay() {
  const { form, parts } = useBench();
  const outcome = useOutcome();
  const summary = [...parts.values()].find((entry) => entry.what === "block" && entry.part.type === "order_summary");
  const facts = summary && outcome?.state.blocks[summary.id];
  const due = outcome?.to_pay ?? "";
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
      </Box>
    </Box>
  );
}
