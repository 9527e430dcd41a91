// Once, or by a plan: payments that come back, each plan as a sentence; of several the first whose rule holds is the one.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Form } from "../../api/generated/wire";
import { PAYMENT } from "../../model/parts";
import { DecimalField } from "../../ui/DecimalField";
import { FormulaField } from "../compose/FormulaField";
import { Condition } from "../follow_ups/Condition";
import { useBench } from "../workbench/bench";
import { Section } from "./Section";

type Plan = Form["payment"]["plans"][number];

const PLAIN: Plan = { every: 1, unit: "month", times: "", shared: false, fee: "", first_day: "", when: "" };
const MOST_PLANS = 30;

interface Props {
  plans: readonly Plan[];
  put: (plans: Plan[]) => void;
}

export function Plans({ plans, put }: Props) {
  const move = (at: number) => put(plans.toSpliced(at - 1, 2, plans[at]!, plans[at - 1]!));
  return (
    <Section title="Once, or by a plan">
      <Typography color="text.secondary">
        {plans.length === 0
          ? "It is paid once. A plan has it paid again and again: each month, say, 12 times or until it is stopped."
          : "The first plan whose rule holds is the one; where none does, it is paid once."}
      </Typography>
      {plans.map((plan, at) => (
        <PlanRow
          // A plan has no name of its own; what it says is where it stands.
          key={at}
          plan={plan}
          at={at}
          onChange={(changes) => put(plans.with(at, { ...plan, ...changes }))}
          onRemove={() => put(plans.toSpliced(at, 1))}
          onMove={at > 0 ? () => move(at) : null}
        />
      ))}
      <Box>
        <Button disabled={plans.length >= MOST_PLANS} onClick={() => put([...plans, PLAIN])}>
          Add a plan
        </Button>
      </Box>
    </Section>
  );
}

interface RowProps {
  plan: Plan;
  at: number;
  onChange: (changes: Partial<Plan>) => void;
  onRemove: () => void;
  onMove: (() => void) | null;
}

function PlanRow({ plan, at, onChange, onRemove, onMove }: RowProps) {
  const { mayEdit } = useBench();
  const [counted, setCounted] = useState(plan.times !== "");
  const name = `Plan ${at + 1}`;
  const money = (setting: "fee" | "first_day", title: string, absent: string) => (
    <Condition
      sign="#"
      part={PAYMENT}
      setting={`plans.${at}.${setting}`}
      text={plan[setting]}
      title={title}
      absent={absent}
      onChange={(text) => onChange({ [setting]: text })}
    />
  );
  return (
    <Box
      role="group"
      aria-label={name}
      sx={{ display: "grid", gap: 0.5, pl: 1.5, mb: 1.5, borderLeft: 2, borderColor: "note.money" }}
    >
      <Box sx={{ display: "grid", gridTemplateColumns: "80px 1fr 1.6fr 24px 24px", gap: 1 }}>
        <DecimalField
          whole
          blank={false}
          least={1}
          most={365}
          label="Every"
          value={String(plan.every)}
          onChange={(every) => onChange({ every: Number(every ?? plan.every) })}
        />
        <TextField
          select
          label="Unit"
          value={plan.unit}
          onChange={(event) => onChange({ unit: event.target.value as Plan["unit"] })}
        >
          {(["day", "week", "month", "year"] as const).map((unit) => (
            <MenuItem key={unit} value={unit}>
              {plan.every === 1 ? unit : `${unit}s`}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="How often"
          value={counted ? "counted" : "open"}
          onChange={(event) => {
            setCounted(event.target.value === "counted");
            if (event.target.value === "open") onChange({ times: "", shared: false });
          }}
        >
          <MenuItem value="open">until it is stopped</MenuItem>
          <MenuItem value="counted">so many times</MenuItem>
        </TextField>
        <IconButton
          aria-label={`${name}: before the one above`}
          disabled={onMove === null}
          onClick={onMove ?? undefined}
          sx={{ width: 24, height: 34 }}
        >
          ↑
        </IconButton>
        <IconButton aria-label={`Remove ${name}`} onClick={onRemove} sx={{ width: 24, height: 34 }}>
          ×
        </IconButton>
      </Box>
      {counted && (
        <>
          <FormulaField
            part={PAYMENT}
            setting={`plans.${at}.times`}
            text={plan.times}
            rowKind={null}
            readOnly={!mayEdit}
            onChange={(times) => onChange({ times })}
          />
          <TextField
            select
            label="Each payment is"
            value={plan.shared ? "share" : "whole"}
            onChange={(event) => onChange({ shared: event.target.value === "share" })}
          >
            <MenuItem value="whole">the whole amount</MenuItem>
            <MenuItem value="share">its share of the amount; what can’t be shared out is in the first</MenuItem>
          </TextField>
        </>
      )}
      {money("fee", "Paid once, with the first", "no first fee; add one")}
      {money("first_day", "The first is paid", "the first is paid at once; or on another day")}
      <Condition
        part={PAYMENT}
        setting={`plans.${at}.when`}
        text={plan.when}
        title="Only when"
        absent="for everybody who pays; add a rule"
        onChange={(when) => onChange({ when })}
      />
    </Box>
  );
}
