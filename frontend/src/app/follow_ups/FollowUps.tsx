// Follow-ups: on a line of moments what is done with a response, each as a sentence; one opened with what it would do.
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
import { copied as nameOfCopy, newId } from "../../model/new_block";
import { type FollowUp, FORM, type Parts } from "../../model/parts";
import { AddMenu } from "../../ui/AddMenu";
import { counted } from "../../text/words";
import { SidePanel, SideRow } from "../../ui/SideList";
import { useBench } from "../workbench/bench";
import { TryingChoice } from "../workbench/TryingChoice";
import { AccountEditor } from "./AccountEditor";
import { ApprovalEditor } from "./ApprovalEditor";
import { useFollowUpPaste, written } from "./clipboard";
import { Condition } from "./Condition";
import { DayEditor } from "./DayEditor";
import { StillOpen } from "./StillOpen";
import { EmailEditor } from "./EmailEditor";
import { RecordEditor } from "./RecordEditor";
import { CalendarEditor } from "./CalendarEditor";
import { TaskEditor } from "./TaskEditor";
import { KINDS, MOMENTS, OF_PAYMENT, OF_DECISION, OF_PARTS, OF_PLAN, OF_SLOTS } from "./kinds";
import { WouldFollow } from "./WouldFollow";

const INTO = { holder: FORM, list: "follow_ups" } as const;

/** What people of the team and its groups are called, by id and code. */
interface Names {
  people: ReadonlyMap<string, string>;
  groups: ReadonlyMap<string, string>;
}

/** A follow-up as a sentence. */
function sentenceOf(each: FollowUp, parts: Parts, { people, groups }: Names, tables: Form["tables"]): string {
  const begin = each.on === "day" ? `${dayInWords(each.day, parts)}: ` : "";
  if (each.kind === "webhook") return `${begin}the response goes to ${each.address || "…"}`;
  if (each.kind === "record") return begin + recordsInWords(each.steps, tables);
  if (each.kind === "approval") return begin + approvalInWords(each.steps, people, groups);
  if (each.kind === "calendar")
    return `${begin}an entry in a calendar: ${each.entry_title || "…"}, from ${parts.get(each.entry)?.title ?? "…"}`;
  if (each.kind === "task") return `${begin}a task: ${each.words || "…"}`;
  if (each.kind === "account") return `${begin}an account for ${nameIn(each.email, parts)}`;
  const to = each.recipients.map(
    ({ field, person, address }) => (field ? parts.get(field)?.title : person ? people.get(person) : address) || "…",
  );
  const along = each.pdf || each.files ? ", with " : "";
  const what = [each.pdf && "the PDF", each.files && "the files"].filter(Boolean).join(" and ");
  return `${begin}a mail goes to ${to.join(", ") || "…"}: ${each.subject || "…"}${along}${what}`;
}

function approvalInWords(
  steps: Extract<FollowUp, { kind: "approval" }>["steps"],
  people: ReadonlyMap<string, string>,
  groups: ReadonlyMap<string, string>,
): string {
  const told = steps.map(({ deciders, every }) =>
    deciders
      .map(
        ({ person, group, address }) =>
          (person ? people.get(person) : group ? (groups.get(group) ?? group) : address.trim()) || "…",
      )
      .join(every ? " and " : " or "),
  );
  return `decided by ${told.join(", then ") || "…"}`;
}

/** What a formula that is a field's name alone is called, else the formula. */
function nameIn(formula: string, parts: Parts): string {
  const key = formula.trim().toLowerCase();
  const named = [...parts.values()].find(
    (entry) => entry.what === "block" && "key" in entry.part && entry.part.key === key,
  );
  return named ? `${named.number} ${named.title}` : formula || "…";
}

const WAYS = { make: "a new record", either: "a record, found or new,", change: "a record that is found" } as const;

function recordsInWords(steps: Extract<FollowUp, { kind: "record" }>["steps"], tables: Form["tables"]): string {
  const told = steps.map(({ way, table }) => `${WAYS[way]} in ${tables.find(({ id }) => id === table)?.name ?? "…"}`);
  return `it is kept as ${told.join(", and ") || "…"}`;
}

