// Payment: how a form asks for money, as sentences; beside it what a visitor would see and pay; below, what was paid.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Form } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { PAYMENT } from "../../model/parts";
import { DecimalField } from "../../ui/DecimalField";
import { MessageGroup, ownWordsIn } from "../brand/MessageGroup";
import { FormulaField } from "../compose/FormulaField";
import { Condition } from "../follow_ups/Condition";
import { useFieldsOf } from "../follow_ups/fields_of";
import { useSignedIn } from "../signed_in";
import { useBench } from "../workbench/bench";
import { TryingChoice } from "../workbench/TryingChoice";
import { Accounts } from "./Accounts";
import { Payments } from "./Payments";
import { Plans } from "./Plans";
import { Section } from "./Section";
import { WouldPay } from "./WouldPay";

type Payment = Form["payment"];

export function PaymentArea() {
  const { form, reply, analysis, act, mayEdit } = useBench();
  const who = useSignedIn();
  const { payment } = form;
  const edit = (changes: Partial<Payment>) =>
    act({ do: "edit_form", changes: { payment: { ...payment, ...changes } } });
  const findings = analysis.findings.filter(({ block }) => block === PAYMENT);
  return (
    <Box sx={{ height: "100%", overflow: "auto" }}>
      <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0,1fr) 380px", alignItems: "start" }}>
        <Box sx={{ p: 2, display: "grid", gap: 3, maxWidth: 820 }}>
          <Box sx={{ display: "flex", alignItems: "baseline", gap: 2 }}>
            <Typography variant="h1">Payment</Typography>
            <FormControlLabel
              control={<Switch checked={payment.on} disabled={!mayEdit} onChange={(_event, on) => edit({ on })} />}
              label="Ask for a payment once the form is handed in"
            />
          </Box>
          {findings.map((finding, at) => (
            <Typography key={at} sx={{ color: finding.severity === "error" ? "note.check" : "note.money" }}>
              {finding.message} {finding.remedy}
            </Typography>
          ))}
          {payment.on && (
            <Box
              component="fieldset"
              disabled={!mayEdit}
              sx={{ m: 0, p: 0, border: 0, display: "grid", gap: 3, minWidth: 0 }}
            >
              <Amount payment={payment} edit={edit} />
              <Plans plans={payment.plans} put={(plans) => edit({ plans })} />
              <Where payment={payment} edit={edit} />
              <Payer payment={payment} edit={edit} />
              <OnTheWay payment={payment} edit={edit} />
            </Box>
          )}
        </Box>
        <Box sx={{ p: 2, position: "sticky", top: 0, display: "grid", gap: 1.5 }}>
          <TryingChoice label="A visitor with" />
          <WouldPay />
        </Box>
      </Box>
      {who.role !== "viewer" && (
        <Box sx={{ p: 2, pt: 0 }}>
          <Payments form={reply.id} />
        </Box>
      )}
    </Box>
  );
}

interface PartProps {
  payment: Payment;
  edit: (changes: Partial<Payment>) => void;
}

function Amount({ payment, edit }: PartProps) {
  const { mayEdit } = useBench();
  const [own, setOwn] = useState(payment.amount !== "");
  return (
    <Section title="How much, and when">
      <TextField
        select
        label="Charge"
        value={own ? "formula" : "order"}
        onChange={(event) => {
          setOwn(event.target.value === "formula");
          if (event.target.value === "order") edit({ amount: "" });
        }}
      >
        <MenuItem value="order">the order’s total</MenuItem>
        <MenuItem value="formula">what a formula or a figure gives</MenuItem>
      </TextField>
      {own && (
        <FormulaField
          part={PAYMENT}
          setting="amount"
          text={payment.amount}
          rowKind={null}
          readOnly={!mayEdit}
          onChange={(amount) => edit({ amount })}
        />
      )}
      <Condition
        part={PAYMENT}
        setting="when"
        text={payment.when}
        title="Only when"
        absent="always; add a rule for who pays"
        onChange={(when) => edit({ when })}
      />
      <DecimalField
        whole
        blank={false}
        least={1}
        most={1_440}
        label="Hours till what is not paid expires"
        help="Then what was ordered is free for others again"
        value={String(payment.hours)}
        onChange={(hours) => edit({ hours: Number(hours ?? payment.hours) })}
      />
    </Section>
  );
}

