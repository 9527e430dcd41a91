// The kinds of follow-ups: what each is called and for, and a new one of it. One entry per kind.
import { newStep, NO_DECIDER } from "./ApprovalEditor";
import type { FollowUp } from "../../model/parts";
import { newId } from "../../model/new_block";

interface FollowUpKind {
  title: string;
  purpose: string;
  made: () => FollowUp;
}

const PLAIN = {
  name: "",
  on: "complete",
  day: { field: "", hours: null, days: 1, at: "09:00" },
  only_when: "",
  active: true,
} as const;

export const KINDS: Record<FollowUp["kind"], FollowUpKind> = {
  email: {
    title: "E-mail",
    purpose: "To people of the team, to the visitor, or to whom a rule says",
    made: () => ({
      ...PLAIN,
      id: newId(),
      kind: "email",
      recipients: [],
      from_name: "",
      reply_to: "",
      subject: "",
      paragraphs: [],
      all_answers: false,
      pdf: false,
      files: false,
      megabytes: 10,
      entry: "",
      entry_title: "",
      entry_place: "",
      minutes: 60,
    }),
  },
  webhook: {
    title: "Webhook",
    purpose: "The response as JSON, signed, to another system",
    made: () => ({ ...PLAIN, id: newId(), kind: "webhook", address: "" }),
  },
  record: {
    title: "Record",
    purpose: "What was answered, kept in your tables: made anew, or found and changed",
    made: () => ({ ...PLAIN, id: newId(), kind: "record", steps: [] }),
  },
  account: {
    title: "Account",
    purpose: "Whoever filled in becomes a member, once, and is put into groups",
    made: () => ({ ...PLAIN, id: newId(), kind: "account", email: "", name_of: "", groups: [], mail: true }),
  },
  task: {
    title: "Task",
    purpose: "Something to do for somebody of the team, until a day",
    made: () => ({ ...PLAIN, id: newId(), kind: "task", words: "", who: NO_DECIDER, days: 7 }),
  },
  calendar: {
    title: "Calendar entry",
    purpose: "A slot or a date in a calendar of another system, changed and taken out with the booking",
    made: () => ({
      ...PLAIN,
      id: newId(),
      kind: "calendar",
      calendars: [{ calendar: "", when: "" }],
      entry: "",
      entry_title: "",
      entry_place: "",
      text: "",
      guest: "",
      minutes: 60,
    }),
  },
  approval: {
    title: "Approval",
    purpose: "Somebody decides about the response, in one step or several",
    made: () => ({ ...PLAIN, id: newId(), kind: "approval", subject: "", steps: [newStep()] }),
  },
};

/** How a follow-up of a response stands, in words. */
export const STATES: Record<string, string> = { waiting: "waits", done: "done", failed: "did not work" };

/** The events that a form can come to, in their order. */
export const MOMENTS = {
  kept: "When kept to go on later",
  "handed in": "On handing in",
  paid: "When paid",
  complete: "When complete",
  "payment failed": "When a payment fails",
  charge: "With each later charge",
  "charge failed": "When a later charge fails",
  refunded: "When money is given back",
  "moved up": "When moved up from the waiting list",
  rebooked: "When another slot is taken",
  cancelled: "When a booking is cancelled",
  approved: "When approved",
  denied: "When denied",
  "asked back": "When asked back",
  "handed on": "When handed on to a part",
  "handed back": "When sent back",
  day: "On a day before or after",
} as const;

/** Those that only a form with a payment comes to, and those that only one with a plan does. */
export const OF_PAYMENT: readonly string[] = ["paid", "payment failed", "refunded"];
export const OF_PLAN: readonly string[] = ["charge", "charge failed"];
/** Those that only a form with an approval comes to. */
export const OF_DECISION: readonly string[] = ["approved", "denied", "asked back"];
/** Those that only a form with parts for others comes to. */
export const OF_PARTS: readonly string[] = ["handed on", "handed back"];
/** Those that only a form with slots comes to. */
export const OF_SLOTS: readonly string[] = ["moved up", "rebooked", "cancelled"];