function dayInWords({ field, hours, days, at }: FollowUp["day"], parts: Parts): string {
  const date = field ? (parts.get(field)?.title ?? "…") : "handing in";
  if (hours !== null) return `${counted(Math.abs(hours), "hour")} ${hours < 0 ? "before" : "after"} ${date}`;
  const when = days === 0 ? "on the day of" : `${counted(Math.abs(days), "day")} ${days < 0 ? "before" : "after"}`;
  return `${when} ${date}, at ${at}`;
}

export function FollowUps() {
  const { form, part, select, parts, mayEdit, analysis, reply } = useBench();
  useFollowUpPaste();
  const { access } = useQuery(queries.access(reply.id)).data ?? {};
  const people = new Map(useQuery(queries.people()).data?.people.map(({ id, name }) => [id, name]));
  const groups = new Map(useQuery(queries.groups()).data?.groups.map(({ code, name }) => [code, name]));
  const chosen = form.follow_ups.find(({ id }) => id === part) ?? form.follow_ups[0];
  const asks = form.follow_ups.some(({ kind }) => kind === "approval");
  const hasSlots = [...parts.values()].some((entry) => entry.what === "block" && entry.part.type === "slot");
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(300px, 28%) minmax(0, 1fr)", height: "100%" }}>
      <SidePanel name="Time line">
        <Box sx={{ p: 2, borderBottom: 1, borderColor: "divider" }}>
          <Typography variant="h1">Follow-ups</Typography>
          <Typography color="text.secondary" sx={{ mb: 1 }}>
            What is done with a response, and when
          </Typography>
          {mayEdit && <AddFollowUp />}
        </Box>
        <Box sx={{ flex: 1, overflow: "auto" }}>
          {Object.entries(MOMENTS).map(([moment, title]) => {
            const here = form.follow_ups.filter(({ on }) => on === moment);
            // Moments that the form does not come to are not offered.
            if (moment === "kept" && !access?.kept_days && here.length === 0) return null;
            if (OF_PAYMENT.includes(moment) && !form.payment.on && here.length === 0) return null;
            const charges = form.payment.on && form.payment.plans.length > 0;
            if (OF_DECISION.includes(moment) && !asks && here.length === 0) return null;
            if (OF_PARTS.includes(moment) && form.parts.length === 0 && here.length === 0) return null;
            if (OF_SLOTS.includes(moment) && !hasSlots && here.length === 0) return null;
            if (OF_PLAN.includes(moment) && !charges && here.length === 0) return null;
            return (
              <Box key={moment} component="section" aria-label={title}>
                <Typography variant="h3" component="h2" color="text.secondary" sx={{ px: 2, pt: 2, pb: 0.5 }}>
                  ● {title}
                </Typography>
                {here.length === 0 && (
                  <Typography variant="body2" color="text.secondary" sx={{ px: 2 }}>
                    Nothing follows.
                  </Typography>
                )}
                {here.map((each) => (
                  <SideRow key={each.id} chosen={each.id === chosen?.id} onChoose={() => select(each.id)}>
                    <Typography sx={{ fontWeight: 600 }}>
                      {each.name || KINDS[each.kind].title}
                      {!each.active && " · switched off"}
                      {analysis.findings.some(({ block }) => block === each.id) && " · !"}
                    </Typography>
                    <Typography variant="body2" color="text.secondary" sx={{ overflowWrap: "anywhere" }}>
                      {sentenceOf(each, parts, { people, groups }, form.tables)}
                    </Typography>
                  </SideRow>
                ))}
              </Box>
            );
          })}
          <StillOpen formId={reply.id} />
        </Box>
      </SidePanel>
      <Box sx={{ overflow: "auto", p: 3 }} tabIndex={0} role="region" aria-label="The selected follow-up">
        {chosen ? (
          <Detail key={chosen.id} followUp={chosen} />
        ) : (
          <Typography sx={{ maxWidth: 560, color: "text.secondary" }}>
            A follow-up is done once a response is there: a mail to the team or the visitor, the response sent to
            another system, what was answered kept as records, or an account made for who filled in. Each is done
            exactly once, and tried again where it does not work at first.
          </Typography>
        )}
      </Box>
    </Box>
  );
}

function AddFollowUp() {
  const { form, act, select } = useBench();
  const add = (kind: FollowUp["kind"]) => {
    const made = KINDS[kind].made();
    act({ do: "add", parts: [made], into: INTO, at: form.follow_ups.length });
    select(made.id);
  };
  return <AddMenu label="Add a follow-up" kinds={KINDS} onAdd={add} />;
}

