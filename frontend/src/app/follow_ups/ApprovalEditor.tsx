// An approval: its steps, who decides in each, until when, and who stands in.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { queries } from "../../api/queries";
import { newId } from "../../model/new_block";
import type { FollowUp } from "../../model/parts";
import { Condition } from "./Condition";

type ApprovalFollowUp = Extract<FollowUp, { kind: "approval" }>;
type Step = ApprovalFollowUp["steps"][number];
type Decider = Step["deciders"][number];

export const NO_DECIDER: Decider = { person: "", group: "", address: "", when: "" };
export const newStep = (): Step => ({
  id: newId(),
  name: "",
  only_when: "",
  deciders: [NO_DECIDER],
  every: false,
  hours: null,
  remind: null,
  stand_in: NO_DECIDER,
});

interface Props {
  followUp: ApprovalFollowUp;
  edit: (changes: Partial<ApprovalFollowUp>) => void;
}

export function ApprovalEditor({ followUp, edit }: Props) {
  const { steps } = followUp;
  const put = (at: number, changes: Partial<Step>) =>
    edit({ steps: steps.map((step, index) => (index === at ? { ...step, ...changes } : step)) });
  return (
    <Box sx={{ display: "grid", gap: 2 }}>
      <TextField
        label="What about, in one line"
        value={followUp.subject}
        helperText="With values in braces, such as {name}, {night}; it stands in the list of decisions"
        data-values=""
        onChange={(event) => edit({ subject: event.target.value })}
      />
      {steps.map((step, at) => (
        <OneStep
          key={step.id}
          part={followUp.id}
          step={step}
          at={at}
          alone={steps.length === 1}
          put={(changes) => put(at, changes)}
          onRemove={() => edit({ steps: steps.toSpliced(at, 1) })}
        />
      ))}
      <Button variant="outlined" sx={{ justifySelf: "start" }} onClick={() => edit({ steps: [...steps, newStep()] })}>
        Add a step
      </Button>
      <Typography variant="body2" color="text.secondary">
        Places that a response has stay taken while somebody decides, and are given back with a denial. What visitors
        are told are mails of their own: When approved, When denied, When asked back, with {"{decision.remark}"} and{" "}
        {"{decision.by}"}.
      </Typography>
    </Box>
  );
}

interface StepProps {
  part: string;
  step: Step;
  at: number;
  alone: boolean;
  put: (changes: Partial<Step>) => void;
  onRemove: () => void;
}

function OneStep({ part, step, at, alone, put, onRemove }: StepProps) {
  const hours = (label: string, setting: "hours" | "remind", help: string) => (
    <TextField
      type="number"
      label={label}
      value={step[setting] ?? ""}
      helperText={help}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { min: 1, max: 8_784 } }}
      onChange={(event) => {
        const count = Math.trunc(Number(event.target.value));
        put({ [setting]: count > 0 ? Math.min(count, 8_784) : null });
      }}
    />
  );
  const decider = (index: number, changes: Decider) => put({ deciders: step.deciders.with(index, changes) });
  return (
    <Box
      role="group"
      aria-label={`Step ${at + 1}`}
      sx={{ display: "grid", gap: 1.5, pl: 1.5, borderLeft: 2, borderColor: "note.rule" }}
    >
      {!alone && (
        <TextField
          label={`Name of step ${at + 1}`}
          value={step.name}
          placeholder={`Step ${at + 1}`}
          onChange={(event) => put({ name: event.target.value })}
        />
      )}
      <Condition
        part={part}
        setting={`steps.${at}.only_when`}
        text={step.only_when}
        title="Only when"
        absent="for every response; add a rule, such as an amount"
        onChange={(only_when) => put({ only_when })}
      />
      {step.deciders.map((each, index) => (
        <Box key={index} sx={{ display: "grid", gap: 0.5 }}>
          <Box sx={{ display: "grid", gridTemplateColumns: "1fr auto", gap: 1, alignItems: "center" }}>
            <Who label={index === 0 ? "Decides" : "Or"} decider={each} put={(changes) => decider(index, changes)} />
            <Button
              aria-label={`Leave out who decides ${index + 1}`}
              disabled={step.deciders.length === 1}
              onClick={() => put({ deciders: step.deciders.toSpliced(index, 1) })}
            >
              ✕
            </Button>
          </Box>
          <Condition
            part={part}
            setting={`steps.${at}.deciders.${index}.when`}
            text={each.when}
            title="Only when"
            absent="always; add a rule, such as a site"
            onChange={(when) => decider(index, { ...each, when })}
          />
        </Box>
      ))}
      <Button sx={{ justifySelf: "start" }} onClick={() => put({ deciders: [...step.deciders, NO_DECIDER] })}>
        Somebody else too
      </Button>
      {step.deciders.length > 1 && (
        <FormControlLabel
          control={<Switch checked={step.every} onChange={(_event, every) => put({ every })} />}
          label="Every one of them has to approve"
        />
      )}
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1 }}>
        {hours("Within so many hours", "hours", "Blank: without an end")}
        {hours("Reminded so many before", "remind", "Blank: not at all")}
      </Box>
      {step.hours !== null && (
        <Who label="After that also" decider={step.stand_in} put={(stand_in) => put({ stand_in })} />
      )}
      {!alone && (
        <Button color="inherit" size="small" sx={{ justifySelf: "start" }} onClick={onRemove}>
          Leave this step out
        </Button>
      )}
    </Box>
  );
}

const BY_ADDRESS = "address";

/** Somebody of the team, a group, or whoever has the address that a formula gives. */
export function Who({ label, decider, put }: { label: string; decider: Decider; put: (decider: Decider) => void }) {
  const people = useQuery(queries.people()).data?.people ?? [];
  const groups = useQuery(queries.groups()).data?.groups ?? [];
  const value = decider.person
    ? `person ${decider.person}`
    : decider.group
      ? `group ${decider.group}`
      : decider.address
        ? BY_ADDRESS
        : "";
  const known = new Set([
    "",
    BY_ADDRESS,
    ...people.map(({ id }) => `person ${id}`),
    ...groups.map(({ code }) => `group ${code}`),
  ]);
  const choose = (chosen: string) => {
    const [kind, name = ""] = chosen.split(/ (.*)/);
    const address = kind === BY_ADDRESS ? decider.address || " " : "";
    put({
      ...NO_DECIDER,
      when: decider.when,
      address,
      ...(kind === "person" || kind === "group" ? { [kind]: name } : {}),
    });
  };
  return (
    <Box sx={{ display: "grid", gap: 1 }}>
      <TextField
        select
        label={label}
        value={value}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        onChange={(event) => choose(event.target.value)}
      >
        <MenuItem value="">nobody yet</MenuItem>
        {groups.map(({ code, name }) => (
          <MenuItem key={code} value={`group ${code}`}>
            anybody in {name}
          </MenuItem>
        ))}
        {people.map(({ id, name }) => (
          <MenuItem key={id} value={`person ${id}`}>
            {name}
          </MenuItem>
        ))}
        <MenuItem value={BY_ADDRESS}>whoever has an address of the answers</MenuItem>
        {!known.has(value) && <MenuItem value={value}>{value.split(/ (.*)/)[1]} (gone)</MenuItem>}
      </TextField>
      {value === BY_ADDRESS && (
        <TextField
          label="Their address, as a formula"
          value={decider.address.trim()}
          placeholder="site.keeper_email"
          onChange={(event) => put({ ...decider, address: event.target.value || " " })}
        />
      )}
    </Box>
  );
}