function Where({ payment, edit }: PartProps) {
  const known = useQuery(queries.accounts());
  const accounts = known.data?.accounts ?? [];
  const who = useSignedIn();
  const [keeping, setKeeping] = useState(false);
  const chosen = accounts.find(({ id }) => id === payment.account);
  const practice = useQuery({ ...queries.practiceCards(), enabled: payment.practice });
  const takes = (payment.practice ? practice.data?.cards : chosen?.cards) ?? [];
  // What was chosen stays in the list, whether or not the bank can be asked just now.
  const cards = [...new Set([...takes, ...payment.cards])];
  return (
    <Section title="Through which account">
      <TextField
        select
        label="The money goes to"
        value={payment.practice ? "practice" : payment.account}
        helperText={payment.practice ? "The form says so, and what is paid counts as a try" : undefined}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        onChange={({ target: { value } }) =>
          edit(value === "practice" ? { practice: true } : { practice: false, account: value, cards: [] })
        }
      >
        <MenuItem value="practice">nobody: it is for practice</MenuItem>
        {!payment.practice && payment.account === "" && <MenuItem value="">no account yet</MenuItem>}
        {!payment.practice && payment.account !== "" && !chosen && (
          <MenuItem value={payment.account}>
            {known.isSuccess ? "an account that is not the team’s" : "an account"}
          </MenuItem>
        )}
        {accounts.map(({ id, name, provider, last_four }) => (
          <MenuItem key={id} value={id}>
            {name} · {provider} · key …{last_four}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label="Cards that are taken"
        value={payment.cards}
        slotProps={{
          select: {
            multiple: true,
            displayEmpty: true,
            renderValue: (kinds) => (kinds as string[]).join(", ") || "all",
          },
          inputLabel: { shrink: true },
        }}
        onChange={({ target: { value } }) => edit({ cards: value as unknown as string[] })}
      >
        {cards.map((kind) => (
          <MenuItem key={kind} value={kind}>
            {kind}
          </MenuItem>
        ))}
      </TextField>
      {who.role === "owner" && (
        <Box>
          <Button onClick={() => setKeeping(!keeping)} aria-expanded={keeping}>
            {keeping ? "Done with accounts" : "Add, test or remove accounts"}
          </Button>
          {keeping && <Accounts />}
        </Box>
      )}
    </Section>
  );
}

function Payer({ payment, edit }: PartProps) {
  const fields = {
    payer_name: { label: "Who pays is called", found: useFieldsOf(["name", "short_text"]) },
    payer_email: { label: "and is written to at", found: useFieldsOf(["email"]) },
    delivery: { label: "What is ordered goes to", found: useFieldsOf(["address", "short_text", "long_text"]) },
  } as const;
  return (
    <Section title="Who pays">
      {(["payer_name", "payer_email", "delivery"] as const).map((setting) => (
        <TextField
          key={setting}
          select
          label={fields[setting].label}
          value={payment[setting]}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          onChange={(event) => edit({ [setting]: event.target.value })}
        >
          <MenuItem value="">no field</MenuItem>
          {fields[setting].found.map(({ id, words }) => (
            <MenuItem key={id} value={id}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      ))}
      <Typography variant="body2" color="text.secondary">
        The bank is told these; nobody types them twice. A receipt is a follow-up “When paid”: it knows its number, and
        the response as PDF is one too.
      </Typography>
    </Section>
  );
}

function OnTheWay({ payment, edit }: PartProps) {
  const { form } = useBench();
  const [open, setOpen] = useState(false);
  const own = ownWordsIn("Payment", form.wording.messages);
  return (
    <Section title="On the way">
      <TextField
        select
        label="The card is typed"
        value={payment.in_frame ? "frame" : "page"}
        helperText={
          payment.in_frame
            ? "In the bank’s frame, on the form’s own page; we never see the card"
            : "For websites that want no frames; from an embedded form it opens by itself"
        }
        onChange={(event) => edit({ in_frame: event.target.value === "frame" })}
      >
        <MenuItem value="frame">in the form’s place</MenuItem>
        <MenuItem value="page">on the bank’s own page</MenuItem>
      </TextField>
      <Box>
        <Button onClick={() => setOpen(!open)} aria-expanded={open}>
          {open ? "Done with words" : "What visitors read on the way"}
          {!open && own > 0 && ` · ${own} of your own`}
        </Button>
      </Box>
      {open && (
        <>
          <MessageGroup group="Payment" />
          <Typography variant="body2" color="text.secondary">
            Once it is paid, what follows is the confirmation that holds, as for any other form.
          </Typography>
        </>
      )}
    </Section>
  );
}