function Detail({ followUp }: { followUp: FollowUp }) {
  const { act, form, parts, select, mayEdit, analysis } = useBench();
  const edit = (changes: object) => act({ do: "edit", parts: [followUp.id], changes: { ...changes } });
  const at = form.follow_ups.findIndex(({ id }) => id === followUp.id);
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    await navigator.clipboard.writeText(written(followUp, parts, form.tables));
    setCopied(true);
  };
  const duplicate = () => {
    const made = { ...followUp, id: newId(), name: nameOfCopy(followUp.name || KINDS[followUp.kind].title) };
    act({ do: "add", parts: [made], into: INTO, at: at + 1 });
    select(made.id);
  };
  const findings = analysis.findings.filter(({ block }) => block === followUp.id);
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) minmax(0, 1fr)", gap: 3, alignItems: "start" }}>
      <Box
        component="fieldset"
        disabled={!mayEdit}
        sx={{ m: 0, p: 0, border: 0, minWidth: 0, display: "grid", gap: 2 }}
      >
        <TextField
          label="Name"
          value={followUp.name}
          helperText="For the team"
          onChange={(event) => edit({ name: event.target.value })}
        />
        <TextField select label="When" value={followUp.on} onChange={(event) => edit({ on: event.target.value })}>
          {Object.entries(MOMENTS).map(([moment, title]) => (
            <MenuItem key={moment} value={moment}>
              {title}
            </MenuItem>
          ))}
        </TextField>
        {followUp.on === "day" && <DayEditor day={followUp.day} edit={edit} />}
        <Condition
          part={followUp.id}
          setting="only_when"
          text={followUp.only_when}
          title="Only when"
          absent="for every response; add a rule"
          onChange={(only_when) => edit({ only_when })}
        />
        {followUp.kind === "email" && <EmailEditor mail={followUp} edit={edit} />}
        {followUp.kind === "webhook" && <WebhookAddress address={followUp.address} edit={edit} />}
        {followUp.kind === "account" && <AccountEditor followUp={followUp} edit={edit} />}
        {followUp.kind === "calendar" && <CalendarEditor followUp={followUp} edit={edit} />}
        {followUp.kind === "task" && <TaskEditor followUp={followUp} edit={edit} />}
        {followUp.kind === "approval" && <ApprovalEditor followUp={followUp} edit={edit} />}
        {followUp.kind === "record" && <RecordEditor followUp={followUp} edit={edit} />}
        {findings.map((finding, index) => (
          <Typography
            key={index}
            variant="body2"
            sx={{ color: finding.severity === "error" ? "note.check" : "note.money" }}
          >
            {finding.message} {finding.remedy}
          </Typography>
        ))}
        <Box sx={{ display: "flex", alignItems: "center", gap: 0.5 }}>
          <FormControlLabel
            control={<Switch checked={followUp.active} onChange={(_event, on) => edit({ active: on })} />}
            label="Switched on"
          />
          <Button color="inherit" onClick={duplicate}>
            Duplicate
          </Button>
          <Button color="inherit" title="To paste it with Ctrl+V here or in another form" onClick={() => void copy()}>
            {copied ? "Copied" : "Copy"}
          </Button>
          <Button color="error" onClick={() => act({ do: "remove", parts: [followUp.id] })}>
            Remove
          </Button>
          <Button
            color="inherit"
            aria-label="Move up"
            disabled={at === 0}
            onClick={() => act({ do: "move", parts: [followUp.id], into: INTO, at: at - 1 })}
          >
            ↑
          </Button>
        </Box>
      </Box>
      <Box sx={{ display: "grid", gap: 2 }}>
        <TryingChoice label="Answers" />
        <WouldFollow followUp={followUp} />
      </Box>
    </Box>
  );
}

function WebhookAddress({ address, edit }: { address: string; edit: (changes: object) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const isAddress = (text: string) => text === "" || /^https?:\/\/\S{1,2000}$/.test(text);
  const wrong = typed !== null && !isAddress(typed);
  return (
    <TextField
      label="Address of the other system"
      value={typed ?? address}
      error={wrong}
      helperText={
        wrong ? "Begin with https:// and leave out spaces" : "Only addresses of the open network are written to"
      }
      onChange={(event) => {
        setTyped(event.target.value);
        if (isAddress(event.target.value)) edit({ address: event.target.value });
      }}
    />
  );
}
