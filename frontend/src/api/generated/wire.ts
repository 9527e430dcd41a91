// Generated from wire.schema.json by npm run types. Do not edit.

/**
 * How bad a finding is.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Severity".
 */
export type Severity = "error" | "doubt";
/**
 * What a note is about; each has a colour, a sign and a word.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NoteKind".
 */
export type NoteKind = "rule" | "calculation" | "check" | "money" | "data";
/**
 * What the values of a column are, for comparing, sorting and counting.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Holds".
 */
export type Holds =
  | "text"
  | "number"
  | "yes or no"
  | "date"
  | "time"
  | "date and time"
  | "choice"
  | "choices"
  | "files"
  | "grid"
  | "rows";
/**
 * What a row says of its name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RowOperator".
 */
export type RowOperator =
  | "is"
  | "is_not"
  | "one_of"
  | "more"
  | "at_least"
  | "less"
  | "at_most"
  | "from_to"
  | "whole"
  | "blank"
  | "filled"
  | "has"
  | "has_not"
  | "mentions"
  | "mentions_not"
  | "contains"
  | "contains_not"
  | "begins"
  | "ends"
  | "words"
  | "past"
  | "next_days"
  | "last_days"
  | "yes"
  | "not_yes"
  | "no"
  | "shown"
  | "not_shown"
  | "in_group"
  | "not_in_group"
  | "formula";
/**
 * What a key may do.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "KeyRight".
 */
export type KeyRight = "read forms" | "read responses" | "submit";

export interface Wire {
  [k: string]: unknown;
}
/**
 * Whether the form can be filled in: while it is `online`, from `opens` to `closes` (a moment that is not in it).
 *
 * At most `most` responses are taken in all; at most `most_each` with the same answer to the field `each`, by id.
 * It is for `who`: anyone, whoever is signed in at the team (members, and its own people), those of some `groups`, by
 * code, or its own people. With `once` whoever is signed in responds once; with `own` members find their responses
 * again on their own page, and there may see those of `others`: of all, or of whoever is in one of their groups.
 * With `kept_days` visitors may go on later: what they have entered so far is kept for so long after they last did.
 * What visitors read instead of the form is `offline`, `early`, `over` and `full`; "" stands for the usual words.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Access".
 */
export interface Access {
  closes: string;
  each: string;
  early: string;
  full: string;
  /**
   * @maxItems 200
   */
  groups: string[];
  kept_days: number | null;
  most: number | null;
  most_each: number | null;
  offline: string;
  once: boolean;
  online: boolean;
  opens: string;
  others: "none" | "groups" | "all";
  over: string;
  own: boolean;
  who: "anyone" | "members" | "groups" | "team";
}
/**
 * Who may fill in the form and when.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AccessRequest".
 */
export interface AccessRequest {
  access: Access;
}
/**
 * The account of a member, made once for an e-mail, and put into these `groups`, by code.
 *
 * `email` and `name` are formulas; whoever is signed in has an account already, and is put into the groups. With
 * `mail` who is new gets one by which they sign in.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AccountFollowUp".
 */
export interface AccountFollowUp {
  active: boolean;
  day: Day;
  email: string;
  /**
   * @maxItems 200
   */
  groups: string[];
  id: string;
  kind: "account";
  mail: boolean;
  name: string;
  name_of: string;
  on:
    | "kept"
    | "handed in"
    | "complete"
    | "paid"
    | "payment failed"
    | "charge"
    | "charge failed"
    | "refunded"
    | "moved up"
    | "rebooked"
    | "cancelled"
    | "approved"
    | "denied"
    | "asked back"
    | "handed on"
    | "handed back"
    | "day";
  only_when: string;
}
/**
 * A day that hangs on a response: so many `days` after (or, below 0, before) the date in a field, at an hour.
 *
 * `field` is a field of a date or a slot by id, or "" for the day of handing in; the hour is that of the form's time
 * zone. With `hours` it is so many hours after (or before) the moment in the field instead.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Day".
 */
export interface Day {
  at: string;
  days: number;
  field: string;
  hours: number | null;
}
/**
 * An account: of its secret key the last four characters, `cards` the kinds that it takes.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AccountReply".
 */
export interface AccountReply {
  cards: string[];
  id: string;
  last_four: string;
  name: string;
  provider: string;
}
/**
 * The team's accounts.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AccountsReply".
 */
export interface AccountsReply {
  accounts: AccountReply[];
}
/**
 * What the browser may know of an address; without `country` all addresses are in the form's own.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AddressFace".
 */
export interface AddressFace {
  country: boolean;
  help: string;
  id: string;
  label: string;
  placeholder_postal_code: string;
  placeholder_street: string;
  placeholder_town: string;
  type: "address";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Street, postal code, town, and country where it is asked (ISO 3166-1, two letters).
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AddressField".
 */
export interface AddressField {
  checks: Check[];
  country: boolean;
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  part: string;
  personal: boolean;
  placeholder_postal_code: string;
  placeholder_street: string;
  placeholder_town: string;
  required: string;
  shown: string;
  type: "address";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Something that must hold, and what visitors are told where it does not.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Check".
 */
export interface Check {
  formula: string;
  message: string;
}
/**
 * The address that somebody wants to sign in with, and their password.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AddressRequest".
 */
export interface AddressRequest {
  email: string;
  password: string;
}
/**
 * A condition, by owner and setting, and whether it holds.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AimReply".
 */
export interface AimReply {
  holds: boolean;
  owner: string;
  setting: string;
}
/**
 * Every answer that was given and is shown, by pages; nothing that is blank.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AllAnswersBlock".
 */
export interface AllAnswersBlock {
  id: string;
  key: string;
  label: string;
  part: string;
  shown: string;
  type: "all_answers";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of such a block; the answers come with the state.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AllAnswersFace".
 */
export interface AllAnswersFace {
  id: string;
  label: string;
  type: "all_answers";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What is held of a form's responses, newest first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AllHeldReply".
 */
export interface AllHeldReply {
  held: HeldReply[];
}
/**
 * A response that is held as suspected, and why, in words; those `removed` come back for 30 days.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "HeldReply".
 */
export interface HeldReply {
  number: number;
  reasons: string[];
  received_at: string;
  removed: boolean;
}
/**
 * What the core says of a draft; `ranges` are those of figures by id.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AnalysisReply".
 */
export interface AnalysisReply {
  findings: FindingReply[];
  links: {
    [k: string]: Links;
  };
  notes: {
    [k: string]: Note[];
  };
  ranges: {
    [k: string]: FigureRange;
  };
  state: FormState;
}
/**
 * A finding of the proof; `start` and `end` are the place in the formula of `setting`.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FindingReply".
 */
export interface FindingReply {
  block: string | null;
  code: string;
  end: number | null;
  message: string;
  remedy: string;
  setting: string | null;
  severity: Severity;
  start: number | null;
}
/**
 * What the formulas and texts of a part read, and whose read it; ids in the order of the outline.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Links".
 */
export interface Links {
  read_by: string[];
  reads: string[];
}
/**
 * A sentence about one fact of a part; `setting` is what an editor opens on.
 *
 * For a formula, `fact` is what it works out ("shown", "check", "value" …), `condition` whether it holds or does not,
 * `type` the kind of its result ("number", "text" …), and `reads` the ids of what it reads.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Note".
 */
export interface Note {
  condition: boolean;
  fact: string;
  kind: NoteKind;
  reads: string[];
  setting: string;
  type: string;
  words: Words[];
}
/**
 * A piece of a sentence. With `block` it names that block, whose number and label the reader sees.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Words".
 */
export interface Words {
  block: string | null;
  code: boolean;
  strong: boolean;
  text: string;
}
/**
 * Between which numbers a figure lies, as plain text; null where there is no such end, or none is known.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FigureRange".
 */
export interface FigureRange {
  greatest: string | null;
  least: string | null;
}
/**
 * What is true of the form now: of its blocks by id, and of the form as a whole.
 *
 * `path` are the ids of the pages that apply, in order; `left` counts the questions that are still blank; `texts` are
 * those of pages and of the welcome with inserted values, by owner and setting; `said` is what was answered so far, by
 * steps, where questions are asked one after the other. `fresh` comes with the first state
 * alone: what is true of the blocks of a new row, by row kind and block, until the core has seen it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FormState".
 */
export interface FormState {
  blocks: {
    [k: string]: BlockState;
  };
  error?: ErrorFace | null;
  fresh?: {
    [k: string]: {
      [k: string]: BlockState;
    };
  };
  left?: number;
  path: string[];
  said?: AnsweredPageFace[];
  texts?: {
    [k: string]: {
      [k: string]: string;
    };
  };
}
/**
 * What is true of a block now; what is left out is not so.
 *
 * `value` only for calculated fields; `texts` are those with inserted values, by setting; `options` the ids of the
 * options on offer where not all are, `barred` of those that can't be chosen; `dropped` where a choice was taken back;
 * `fill` the answer to put in where none was given yet, which `follows` while the visitor leaves it, or can't change
 * what came `from_link`; `files` those of an upload; `feedback` what is told of an answer in a quiz; `prices` those of
 * options by id, or of each piece by ""; `left` words for what is left of a product by option id or "", `gone` the
 * words for what is sold out of it; `answers` only for a block of all answers; `order` only for an order summary, with
 * `to_pay` for what is paid now and later where the total does not say it; `unsettled` where a computed block is made
 * of an answer that is refused; `moment` only for dates and times; `records`
 * only for a record choice; `rows` and `kinds` only for a repeat.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BlockState".
 */
export interface BlockState {
  answers?: AnsweredPageFace[] | null;
  barred?: string[] | null;
  dropped?: boolean;
  error?: ErrorFace | null;
  feedback?: FeedbackFace | null;
  files?: FileFace[] | null;
  fill?: unknown;
  follows?: boolean;
  from_link?: boolean;
  gone?: {
    [k: string]: string;
  } | null;
  kinds?: {
    [k: string]: KindState;
  } | null;
  left?: {
    [k: string]: string;
  } | null;
  locked?: boolean;
  moment?: MomentState | null;
  options?: string[] | null;
  order?: OrderFace | null;
  prices?: {
    [k: string]: string;
  } | null;
  records?: RecordsState | null;
  required?: boolean;
  rows?: {
    [k: string]: RowState;
  } | null;
  shown: boolean;
  slots?: SlotsState | null;
  texts?: {
    [k: string]: string;
  } | null;
  to_pay?: string | null;
  unsettled?: boolean;
  value?: string | null;
}
/**
 * What was answered on a page, by its id.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AnsweredPageFace".
 */
export interface AnsweredPageFace {
  answers: AnsweredFace[];
  page: string;
  title: string;
}
/**
 * An answer in words, with the label of its field as visitors read it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AnsweredFace".
 */
export interface AnsweredFace {
  label: string;
  text: string;
}
/**
 * What is wrong with an answer.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ErrorFace".
 */
export interface ErrorFace {
  code: string;
  message: string;
}
/**
 * What is told of an answer: what it was, in words, what is said of its options, and the right answer, or "".
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FeedbackFace".
 */
export interface FeedbackFace {
  notes?: string[];
  outcome: "right" | "partly" | "wrong";
  right?: string;
  words: string;
}
/**
 * A file that the visitor sent: `size` in bytes, `type` its media type.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FileFace".
 */
export interface FileFace {
  id: string;
  name: string;
  size: number;
  type: string;
}
/**
 * What is true of a row kind: whether such rows can be added and changed; its label, if it has inserted values.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "KindState".
 */
export interface KindState {
  label?: string | null;
  locked?: boolean;
  shown?: boolean;
}
/**
 * How a date or time is understood (`told`); the `first` that it may be, and the `last`, in ISO 8601.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MomentState".
 */
export interface MomentState {
  first?: string | null;
  last?: string | null;
  told?: string | null;
}
/**
 * An order as visitors read it; "" for what it has not: no subtotal where nothing is added to the lines.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OrderFace".
 */
export interface OrderFace {
  discounts: SumFace[];
  lines: OrderLineFace[];
  shipping: string;
  subtotal: string;
  taxes: SumFace[];
  total: string;
}
/**
 * A named amount of an order; of a tax, whether it is in the prices.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SumFace".
 */
export interface SumFace {
  amount: string;
  included?: boolean;
  label: string;
}
/**
 * A line of an order: what, how many, at what price each, and what that comes to, as visitors read it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OrderLineFace".
 */
export interface OrderLineFace {
  amount: string;
  label: string;
  price: string;
  quantity: string;
}
/**
 * The records that a question offers: those `listed`, whether there are `more` to be searched, and the `chosen`.
 *
 * `none` says why nothing is listed; `stamp` is a mark of what is known of the chosen, to be handed in with them.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordsState".
 */
export interface RecordsState {
  chosen?: RecordFace[];
  listed: RecordFace[];
  more?: boolean;
  none?: string;
  stamp?: string;
}
/**
 * A record that can be chosen: the id to send, and what is shown of it; `picture` is a file of it, by its id.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordFace".
 */
export interface RecordFace {
  id: string;
  label: string;
  picture?: string;
}
/**
 * What is true of the blocks of a row, by id, and what is wrong with the row as a whole.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RowState".
 */
export interface RowState {
  blocks: {
    [k: string]: BlockState;
  };
  error?: ErrorFace | null;
}
/**
 * The slots that are free: by day, of which the next one to look at is `later`; which was `chosen`.
 *
 * Times are those of the time `zone` (IANA). `none` says why there are none.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SlotsState".
 */
export interface SlotsState {
  chosen?: ChosenSlotFace | null;
  days: FreeDayFace[];
  later?: string;
  none?: string;
  zone: string;
}
/**
 * The slot that was chosen: its id, and day and time in words.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ChosenSlotFace".
 */
export interface ChosenSlotFace {
  id: string;
  label: string;
}
/**
 * A day (ISO 8601) with its free times.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FreeDayFace".
 */
export interface FreeDayFace {
  day: string;
  label: string;
  times: FreeTimeFace[];
}
/**
 * A time that is free: its id, from when to when, when that is in UTC (ISO 8601), and how much is `left`.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FreeTimeFace".
 */
export interface FreeTimeFace {
  id: string;
  label: string;
  left?: string;
  start: string;
}
/**
 * A form: where visitors fill it in, the edition that they get (None before there is one), how many responses.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ApiForm".
 */
export interface ApiForm {
  address: string | null;
  changed_at: string;
  edition: number | null;
  id: string;
  name: string;
  responses: number;
}
/**
 * The forms that a key may read, latest change first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ApiForms".
 */
export interface ApiForms {
  forms: ApiForm[];
}
/**
 * A response was kept: its number, its confirmation's page, and whether something is to be paid there.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ApiReceived".
 */
export interface ApiReceived {
  number: number;
  page: string;
  to_pay: string;
}
/**
 * A page of responses, by keys; `next` is the cursor of the page after it, "" where there is none.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ApiResponses".
 */
export interface ApiResponses {
  next: string;
  responses: {
    [k: string]: unknown;
  }[];
}
/**
 * Answers by key, as responses have them, or as texts; and what a link would bring.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ApiSubmission".
 */
export interface ApiSubmission {
  answers: {
    [k: string]: unknown;
  };
  link: {
    [k: string]: string;
  };
}
/**
 * Somebody decides about the response, step by step; `subject` says in one line what about.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ApprovalFollowUp".
 */
export interface ApprovalFollowUp {
  active: boolean;
  day: Day;
  id: string;
  kind: "approval";
  name: string;
  on:
    | "kept"
    | "handed in"
    | "complete"
    | "paid"
    | "payment failed"
    | "charge"
    | "charge failed"
    | "refunded"
    | "moved up"
    | "rebooked"
    | "cancelled"
    | "approved"
    | "denied"
    | "asked back"
    | "handed on"
    | "handed back"
    | "day";
  only_when: string;
  /**
   * @maxItems 30
   */
  steps: ApprovalStep[];
  subject: string;
}
/**
 * A step of an approval, where its condition holds: any of its `deciders` decides, or `every` one has to approve.
 *
 * It is to be decided within `hours`; they are reminded `remind` hours before that, and after it who stands in may
 * decide too.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ApprovalStep".
 */
export interface ApprovalStep {
  /**
   * @maxItems 30
   */
  deciders: Decider[];
  every: boolean;
  hours: number | null;
  id: string;
  name: string;
  only_when: string;
  remind: number | null;
  stand_in: Decider;
}
/**
 * Who decides, where the condition holds.
 *
 * Somebody of the team by id, whoever is in a group by its code, or whoever of the team has the e-mail address that a
 * formula gives.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Decider".
 */
export interface Decider {
  address: string;
  group: string;
  person: string;
  when: string;
}
/**
 * A column that can be asked for: what it holds, in which ways, and of a choice its options.
 *
 * `facet` where every response has it; `parts` are the questions of a grid and the fields of rows.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AskedColumnReply".
 */
export interface AskedColumnReply {
  calculated: boolean;
  earlier: boolean;
  facet: boolean;
  holds: Holds;
  hows: (
    | "is"
    | "contains"
    | "begins"
    | "any_of"
    | "all_of"
    | "none_of"
    | "at_least"
    | "at_most"
    | "between"
    | "last_days"
    | "this"
    | "blank"
    | "answered"
  )[];
  id: string;
  label: string;
  number: string;
  numeric: boolean;
  options: OptionReply[];
  parts: AskedColumnReply[];
}
/**
 * What a choice can be.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OptionReply".
 */
export interface OptionReply {
  code: string;
  label: string;
}
/**
 * An errand was asked for.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AskedReply".
 */
export interface AskedReply {
  errand: number;
}
/**
 * What a form's responses can be asked for; `behind` is how many of them are still being read in.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AskingReply".
 */
export interface AskingReply {
  behind: number;
  columns: AskedColumnReply[];
  statuses: StatusReply[];
}
/**
 * A status that the team gives responses, in the team's order.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "StatusReply".
 */
export interface StatusReply {
  code: string;
  colour: string;
  label: string;
}
/**
 * What somebody did, in words; `person_name` is what they were called then.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AuditEntryReply".
 */
export interface AuditEntryReply {
  area: "sign-ins" | "rights" | "publishing" | "exports" | "feeds and keys" | "removals";
  at: string;
  id: number;
  person_id: string | null;
  person_name: string;
  told: string;
}
/**
 * Some of what was done, the latest first; with `more` there is more before the last.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "AuditReply".
 */
export interface AuditReply {
  entries: AuditEntryReply[];
  more: boolean;
}
/**
 * A band: from this number on (included; none for everything below the next band), its value and its name.
 *
 * The value is a formula, worked out only where its band is the one: 240, or 12 + distance * 0.85.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Band".
 */
export interface Band {
  label: string;
  start: string | null;
  value: string;
}
/**
 * The value of the band in which the result of `formula` lies; `end` is no longer part of the last band.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BandsFigure".
 */
export interface BandsFigure {
  bands: Band[];
  decimals: number;
  end: string | null;
  format: "number" | "money" | "percent" | "text" | "date";
  formula: string;
  id: string;
  kept_decimals: number | null;
  key: string;
  kind: "bands";
  name: string;
  shown_to_visitors: boolean;
}
/**
 * A bar of a chart: `text` is its value as people read it, `share` its length from 0 to 1.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BarFace".
 */
export interface BarFace {
  label: string;
  share: number;
  text: string;
}
/**
 * A bar of a chart: how many, of how many hundred, and what is measured there, with how people write it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BarReply".
 */
export interface BarReply {
  code: string;
  count: number;
  label: string;
  share: string;
  value: string | null;
  value_shown: string;
}
/**
 * Links that were made together.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BatchReply".
 */
export interface BatchReply {
  addressed: number;
  failed: number;
  id: number;
  links: number;
  made_at: string;
  made_by: string | null;
  mailed: number;
  name: string;
  responses: number;
}
/**
 * All that was made together, newest first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BatchesReply".
 */
export interface BatchesReply {
  batches: BatchReply[];
}
/**
 * One's own password, and what the second factor is called.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BeginFactorRequest".
 */
export interface BeginFactorRequest {
  name: string;
  password: string;
}
/**
 * What an app has to know: the secret, and a picture of it (SVG, as a data address).
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BegunCodesReply".
 */
export interface BegunCodesReply {
  id: string;
  picture: string;
  secret: string;
}
/**
 * What was begun, by its id.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BegunReply".
 */
export interface BegunReply {
  id: string;
}
/**
 * What lies in the bin, and for how many days.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BinReply".
 */
export interface BinReply {
  forms: DeletedFormReply[];
  kept_days: number;
}
/**
 * A form in the bin, from which it is taken after so many days; what came in by it goes with it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DeletedFormReply".
 */
export interface DeletedFormReply {
  deleted_at: string;
  id: string;
  live_edition: number | null;
  name: string;
  responses: number;
}
/**
 * A board; `turn` is what `/turn` said when it was made.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BoardReply".
 */
export interface BoardReply {
  columns: ColumnReply[];
  lanes: LaneReply[];
  turn: number;
}
/**
 * A field as a column of the responses; `number` is its outline number, "" where it has none.
 *
 * `earlier` where only editions before the live one have it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ColumnReply".
 */
export interface ColumnReply {
  calculated: boolean;
  earlier: boolean;
  holds: Holds;
  id: string;
  label: string;
  number: string;
  numeric: boolean;
}
/**
 * A column of a board: how many are in it, what its numbers come to as people write it, and its first cards.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LaneReply".
 */
export interface LaneReply {
  code: string;
  count: number;
  exact: boolean;
  label: string;
  rows: RowReply[];
  sums: {
    [k: string]: string;
  };
}
/**
 * A response as a row; `cells` holds text by column id, nothing for a blank; a `test` is a try, not exported.
 *
 * `status` is a code of the form's, "" for none; `person` the id of who has it in hand, "" for nobody; `files` are by
 * column id.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RowReply".
 */
export interface RowReply {
  at_part: string;
  booking: string;
  cells: {
    [k: string]: string;
  };
  decision: string;
  edition: number;
  files: {
    [k: string]: FileFace[];
  };
  number: number;
  payment: string;
  person: string;
  received_at: string;
  stage: string;
  status: string;
  tags: string[];
  test: boolean;
}
/**
 * A slot block of the live edition.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BookedBlockReply".
 */
export interface BookedBlockReply {
  id: string;
  label: string;
}
/**
 * How the slots of a response stand, and which of them it has; for one of them, what could be had instead.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BookingReply".
 */
export interface BookingReply {
  booking: string;
  free: FreeSlotReply[];
  slots: BookingSlotReply[];
}
/**
 * A slot that could be had: its beginning by the clock, in words, and how many places are left of it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FreeSlotReply".
 */
export interface FreeSlotReply {
  code: string;
  left: number;
  told: string;
}
/**
 * A slot of a response: its address ("id", or "repeat/row/id"), the field's label, when in words.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BookingSlotReply".
 */
export interface BookingSlotReply {
  address: string;
  label: string;
  told: string;
  waiting: boolean;
}
/**
 * How the form looks.
 *
 * `accent` is the colour of buttons, choices and links, `banner` that behind the title (none: the accent), `ground`
 * that around the form, `paper` the form's own, `ink` its text. Text on accent and banner may be set by hand
 * (`on_accent`, `on_banner`; none: what reads best). What else is drawn follows from these
 * (`definition/palette.py`). `layout` is how the form stands on its page: under a banner, bare (as in another page),
 * with its picture beside it or behind it, or as wide as its window. `labels` beside fields stand above them where
 * there is no room. `saved` is the id of the team's brand that the form uses; where that is changed, visitors see it
 * at once, or, as the form `follows` by "edition", once the form was published again.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Brand".
 */
export interface Brand {
  accent: string;
  background_picture: string;
  banner: string | null;
  button: "like_fields" | "pill";
  button_size: "small" | "normal" | "large";
  button_width: "words" | "full";
  choices: "list" | "tiles" | "compact";
  corner: "square" | "slight" | "round";
  density: "tight" | "normal" | "airy";
  fields: "outlined" | "filled" | "underlined";
  follows: "at_once" | "edition";
  ground: string;
  header_picture: string;
  heading_typeface:
    | "source_sans"
    | "source_serif"
    | "inter"
    | "work_sans"
    | "nunito"
    | "karla"
    | "montserrat"
    | "lora"
    | "bitter"
    | "fraunces"
    | "device";
  ink: string;
  labels: "above" | "beside";
  layout: "banner" | "bare" | "beside" | "behind" | "wide";
  logo: string;
  logo_alternative: string;
  on_accent: string | null;
  on_banner: string | null;
  paper: string;
  saved: string;
  text_size: "small" | "normal" | "large";
  title_align: "start" | "centre" | "end";
  title_italic: boolean;
  title_size: "small" | "normal" | "large";
  title_underlined: boolean;
  typeface:
    | "source_sans"
    | "source_serif"
    | "inter"
    | "work_sans"
    | "nunito"
    | "karla"
    | "montserrat"
    | "lora"
    | "bitter"
    | "fraunces"
    | "device";
  width: "narrow" | "normal" | "wide";
}
/**
 * The look of a brand from now on.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BrandRequest".
 */
export interface BrandRequest {
  look: {
    [k: string]: unknown;
  };
}
/**
 * The team's brands by name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BrandsReply".
 */
export interface BrandsReply {
  brands: SavedBrandReply[];
}
/**
 * A brand of the team, how many forms use it, and how many of those wait for their next edition with it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SavedBrandReply".
 */
export interface SavedBrandReply {
  forms: number;
  id: string;
  look: Brand;
  name: string;
  waiting: number;
}
/**
 * Since when a trial fails: the newest state in which it passes, the one that broke it, and what leads there.
 *
 * `fails` says whether it does now; the states are None where it passes in none of those that were looked at.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BrokenReply".
 */
export interface BrokenReply {
  changes: Change[];
  failed: StateReply | null;
  fails: boolean;
  passed: StateReply | null;
}
/**
 * One change in words; `part` is the id of what changed (None for the form itself), `name` what people call it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Change".
 */
export interface Change {
  name: string;
  part: string | null;
  words: string;
}
/**
 * A saved state of a draft: its name, "" for none, and how many changes it made of the state before.
 *
 * `edition` is its number where it was published.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "StateReply".
 */
export interface StateReply {
  changes: number;
  edition: number | null;
  name: string;
  revision: number;
  saved_at: string;
  saved_by: string | null;
}
/**
 * How far something has come that is done to `count` responses: `place` were gone through, `changed` changed.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BulkReply".
 */
export interface BulkReply {
  changed: number;
  count: number;
  created_at: string;
  does: "status" | "tag" | "untag" | "person" | "remove" | "bring back" | "anonymise" | "mail again";
  ended_at: string | null;
  id: string;
  person: string | null;
  place: number;
  state: "waiting" | "done" | "stopped";
  value: string;
}
/**
 * What is done to responses: those of these numbers, or without them what the query looks at.
 *
 * `value` is a status, a tag, a person, or the id of the follow-up whose mail is sent again.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BulkRequest".
 */
export interface BulkRequest {
  does: "status" | "tag" | "untag" | "person" | "remove" | "bring back" | "anonymise" | "mail again";
  numbers: [number, ...number[]] | null;
  value: string;
}
/**
 * What is done, and was done within a day, newest first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BulksReply".
 */
export interface BulksReply {
  bulks: BulkReply[];
}
/**
 * What the browser may know of a calculated field; its value comes with the state.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CalculatedFace".
 */
export interface CalculatedFace {
  help: string;
  id: string;
  label: string;
  type: "calculated";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * The result of `formula`, shown in its format.
 *
 * A formula with `response.number` is worked out once the response is saved. With `hidden_when_blank` visitors see
 * nothing of the field while its value is blank.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CalculatedField".
 */
export interface CalculatedField {
  decimals: number;
  format: "number" | "money" | "percent" | "text" | "date";
  formula: string;
  help: string;
  hidden_when_blank: boolean;
  id: string;
  kept_decimals: number | null;
  key: string;
  label: string;
  part: string;
  shown: string;
  type: "calculated";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A calendar of the team, by id, where the condition holds.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CalendarChoice".
 */
export interface CalendarChoice {
  calendar: string;
  when: string;
}
/**
 * An entry in a calendar: of `calendars` the first whose condition holds.
 *
 * `entry` is a field of a slot, a date or a moment by id; where a moment has no end it is so many `minutes` long. The
 * e-mail field `guest`, by id, names who is invited. What changes or cancels the booking changes the entry.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CalendarFollowUp".
 */
export interface CalendarFollowUp {
  active: boolean;
  /**
   * @maxItems 30
   */
  calendars: CalendarChoice[];
  day: Day;
  entry: string;
  entry_place: string;
  entry_title: string;
  guest: string;
  id: string;
  kind: "calendar";
  minutes: number;
  name: string;
  on:
    | "kept"
    | "handed in"
    | "complete"
    | "paid"
    | "payment failed"
    | "charge"
    | "charge failed"
    | "refunded"
    | "moved up"
    | "rebooked"
    | "cancelled"
    | "approved"
    | "denied"
    | "asked back"
    | "handed on"
    | "handed back"
    | "day";
  only_when: string;
  text: string;
}
/**
 * A calendar of the team: its name, its address, and who signs in there.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CalendarNameReply".
 */
export interface CalendarNameReply {
  address: string;
  id: string;
  name: string;
  user_name: string;
}
/**
 * Where a form's bookings are a calendar; "" where they are none.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CalendarReply".
 */
export interface CalendarReply {
  address: string;
}
/**
 * Whether a form's calendar is to have an address, another one than before, or none.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CalendarRequest".
 */
export interface CalendarRequest {
  open: boolean;
}
/**
 * The team's calendars, by name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CalendarsReply".
 */
export interface CalendarsReply {
  calendars: CalendarNameReply[];
}
/**
 * Why a booking is cancelled, for the team's trail.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CancelBookingRequest".
 */
export interface CancelBookingRequest {
  because: string;
}
/**
 * Kinds of cards.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CardsReply".
 */
export interface CardsReply {
  cards: string[];
}
/**
 * How often an answer is there in a row.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CellReply".
 */
export interface CellReply {
  code: string;
  count: number;
  row: string;
  share: string;
}
/**
 * What was typed or pasted, record by record.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ChangeRecordsRequest".
 */
export interface ChangeRecordsRequest {
  /**
   * @minItems 1
   * @maxItems 2000
   */
  changes: [TypedRecord, ...TypedRecord[]];
}
/**
 * What was typed into a record's cells, by column id, "" to empty one; `number` None for a new record.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TypedRecord".
 */
export interface TypedRecord {
  cells: {
    /**
     * This interface was referenced by `undefined`'s JSON-Schema definition
     * via the `patternProperty` "^[a-z0-9]{1,32}$".
     */
    [k: string]: string;
  };
  number: number | null;
  revision: number | null;
}
/**
 * What a correction changes in a column, in words; "" for a blank.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ChangeReply".
 */
export interface ChangeReply {
  after: string;
  before: string;
  calculated: boolean;
  column: string;
  label: string;
}
/**
 * The records as they are kept now, by the place of their change, None where something is wrong; and what is.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ChangedRecordsReply".
 */
export interface ChangedRecordsReply {
  records: (RecordReply | null)[];
  wrong: WrongCellReply[];
}
/**
 * A record as people read it, and as they would type it again, by column id; blanks are left out. So its `files`.
 *
 * What is not `offered` stays where it is named, and can't be chosen any more. `published_at` is since when anybody
 * may read it, None where nobody else does.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordReply".
 */
export interface RecordReply {
  cells: {
    [k: string]: string;
  };
  files: {
    [k: string]: RecordFileReply[];
  };
  name: string;
  number: number;
  offered: boolean;
  published_at: string | null;
  revision: number;
  typed: {
    [k: string]: string;
  };
}
/**
 * A file in a column of a record; `is_picture` where there is a small picture of it to look at.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordFileReply".
 */
export interface RecordFileReply {
  id: string;
  is_picture: boolean;
  name: string;
}
/**
 * What is wrong with a cell: `at` is the place of its change; `column` "" where it is the whole record.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WrongCellReply".
 */
export interface WrongCellReply {
  at: number;
  column: string;
  message: string;
}
/**
 * What changed between two states, in words.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ChangesReply".
 */
export interface ChangesReply {
  changes: Change[];
}
/**
 * How a chart shows its bars: what each says ("" is points for a score, percent for a profile) and which of them.
 *
 * `decimals` are those of its numbers (None: as many as there are, of a score's percent the figure's), `first` how
 * many bars are shown (None: all), `order` whether the largest comes first, or they stand in the order of the
 * profiles.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ChartLook".
 */
export interface ChartLook {
  decimals: number | null;
  first: number | null;
  order: "largest" | "given";
  says: "" | "points" | "percent";
}
/**
 * A chart of a column (`by` another, "" for none) in words and numbers.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ChartReply".
 */
export interface ChartReply {
  all: number;
  answered: number;
  aside: string;
  average: string | null;
  bars: BarReply[];
  by: string;
  cells: CellReply[];
  column: string;
  greatest: string | null;
  headline: string;
  kind: "shares" | "ticks" | "numbers" | "days" | "hours" | "compared" | "crossed" | "grid" | "answers";
  least: string | null;
  more: boolean;
  rows: BarReply[];
  sum: string | null;
}
/**
 * The same of an option that may be shown with a picture; its label says what is to be seen there.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ChoiceFace".
 */
export interface ChoiceFace {
  id: string;
  label: string;
  picture: string;
}
/**
 * How many days shall pass.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ClockRequest".
 */
export interface ClockRequest {
  days: number;
}
/**
 * A slot by its name, and whether it is to be closed or open.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CloseSlotRequest".
 */
export interface CloseSlotRequest {
  closed: boolean;
  name: string;
}
/**
 * Answers as they would be entered, by block id.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CompareRequest".
 */
export interface CompareRequest {
  answers: {
    [k: string]: unknown;
  };
}
/**
 * One condition: a column by id, how it is compared, and with what, as text (numbers with a point, ISO 8601 dates).
 *
 * A field in rows is named by its repeat, "/" and its id: any row may have it so.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Condition".
 */
export interface Condition {
  column: string;
  how:
    | "is"
    | "contains"
    | "begins"
    | "any_of"
    | "all_of"
    | "none_of"
    | "at_least"
    | "at_most"
    | "between"
    | "last_days"
    | "this"
    | "blank"
    | "answered";
  /**
   * @maxItems 200
   */
  values: string[];
}
/**
 * The condition as a formula.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ConditionReply".
 */
export interface ConditionReply {
  formula: string;
}
/**
 * A condition as rows.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ConditionRequest".
 */
export interface ConditionRequest {
  rows: ConditionRows;
}
/**
 * Rows of which all or any must hold.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ConditionRows".
 */
export interface ConditionRows {
  join: "all" | "any";
  rows: (ConditionRow | ConditionRows)[];
}
/**
 * One row; `operands` are formulas: 12, "school" in its quotation marks, TODAY().
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ConditionRow".
 */
export interface ConditionRow {
  name: string;
  operands: string[];
  operator: RowOperator;
}
/**
 * The link that came by mail.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ConfirmAddressRequest".
 */
export interface ConfirmAddressRequest {
  token: string;
}
/**
 * What follows when the form was handed in and the condition holds: a message, or a redirect to an address.
 *
 * In a frame on a website the whole page goes there, with `redirect_within` only the frame.
 * The message stands in the form's place, or with `own_page` on a page that can be opened again. Below it visitors may
 * fill in once more (`again`), print it and keep it as PDF (`printing`), or hand the form's address on (`sharing`).
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Confirmation".
 */
export interface Confirmation {
  again: boolean;
  id: string;
  name: string;
  own_page: boolean;
  paragraphs: Paragraph[];
  printing: boolean;
  redirect: string;
  redirect_within: boolean;
  sharing: boolean;
  title: string;
  when: string;
}
/**
 * A piece of a confirmation, shown when its condition holds: a text, a picture, or a chart.
 *
 * `chart` is the id of a score or profile; `picture` a data URL or a path on this server, with words for who can't
 * see it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Paragraph".
 */
export interface Paragraph {
  alternative: string;
  chart: string;
  chart_look: ChartLook;
  picture: string;
  shown: string;
  text: string;
}
/**
 * What a visitor reads after handing in, or the address to go on to; and what they can do there (Confirmation).
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ConfirmationFace".
 */
export interface ConfirmationFace {
  again: boolean;
  own_page: boolean;
  paragraphs: ParagraphFace[];
  printing: boolean;
  redirect: string;
  redirect_within: boolean;
  sharing: boolean;
  title: string;
}
/**
 * A piece of a confirmation: sanitised HTML, the bars of a chart, or a picture with words for who can't see it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ParagraphFace".
 */
export interface ParagraphFace {
  alternative: string;
  bars: BarFace[];
  html: string;
  picture: string;
}
/**
 * Whether the address was changed now, or where it must be confirmed yet.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ConfirmedAddressReply".
 */
export interface ConfirmedAddressReply {
  changed: boolean;
  email: string;
  waits_for: string;
}
/**
 * What the browser may know of a consent: the statement to agree to.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ConsentFace".
 */
export interface ConsentFace {
  help: string;
  id: string;
  label: string;
  statement: string;
  type: "consent";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A box to tick; where it is required, it must be ticked.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ConsentField".
 */
export interface ConsentField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  part: string;
  personal: boolean;
  required: string;
  shown: string;
  statement: string;
  type: "consent";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A column that is published.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ContentColumnReply".
 */
export interface ContentColumnReply {
  key: string;
  label: string;
}
/**
 * A published record: by key of its columns what programs read (`values`), and people (`shown`); no blanks.
 *
 * `pictures` are the addresses of small pictures in columns of files.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ContentRecordReply".
 */
export interface ContentRecordReply {
  author: string;
  changed: string;
  name: string;
  number: number;
  pictures: {
    [k: string]: string[];
  };
  published: string;
  shown: {
    [k: string]: string;
  };
  values: {
    [k: string]: string;
  };
}
/**
 * Published records, the newest first; `next` is the address of those after them.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ContentReply".
 */
export interface ContentReply {
  columns: ContentColumnReply[];
  next: string | null;
  records: ContentRecordReply[];
  title: string;
}
/**
 * What a correction changes, or what keeps it from being saved; `paid` is what that means for the payment.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CorrectedReply".
 */
export interface CorrectedReply {
  changes: ChangeReply[];
  paid: string;
  wrong: WrongReply[];
}
/**
 * What is wrong with an answer, and under which label.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WrongReply".
 */
export interface WrongReply {
  label: string;
  message: string;
}
/**
 * A response to be corrected: its answers as they were entered, and the version that a correction is made of.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CorrectionReply".
 */
export interface CorrectionReply {
  answers: {
    [k: string]: unknown;
  };
  version: string;
}
/**
 * Answers to keep in the place of those of a `version`; `because` is a remark for the team.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CorrectionRequest".
 */
export interface CorrectionRequest {
  answers: {
    [k: string]: unknown;
  };
  because: string;
  version: string;
}
/**
 * A condition and how much it adds where it holds.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Counted".
 */
export interface Counted {
  by: string;
  when: string;
}
/**
 * How many of the conditions hold, counted from `start`.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CounterFigure".
 */
export interface CounterFigure {
  counts: Counted[];
  decimals: number;
  format: "number" | "money" | "percent" | "text" | "date";
  id: string;
  kept_decimals: number | null;
  key: string;
  kind: "counter";
  name: string;
  shown_to_visitors: boolean;
  start: string;
}
/**
 * What the browser may know of a date.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DateFace".
 */
export interface DateFace {
  help: string;
  id: string;
  label: string;
  type: "date";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A date; `earliest` and `latest` are formulas that give a date, such as TODAY() + 2, and are included.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DateField".
 */
export interface DateField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  earliest: string;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  latest: string;
  locked: string;
  part: string;
  personal: boolean;
  required: string;
  shown: string;
  type: "date";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a date and time.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DateTimeFace".
 */
export interface DateTimeFace {
  help: string;
  id: string;
  label: string;
  type: "date_time";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A moment in the form's time zone; `earliest` and `latest` are formulas such as NOW(), and are included.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DateTimeField".
 */
export interface DateTimeField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  earliest: string;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  latest: string;
  locked: string;
  part: string;
  personal: boolean;
  required: string;
  shown: string;
  type: "date_time";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Days on which no series has slots, such as holidays; `name` is for the team.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DaysLeftOut".
 */
export interface DaysLeftOut {
  first: string;
  last: string;
  name: string;
}
/**
 * What somebody says to the step of an approval that they saw.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DecideRequest".
 */
export interface DecideRequest {
  remark: string;
  step: number;
  verdict: "approve" | "deny" | "ask back" | "remark";
}
/**
 * What somebody has decided: approved, denied, step approved, or asked back.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DecidedReply".
 */
export interface DecidedReply {
  at: string;
  form_id: string;
  form_name: string;
  kind: string;
  number: number;
  remark: string;
}
/**
 * Somebody who may decide now; whether only as a stand-in.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DeciderReply".
 */
export interface DeciderReply {
  name: string;
  stands_in: boolean;
}
/**
 * One approval: how it stands, at which step of how many, the response in words, who decides, what was said.
 *
 * `document` is the response's, by pages; `may_decide` is whether who asks may decide now.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DecisionReply".
 */
export interface DecisionReply {
  asked_at: string;
  deciders: DeciderReply[];
  document: {
    [k: string]: unknown;
  };
  due_at: string | null;
  every: boolean;
  form_id: string;
  form_name: string;
  id: string;
  may_decide: boolean;
  name: string;
  number: number;
  said: SaidReply[];
  state: string;
  step: number;
  step_name: string;
  steps: number;
  subject: string;
}
/**
 * What was said about a response, by whom.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SaidReply".
 */
export interface SaidReply {
  at: string;
  kind: string;
  person: string;
  remark: string;
  step: string;
}
/**
 * What waits for who asks, the most urgent first, and what they have decided, the latest first.
 *
 * `parts` are the responses that they fill in a part of.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DecisionsReply".
 */
export interface DecisionsReply {
  decided: DecidedReply[];
  parts: WaitingPartReply[];
  waiting: WaitingReply[];
}
/**
 * A response that stands with a part that who asks fills in: since when, and what was said with it, by whom.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WaitingPartReply".
 */
export interface WaitingPartReply {
  by_name: string;
  form_id: string;
  form_name: string;
  name: string;
  number: number;
  remark: string;
  since: string;
}
/**
 * What waits for a decision: of which form and response, what about, since when and until when.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WaitingReply".
 */
export interface WaitingReply {
  asked_at: string;
  due_at: string | null;
  form_id: string;
  form_name: string;
  id: string;
  name: string;
  number: number;
  step_name: string;
  subject: string;
}
/**
 * A try of a webhook: the request's address and headers, the reply's status, headers and body, or none.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DeliveryReply".
 */
export interface DeliveryReply {
  at: string;
  reply: {
    [k: string]: unknown;
  } | null;
  request: {
    [k: string]: unknown;
  };
  try_: number;
}
/**
 * The team's forms, latest change first, and the filters that one keeps.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DeskReply".
 */
export interface DeskReply {
  forms: FormRowReply[];
  views: DeskViewReply[];
}
/**
 * A form on the desk.
 *
 * `changed` says that the draft differs from the live edition; `days` are the responses of each of the last 14 days,
 * today last; `failed` counts the follow-ups of late that did not work, `deciding` the responses that wait for a
 * decision; `closes` is when it closes, if it does. So many visitors have `seen` it in the last 30 days, and so many
 * of them have `sent` it. `held` are suspected responses, `mine` those that whoever asks has in hand.
 * `tables_changed` says what visitors' edition names of tables that is not there any more. `owner` is whose it is;
 * `sites` are websites that may frame it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FormRowReply".
 */
export interface FormRowReply {
  changed: boolean;
  changed_at: string;
  changed_by: string | null;
  closes: string | null;
  days: number[];
  deciding: number;
  failed: number;
  held: number;
  id: string;
  labels: string[];
  live_edition: number | null;
  mine: number;
  name: string;
  owner: string | null;
  owner_id: string | null;
  responses: number;
  revision: number;
  seen: number;
  sent: number;
  sites: string[];
  slug: string;
  tables_changed: string | null;
  unreadable: string | null;
}
/**
 * A filter that a person keeps.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DeskViewReply".
 */
export interface DeskViewReply {
  name: string;
  view: DeskView;
}
/**
 * Which forms are shown, and in which order: words that are looked for, a state, an owner, labels (all of them).
 *
 * `owner` is a person's id, `sort` a column's name with "-" before it downwards; "" stands for what is usual.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DeskView".
 */
export interface DeskView {
  /**
   * @maxItems 25
   */
  labels: string[];
  owner: string;
  sort: string;
  state: "" | "live" | "draft" | "changed";
  words: string;
}
/**
 * What a trial expected of something and what came instead, in words; `part` is its id, or None for the form.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Difference".
 */
export interface Difference {
  came: string;
  expected: string;
  name: string;
  part: string | null;
}
/**
 * One thing that would come out otherwise: of which part, before and now, and what was changed that leads there.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DifferenceReply".
 */
export interface DifferenceReply {
  before: string;
  kind: "refused" | "lost" | "figure" | "total" | "path" | "confirmation";
  name: string;
  now: string;
  part: string | null;
  why: string;
}
/**
 * How often a mail tells of what came in and what waits.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Digest".
 */
export interface Digest {
  every: "none" | "daily" | "weekly";
}
/**
 * What is taken off where its condition holds: so many `percent` of the lines, or an `amount` that a formula gives.
 *
 * With a `code` only where visitors type it into the order's code field; capitals and spaces around it don't matter.
 * A code counts from `first_day` to `last_day`, both included, and so many times (`uses`) in all.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Discount".
 */
export interface Discount {
  amount: string;
  code: string;
  first_day: string | null;
  id: string;
  last_day: string | null;
  name: string;
  percent: string | null;
  uses: number | null;
  when: string;
}
/**
 * A line.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DividerBlock".
 */
export interface DividerBlock {
  id: string;
  key: string;
  part: string;
  shown: string;
  type: "divider";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a divider.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DividerFace".
 */
export interface DividerFace {
  id: string;
  type: "divider";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What became of something that was asked for, in words.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DoneReply".
 */
export interface DoneReply {
  told: string;
}
/**
 * What there is to say about something that was done.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DoneRequest".
 */
export interface DoneRequest {
  remark: string;
}
/**
 * A draft that was rewritten; it is not saved yet.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DraftReply".
 */
export interface DraftReply {
  draft: Form;
}
/**
 * A form. `name` is for the team, `title` for visitors; `format` is the version of this document's shape.
 *
 * It is written in the language of `locale` and can be filled in in further `languages`, chosen by the visitor, the
 * link, or `language_by_browser`. `links` are the values that links may bring; with `sealed_only` the form opens by a
 * sealed link alone. `paper` is what a response is printed on. One question at a time ("single"), a choice that one
 * press answers `goes_on` by itself, and all answers can be gone through before sending (`look_over`). In a box of one
 * line `enter` goes to the next field, or sends. Of each way of telling the `progress` there may be one; pages have
 * their own names in the browser's address, or their numbers. `tables` are those whose records it offers.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Form".
 */
export interface Form {
  brand: Brand;
  checks: Check[];
  confirmations: Confirmation[];
  currency: string;
  enter: "next" | "send";
  feedback: Feedback;
  figures: (FormulaFigure | BandsFigure | ScoreFigure | ProfileFigure | CounterFigure)[];
  /**
   * @maxItems 50
   */
  follow_ups: (
    | EmailFollowUp
    | WebhookFollowUp
    | RecordFollowUp
    | AccountFollowUp
    | ApprovalFollowUp
    | TaskFollowUp
    | CalendarFollowUp
  )[];
  format: 2;
  goes_on: boolean;
  language_by_browser: boolean;
  /**
   * @maxItems 25
   */
  languages: FurtherLanguage[];
  lead: string;
  /**
   * @maxItems 50
   */
  links: LinkValue[];
  locale: string;
  look_over: boolean;
  name: string;
  order: Order;
  page_addresses: "names" | "numbers";
  pages: Page[];
  paper: "A4" | "Letter";
  /**
   * @maxItems 20
   */
  parts:
    | []
    | [FormPart]
    | [FormPart, FormPart]
    | [FormPart, FormPart, FormPart]
    | [FormPart, FormPart, FormPart, FormPart]
    | [FormPart, FormPart, FormPart, FormPart, FormPart]
    | [FormPart, FormPart, FormPart, FormPart, FormPart, FormPart]
    | [FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart]
    | [FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart]
    | [FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart]
    | [FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart]
    | [FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart, FormPart]
    | [
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart
      ]
    | [
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart
      ]
    | [
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart
      ]
    | [
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart
      ]
    | [
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart
      ]
    | [
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart
      ]
    | [
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart
      ]
    | [
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart
      ]
    | [
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart,
        FormPart
      ];
  payment: Payment;
  presentation: "whole" | "paged" | "single" | "chat";
  progress: ("steps" | "bar" | "count" | "percent" | "left")[];
  sealed_only: boolean;
  /**
   * @maxItems 30
   */
  tables: KnownTable[];
  time_zone: string;
  title: string;
  /**
   * @maxItems 200
   */
  trials: Trial[];
  welcome: Welcome | null;
  wording: Wording;
}
/**
 * Whether visitors are told, question by question, what of a score was right.
 *
 * `when` it is due: never, when a page is left, or at once when an answer is checked. `shows_right` tells the right
 * answer where another was given; with `again` the answer may be changed afterwards.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Feedback".
 */
export interface Feedback {
  again: boolean;
  shows_right: boolean;
  when: "never" | "page" | "at_once";
}
/**
 * The result of a formula.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FormulaFigure".
 */
export interface FormulaFigure {
  decimals: number;
  format: "number" | "money" | "percent" | "text" | "date";
  formula: string;
  id: string;
  kept_decimals: number | null;
  key: string;
  kind: "formula";
  name: string;
  shown_to_visitors: boolean;
}
/**
 * The points of all answers that count.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ScoreFigure".
 */
export interface ScoreFigure {
  decimals: number;
  format: "number" | "money" | "percent" | "text" | "date";
  id: string;
  kept_decimals: number | null;
  key: string;
  kind: "score";
  name: string;
  questions: ScoredQuestion[];
  shown_to_visitors: boolean;
}
/**
 * What a field's answer is worth: `points` of each option by code, or `worth` for exactly the `right` answers.
 *
 * For a field without options, `right` lists answers that are right, as formulas write them. `when_right`,
 * `when_wrong` and `says` are the author's words for feedback (see Feedback).
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ScoredQuestion".
 */
export interface ScoredQuestion {
  field: string;
  points: {
    /**
     * This interface was referenced by `undefined`'s JSON-Schema definition
     * via the `patternProperty` "^\S(.*\S)?$".
     */
    [k: string]: string;
  };
  right: string[];
  says: OptionWords[];
  when_right: string;
  when_wrong: string;
  worth: string;
}
/**
 * What is said of an answer once feedback is due for it, by the option's code.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OptionWords".
 */
export interface OptionWords {
  code: string;
  text: string;
}
/**
 * The profile with the most points.
 *
 * A tie is won by the first or the last of them in this order, or by none. `decimals` are those of the shares, which
 * sum to 100 percent.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ProfileFigure".
 */
export interface ProfileFigure {
  decimals: number;
  format: "number" | "money" | "percent" | "text" | "date";
  id: string;
  kept_decimals: number | null;
  key: string;
  kind: "profile";
  name: string;
  profiles: Profile[];
  questions: ProfiledQuestion[];
  shown_to_visitors: boolean;
  tie: "first" | "last" | "none";
}
/**
 * A result that answers speak for.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Profile".
 */
export interface Profile {
  code: string;
  label: string;
}
/**
 * What each option of a field speaks for: option code → profile code → points.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ProfiledQuestion".
 */
export interface ProfiledQuestion {
  field: string;
  points: {
    /**
     * This interface was referenced by `undefined`'s JSON-Schema definition
     * via the `patternProperty` "^\S(.*\S)?$".
     */
    [k: string]: {
      /**
       * This interface was referenced by `undefined`'s JSON-Schema definition
       * via the `patternProperty` "^\S(.*\S)?$".
       */
      [k: string]: string;
    };
  };
}
/**
 * A mail. `reply_to` is an e-mail field by id; `all_answers` adds a table of what was answered.
 *
 * `pdf` attaches the response as PDF, `files` what visitors sent with it, as far as they fit into so many `megabytes`.
 * With `entry`, a field of a slot, a date or a moment by id, a calendar entry goes along, called `entry_title`, at
 * `entry_place`, and where a moment has no end so many `minutes` long; a mail about what is cancelled takes it out.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "EmailFollowUp".
 */
export interface EmailFollowUp {
  active: boolean;
  all_answers: boolean;
  day: Day;
  entry: string;
  entry_place: string;
  entry_title: string;
  files: boolean;
  from_name: string;
  id: string;
  kind: "email";
  megabytes: number;
  minutes: number;
  name: string;
  on:
    | "kept"
    | "handed in"
    | "complete"
    | "paid"
    | "payment failed"
    | "charge"
    | "charge failed"
    | "refunded"
    | "moved up"
    | "rebooked"
    | "cancelled"
    | "approved"
    | "denied"
    | "asked back"
    | "handed on"
    | "handed back"
    | "day";
  only_when: string;
  paragraphs: Paragraph[];
  pdf: boolean;
  /**
   * @maxItems 50
   */
  recipients: Recipient[];
  reply_to: string;
  subject: string;
}
/**
 * Who gets a mail where the condition holds.
 *
 * Whoever the e-mail `field` names, by id; somebody of the team, by id; or the written `address`.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Recipient".
 */
export interface Recipient {
  address: string;
  field: string;
  person: string;
  role: "to" | "cc" | "bcc";
  when: string;
}
/**
 * The response as JSON, sent to an address of another system.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WebhookFollowUp".
 */
export interface WebhookFollowUp {
  active: boolean;
  address: string;
  day: Day;
  id: string;
  kind: "webhook";
  name: string;
  on:
    | "kept"
    | "handed in"
    | "complete"
    | "paid"
    | "payment failed"
    | "charge"
    | "charge failed"
    | "refunded"
    | "moved up"
    | "rebooked"
    | "cancelled"
    | "approved"
    | "denied"
    | "asked back"
    | "handed on"
    | "handed back"
    | "day";
  only_when: string;
}
/**
 * What a response says, kept as records of the team's tables: all `steps` in their order, or none.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordFollowUp".
 */
export interface RecordFollowUp {
  active: boolean;
  day: Day;
  id: string;
  kind: "record";
  name: string;
  on:
    | "kept"
    | "handed in"
    | "complete"
    | "paid"
    | "payment failed"
    | "charge"
    | "charge failed"
    | "refunded"
    | "moved up"
    | "rebooked"
    | "cancelled"
    | "approved"
    | "denied"
    | "asked back"
    | "handed on"
    | "handed back"
    | "day";
  only_when: string;
  /**
   * @maxItems 30
   */
  steps: RecordStep[];
}
/**
 * Records of a table that the form knows: one, or with `rows` one for each row of that kind, by its id.
 *
 * It is made, or found by the columns `found_by`, by their ids, and changed; with "either" made where none is found.
 * Where it belongs to a record of a step above, `under`, its column `linked_by` names that one.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordStep".
 */
export interface RecordStep {
  /**
   * @maxItems 100
   */
  cells: RecordCell[];
  /**
   * @maxItems 30
   */
  found_by: string[];
  id: string;
  linked_by: string;
  rows: string;
  table: string;
  under: string;
  way: "make" | "either" | "change";
}
/**
 * What is kept in a column, by its id: a formula over all that the form knows.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordCell".
 */
export interface RecordCell {
  column: string;
  value: string;
}
/**
 * Something to do for whoever is of the team, or for all of a group; within so many `days`.
 *
 * `who` names them as it does who decides; `words` say what to do.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TaskFollowUp".
 */
export interface TaskFollowUp {
  active: boolean;
  day: Day;
  days: number | null;
  id: string;
  kind: "task";
  name: string;
  on:
    | "kept"
    | "handed in"
    | "complete"
    | "paid"
    | "payment failed"
    | "charge"
    | "charge failed"
    | "refunded"
    | "moved up"
    | "rebooked"
    | "cancelled"
    | "approved"
    | "denied"
    | "asked back"
    | "handed on"
    | "handed back"
    | "day";
  only_when: string;
  who: Decider;
  words: string;
}
/**
 * A language in which the form can be filled in too, with its texts by where they stand.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FurtherLanguage".
 */
export interface FurtherLanguage {
  locale: string;
  texts: {
    [k: string]: Translation;
  };
}
/**
 * What a text reads in another language, and the text `of` which it is a translation: that may change.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Translation".
 */
export interface Translation {
  of: string;
  text: string;
}
/**
 * A field, by id, whose answer a link may bring, and what the link calls it.
 *
 * Visitors may change what came (`open`), only read it (`locked`), or don't see it (`hidden`). One that is `sealed` is
 * taken from a sealed link alone.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LinkValue".
 */
export interface LinkValue {
  field: string;
  name: string;
  sealed: boolean;
  visitor: "open" | "locked" | "hidden";
}
/**
 * What a form that sells adds to what was ordered, and takes off.
 *
 * `shipping` is a formula; where nothing is ordered there is none. `code_field` is the field, by id, into which codes
 * of discounts are typed. With `refuse_empty` nobody hands in an order of nothing.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Order".
 */
export interface Order {
  code_field: string;
  /**
   * @maxItems 100
   */
  discounts: Discount[];
  refuse_empty: boolean;
  shipping: string;
  /**
   * @maxItems 100
   */
  taxes: Tax[];
}
/**
 * So many percent of what is paid: `included` in the prices, or added to them.
 *
 * Of `products` (blocks, by id) less their share of what is taken off; with none, of all that no other tax names, and
 * of shipping. Only where `when` holds.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Tax".
 */
export interface Tax {
  id: string;
  included: boolean;
  name: string;
  percent: string;
  /**
   * @maxItems 500
   */
  products: string[];
  when: string;
}
/**
 * A page. Of its `next` rules the first that holds counts; without one the following page comes next.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Page".
 */
export interface Page {
  address: string;
  back_label: string;
  blocks: (
    | ShortTextField
    | LongTextField
    | NumberField
    | MoneyField
    | CalculatedField
    | ProductField
    | QuantityField
    | OrderSummaryBlock
    | DateField
    | TimeField
    | DateTimeField
    | SlotField
    | YesNoField
    | SingleChoiceField
    | DropdownField
    | SeveralChoicesField
    | RecordChoiceField
    | RatingField
    | ScaleField
    | SliderField
    | GridField
    | NameField
    | EmailField
    | PhoneField
    | WebAddressField
    | AddressField
    | ConsentField
    | SignatureField
    | FileUploadField
    | HeadingBlock
    | TextBlock
    | PictureBlock
    | DividerBlock
    | AllAnswersBlock
    | GroupBlock
    | RepeatBlock
    | HiddenField
  )[];
  id: string;
  locked: string;
  next: NextRule[];
  next_label: string;
  part: string;
  required: string;
  shown: string;
  title: string;
}
/**
 * One line of text; `max_length` in characters.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ShortTextField".
 */
export interface ShortTextField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  max_length: number | null;
  min_length: number | null;
  part: string;
  pattern: string;
  pattern_message: string;
  personal: boolean;
  placeholder: string;
  required: string;
  shown: string;
  type: "short_text";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Text of several lines; the box is `lines` high and grows.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LongTextField".
 */
export interface LongTextField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  lines: number;
  locked: string;
  max_length: number | null;
  min_length: number | null;
  part: string;
  pattern: string;
  pattern_message: string;
  personal: boolean;
  placeholder: string;
  required: string;
  shown: string;
  type: "long_text";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A number from `minimum` to `maximum`, both included, with at most so many `decimals`, in steps of `step`.
 *
 * With a `price` it orders so many pieces at that price each.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NumberField".
 */
export interface NumberField {
  checks: Check[];
  decimals: number;
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  maximum: string | null;
  minimum: string | null;
  part: string;
  personal: boolean;
  placeholder: string;
  price: string | null;
  required: string;
  shown: string;
  step: string | null;
  type: "number";
  unit: string;
  width: "full" | "half" | "third" | "quarter";
}
/**
 * An amount from `minimum` to `maximum`, both included, exact to the currency's minor unit (ISO 4217).
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MoneyField".
 */
export interface MoneyField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  maximum: string | null;
  minimum: string | null;
  part: string;
  personal: boolean;
  placeholder: string;
  required: string;
  shown: string;
  type: "money";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Something to order at its `price`, at what `priced_by` gives, a formula, or at the prices of its options.
 *
 * Its quantity is asked `here` (of each option), from `least` to `most` in all, or `apart`, by a quantity that names
 * it. `stock` is how many there are to sell in all, of an option where it has one; what is left is shown by
 * `left_shown`. `sold_out` is what visitors read when nothing is left. `weight` is that of one piece, for shipping.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ProductField".
 */
export interface ProductField {
  alternative: string;
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  least: number | null;
  left_shown: boolean;
  locked: string;
  most: number | null;
  /**
   * @maxItems 100
   */
  options: ProductOption[];
  part: string;
  personal: boolean;
  picture: string;
  price: string | null;
  priced_by: string;
  quantity: "here" | "apart";
  required: string;
  shown: string;
  sold_out: string;
  stock: number | null;
  type: "product";
  weight: string | null;
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A way in which a product comes: its price, and how many there are of it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ProductOption".
 */
export interface ProductOption {
  code: string;
  id: string;
  label: string;
  price: string;
  stock: number | null;
}
/**
 * How many pieces of `product`, which it names by id, from `least` to `most`.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "QuantityField".
 */
export interface QuantityField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  least: number | null;
  locked: string;
  most: number | null;
  part: string;
  personal: boolean;
  placeholder: string;
  product: string;
  required: string;
  shown: string;
  type: "quantity";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * The lines of the order, discounts, shipping, taxes and the total; nothing where nothing is ordered.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OrderSummaryBlock".
 */
export interface OrderSummaryBlock {
  id: string;
  key: string;
  label: string;
  part: string;
  shown: string;
  type: "order_summary";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A time of day; `earliest` and `latest` are formulas such as TIME(18, 0, 0), and are included.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TimeField".
 */
export interface TimeField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  earliest: string;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  latest: string;
  locked: string;
  part: string;
  personal: boolean;
  required: string;
  shown: string;
  type: "time";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * One of the slots of its `series` and `singles`, where `left_out` has no days.
 *
 * Where `by` is another field of one choice, by its id, only the slots at the chosen option are offered. A response
 * takes one place, or as many as `taking` gives; with `waiting` it may wait for one of a slot that is full. Slots are
 * offered that begin not within `notice` hours, and at most `ahead` days from now. What `each` is answered with, by
 * its id, may have `most_each` places in all. Visitors may cancel and rebook until `change_until` hours before, where
 * that is set.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SlotField".
 */
export interface SlotField {
  ahead: number | null;
  by: string;
  change_until: number | null;
  checks: Check[];
  default: string;
  default_follows: boolean;
  each: string;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  /**
   * @maxItems 1000
   */
  left_out: DaysLeftOut[];
  left_shown: boolean;
  locked: string;
  most_each: number | null;
  notice: number;
  part: string;
  personal: boolean;
  required: string;
  /**
   * @maxItems 100
   */
  series: SlotSeries[];
  shown: string;
  /**
   * @maxItems 10000
   */
  singles: SingleSlot[];
  taking: string;
  type: "slot";
  waiting: boolean;
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Slots by a pattern: on these weekdays (0 is Sunday) from the `first` day to the `last`, between two times.
 *
 * Each is `minutes` long and begins `every` so many after the one before, or as that ends. What ends before it begins
 * ends on the next day. `at` are the places that each is offered at, each with `places` of its own.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SlotSeries".
 */
export interface SlotSeries {
  /**
   * @maxItems 200
   */
  at: string[];
  begins: string;
  /**
   * @maxItems 30
   */
  breaks: SlotBreak[];
  ends: string;
  every: number | null;
  first: string;
  id: string;
  last: string;
  minutes: number;
  places: number;
  weekdays: (0 | 1 | 2 | 3 | 4 | 5 | 6)[];
}
/**
 * A time of day within a series in which nothing is offered.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SlotBreak".
 */
export interface SlotBreak {
  begins: string;
  ends: string;
}
/**
 * A slot that was set by hand; it stands in the place of one that a series has, and without places takes it out.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SingleSlot".
 */
export interface SingleSlot {
  at: string;
  minutes: number;
  places: number;
  starts: string;
}
/**
 * A question that is answered by yes or no; in formulas TRUE or FALSE.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "YesNoField".
 */
export interface YesNoField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  no: string;
  part: string;
  personal: boolean;
  required: string;
  shown: string;
  type: "yes_no";
  width: "full" | "half" | "third" | "quarter";
  yes: string;
}
/**
 * One of the options, all of them in sight.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SingleChoiceField".
 */
export interface SingleChoiceField {
  arrangement: "row" | "column";
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  offered: string;
  /**
   * @maxItems 5000
   */
  options: Option[];
  other: boolean;
  other_label: string;
  part: string;
  personal: boolean;
  prices_shown: boolean;
  required: string;
  shown: string;
  shuffled: boolean;
  taken_from: string;
  type: "single_choice";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * An option: its code, its picture, the number that it counts as, and its price.
 *
 * While `shown` does not hold it is not offered, and a choice of it is dropped; while `locked` holds it is offered but
 * can't be chosen.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Option".
 */
export interface Option {
  belongs_to: string;
  code: string;
  counts_as: string;
  id: string;
  label: string;
  locked: string;
  picture: string;
  price: string | null;
  shown: string;
}
/**
 * One of the options, in a list that opens.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DropdownField".
 */
export interface DropdownField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  offered: string;
  /**
   * @maxItems 5000
   */
  options: Option[];
  other: boolean;
  other_label: string;
  part: string;
  personal: boolean;
  placeholder: string;
  prices_shown: boolean;
  required: string;
  shown: string;
  shuffled: boolean;
  taken_from: string;
  type: "dropdown";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Any of the options, from `minimum` to `maximum` of them.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SeveralChoicesField".
 */
export interface SeveralChoicesField {
  arrangement: "row" | "column";
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  maximum: number | null;
  minimum: number | null;
  offered: string;
  /**
   * @maxItems 5000
   */
  options: Option[];
  other: boolean;
  other_label: string;
  part: string;
  personal: boolean;
  prices_shown: boolean;
  required: string;
  shown: string;
  shuffled: boolean;
  taken_from: string;
  type: "several_choices";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * One record of a table that the form knows, or with `several` some, from `minimum` to `maximum`.
 *
 * `fitting` is worked out for each record, whose columns are `record.price` and the like: only those for which it
 * holds are offered, and taken. `shown_as` is what is shown of a record, with its columns in braces; "" shows its
 * name. They stand in the order of the column `ordered_by`, by its id, `descending` or not; "" is by name.
 *
 * Where `places` is a column of numbers, by its id, there are so many of a record for all forms together: a response
 * takes one of each that it chooses, or what `taking` gives, and what is gone is not offered. `left_shown` tells
 * visitors how many are left. `picture` is the column of files, by its id, whose first picture is shown of a record.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordChoiceField".
 */
export interface RecordChoiceField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  descending: boolean;
  fitting: string;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  left_shown: boolean;
  locked: string;
  look: "list" | "dropdown" | "search";
  maximum: number | null;
  minimum: number | null;
  ordered_by: string;
  part: string;
  personal: boolean;
  picture: string;
  placeholder: string;
  places: string;
  required: string;
  several: boolean;
  shown: string;
  shown_as: string;
  table: string;
  taking: string;
  type: "record_choice";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A number from 1 to `count`.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RatingField".
 */
export interface RatingField {
  checks: Check[];
  count: number;
  default: string;
  default_follows: boolean;
  help: string;
  icon: "star" | "heart" | "moon" | "dot";
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  part: string;
  personal: boolean;
  required: string;
  shown: string;
  type: "rating";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A whole number from `least` to `most`.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ScaleField".
 */
export interface ScaleField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  least: number;
  least_label: string;
  locked: string;
  most: number;
  most_label: string;
  part: string;
  personal: boolean;
  required: string;
  shown: string;
  type: "scale";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A number from `least` to `most` in steps of `step`; blank until it is moved.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SliderField".
 */
export interface SliderField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  least: string;
  locked: string;
  most: string;
  part: string;
  personal: boolean;
  required: string;
  shown: string;
  step: string;
  type: "slider";
  unit: string;
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Questions below each other, options side by side; where it is required, every question is.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GridField".
 */
export interface GridField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  /**
   * @maxItems 50
   */
  options: Option[];
  part: string;
  personal: boolean;
  /**
   * @maxItems 200
   */
  questions: GridQuestion[];
  required: string;
  shown: string;
  type: "grid";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A question of a grid; formulas name its answer `grid.code`.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GridQuestion".
 */
export interface GridQuestion {
  code: string;
  id: string;
  label: string;
}
/**
 * A person's name, in one box or in two; both are needed where it is in two.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NameField".
 */
export interface NameField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  part: string;
  parts: "one" | "first_last";
  personal: boolean;
  placeholder: string;
  placeholder_last: string;
  required: string;
  shown: string;
  type: "name";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * One e-mail address (RFC 5321, internationalised by RFC 6531).
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "EmailField".
 */
export interface EmailField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  part: string;
  personal: boolean;
  placeholder: string;
  required: string;
  shown: string;
  type: "email";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A telephone number; one without + belongs to `country` (ISO 3166-1), or is kept as the visitor writes it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PhoneField".
 */
export interface PhoneField {
  checks: Check[];
  country: string;
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  part: string;
  personal: boolean;
  placeholder: string;
  required: string;
  shown: string;
  type: "phone";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * The address of a web page (RFC 3986, http or https); one without a scheme gets https.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WebAddressField".
 */
export interface WebAddressField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  part: string;
  personal: boolean;
  placeholder: string;
  required: string;
  shown: string;
  type: "web_address";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Strokes in a box of 600 by 200, or a typed name; in formulas the name, or "drawn".
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SignatureField".
 */
export interface SignatureField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  label: string;
  locked: string;
  part: string;
  personal: boolean;
  required: string;
  shown: string;
  type: "signature";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Up to `most` files of these kinds, each of at most so many `megabytes` (of 1,000,000 bytes).
 *
 * With `heic_as_jpeg` photos in HEIC are kept as JPEG, which every program opens.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FileUploadField".
 */
export interface FileUploadField {
  checks: Check[];
  default: string;
  default_follows: boolean;
  heic_as_jpeg: boolean;
  help: string;
  id: string;
  keep_when_hidden: boolean;
  key: string;
  kinds: ("picture" | "pdf" | "document" | "table" | "sound" | "film" | "archive")[];
  label: string;
  locked: string;
  megabytes: number;
  most: number;
  part: string;
  personal: boolean;
  picture_types: ("jpeg" | "png" | "gif" | "webp" | "heic" | "avif")[];
  required: string;
  shown: string;
  type: "file_upload";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A heading with an optional line below it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "HeadingBlock".
 */
export interface HeadingBlock {
  accent: boolean;
  align: "start" | "centre" | "end";
  id: string;
  italic: boolean;
  key: string;
  lead: string;
  part: string;
  shown: string;
  size: "small" | "normal" | "large";
  text: string;
  type: "heading";
  underlined: boolean;
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Rich text; `{name}` in it stands for a value.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TextBlock".
 */
export interface TextBlock {
  id: string;
  key: string;
  part: string;
  shown: string;
  text: string;
  type: "text";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A picture: a data URL or a path on this server, with words for who can't see it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PictureBlock".
 */
export interface PictureBlock {
  alternative: string;
  caption: string;
  id: string;
  key: string;
  part: string;
  shown: string;
  size: "small" | "medium" | "full";
  source: string;
  type: "picture";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Blocks with a common label, shown, required and locked together.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GroupBlock".
 */
export interface GroupBlock {
  blocks: (
    | ShortTextField
    | LongTextField
    | NumberField
    | MoneyField
    | CalculatedField
    | ProductField
    | QuantityField
    | OrderSummaryBlock
    | DateField
    | TimeField
    | DateTimeField
    | SlotField
    | YesNoField
    | SingleChoiceField
    | DropdownField
    | SeveralChoicesField
    | RecordChoiceField
    | RatingField
    | ScaleField
    | SliderField
    | GridField
    | NameField
    | EmailField
    | PhoneField
    | WebAddressField
    | AddressField
    | ConsentField
    | SignatureField
    | FileUploadField
    | HeadingBlock
    | TextBlock
    | PictureBlock
    | DividerBlock
    | AllAnswersBlock
    | GroupBlock
    | RepeatBlock
    | HiddenField
  )[];
  checks: Check[];
  columns: number;
  help: string;
  id: string;
  key: string;
  label: string;
  locked: string;
  part: string;
  required: string;
  shown: string;
  type: "group";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Rows; formulas name a column of all kinds `repeat.field`, of one kind `repeat.kind.field`.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RepeatBlock".
 */
export interface RepeatBlock {
  checks: Check[];
  help: string;
  id: string;
  key: string;
  kinds: ShapedRowKind[];
  label: string;
  locked: string;
  max_rows: number;
  min_rows: number;
  part: string;
  required: string;
  shown: string;
  type: "repeat";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A row kind with its blocks.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ShapedRowKind".
 */
export interface ShapedRowKind {
  add_label: string;
  blocks: (
    | ShortTextField
    | LongTextField
    | NumberField
    | MoneyField
    | CalculatedField
    | ProductField
    | QuantityField
    | OrderSummaryBlock
    | DateField
    | TimeField
    | DateTimeField
    | SlotField
    | YesNoField
    | SingleChoiceField
    | DropdownField
    | SeveralChoicesField
    | RecordChoiceField
    | RatingField
    | ScaleField
    | SliderField
    | GridField
    | NameField
    | EmailField
    | PhoneField
    | WebAddressField
    | AddressField
    | ConsentField
    | SignatureField
    | FileUploadField
    | HeadingBlock
    | TextBlock
    | PictureBlock
    | DividerBlock
    | AllAnswersBlock
    | GroupBlock
    | RepeatBlock
    | HiddenField
  )[];
  checks: Check[];
  id: string;
  key: string;
  label: string;
  locked: string;
  max_rows: number | null;
  min_rows: number;
  one_line: boolean;
  required: string;
  shown: string;
}
/**
 * The text that `formula` gives, such as link.campaign.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "HiddenField".
 */
export interface HiddenField {
  formula: string;
  help: string;
  id: string;
  key: string;
  label: string;
  part: string;
  shown: string;
  type: "hidden";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Where the form goes on when the condition holds: a later page by id, or "" for the end.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NextRule".
 */
export interface NextRule {
  to: string;
  when: string;
}
/**
 * A part of the form that only those in its `groups` change, while a response stands with them.
 *
 * Once complete, a response goes to each part in order for which `only_when` holds. Who fills in sees what is entered
 * there, or with `seen` off nothing of it. `name` is what the team calls it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FormPart".
 */
export interface FormPart {
  /**
   * @maxItems 20
   */
  groups:
    | []
    | [string]
    | [string, string]
    | [string, string, string]
    | [string, string, string, string]
    | [string, string, string, string, string]
    | [string, string, string, string, string, string]
    | [string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string, string, string, string, string, string, string]
    | [
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string
      ]
    | [
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string
      ]
    | [
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string
      ]
    | [
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string
      ]
    | [
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string
      ]
    | [
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string
      ];
  id: string;
  name: string;
  only_when: string;
  seen: boolean;
}
/**
 * A payment that is due once the form was handed in, where it is `on` and `when` holds.
 *
 * `amount` is a formula; without one it is the order's total. With `practice` no money moves: what is paid is a try,
 * and so is the response. Else `account` is the team's with a provider, by id. `cards` are the kinds that are taken,
 * by the provider's names, all where there are none. `payer_name`, `payer_email` and `delivery` (where to) are fields,
 * by id. The card is typed in a frame of the provider's in our page, or, without `in_frame`, on its own page. What is
 * not paid within so many `hours` expires. It is paid by the first of the `plans` that holds, and once where none
 * does.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Payment".
 */
export interface Payment {
  account: string;
  amount: string;
  /**
   * @maxItems 50
   */
  cards: string[];
  delivery: string;
  hours: number;
  in_frame: boolean;
  on: boolean;
  payer_email: string;
  payer_name: string;
  /**
   * @maxItems 30
   */
  plans: Plan[];
  practice: boolean;
  when: string;
}
/**
 * Payments that come back, each `every` so many days, weeks, months or years, where `when` holds.
 *
 * `times` is a formula for how many there are in all; without one they go on until they are stopped. Each is of the
 * payment's amount; with `shared` that amount is shared out among them, and the first has what is left over.
 * `fee` is a formula for what is added to what is paid at once (a joining fee; below 0 the first costs less).
 * `first_day` is a formula for the day of the first; without one, or where that day is over, it is paid at once.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Plan".
 */
export interface Plan {
  every: number;
  fee: string;
  first_day: string;
  shared: boolean;
  times: string;
  unit: "day" | "week" | "month" | "year";
  when: string;
}
/**
 * A table as it was when the form came to know it: its id, its name for the team, and its columns.
 *
 * Columns are blocks as a table's definition has them, without their rules. `named_by` is the column that names a
 * record. Numbers and days in it are written as `locale`, `currency` and `time_zone` say.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "KnownTable".
 */
export interface KnownTable {
  /**
   * @maxItems 100
   */
  columns: {
    [k: string]: unknown;
  }[];
  currency: string;
  id: string;
  locale: string;
  name: string;
  named_by: string;
  time_zone: string;
}
/**
 * Answers as a visitor would enter them, on a day, with values that came with the address.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Trial".
 */
export interface Trial {
  answers: {
    [k: string]: unknown;
  };
  day: string;
  expected: Expected;
  id: string;
  link: {
    [k: string]: string;
  };
  name: string;
  visitor: TrialVisitor;
}
/**
 * What must come out; what is left out is not looked at.
 *
 * `figures` are texts as people read them, by the id of a figure or calculated field, the order's total as
 * "whole-order"; `exact` the numbers of those that are compared to the last digit, which people may read rounded, as
 * plain text. `wrong` are the addresses of all blocks with an error, `path` the pages in order, `confirmation` an id,
 * or "" for the form's usual words; `follow_ups` say by id what each that is done does, in one line.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Expected".
 */
export interface Expected {
  confirmation: string | null;
  exact: {
    /**
     * This interface was referenced by `undefined`'s JSON-Schema definition
     * via the `patternProperty` "^([a-z0-9]{1,32}|whole-order|whole-payment)$".
     */
    [k: string]: string;
  };
  figures: {
    /**
     * This interface was referenced by `undefined`'s JSON-Schema definition
     * via the `patternProperty` "^([a-z0-9]{1,32}|whole-order|whole-payment)$".
     */
    [k: string]: string;
  };
  follow_ups: {
    /**
     * This interface was referenced by `undefined`'s JSON-Schema definition
     * via the `patternProperty` "^[a-z0-9]{1,32}$".
     */
    [k: string]: string;
  } | null;
  hidden: string[];
  path: string[] | null;
  shown: string[];
  wrong: string[] | null;
}
/**
 * Who fills in, as formulas know them: a guest without an e-mail, else with `groups` by code.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TrialVisitor".
 */
export interface TrialVisitor {
  email: string;
  /**
   * @maxItems 200
   */
  groups: string[];
  name: string;
}
/**
 * A page before the first: what the form is for.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Welcome".
 */
export interface Welcome {
  button: string;
  text: string;
  title: string;
}
/**
 * What the form itself says to visitors; `messages` are the author's words in place of the usual ones, by name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Wording".
 */
export interface Wording {
  back: string;
  confirmation_text: string;
  confirmation_title: string;
  messages: {
    [k: string]: string;
  };
  next: string;
  required: string;
  submit: string;
}
/**
 * What the browser may know of a dropdown; long ones are searched by typing.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DropdownFace".
 */
export interface DropdownFace {
  help: string;
  id: string;
  label: string;
  options: ChoiceFace[];
  other: boolean;
  other_label: string;
  placeholder: string;
  shuffled: boolean;
  type: "dropdown";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A follow-up that would be done: in one line, a mail's HTML and text, and all of it as data.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DueReply".
 */
export interface DueReply {
  content: {
    [k: string]: unknown;
  };
  follow_up: string;
  html: string;
  text: string;
  told: string;
}
/**
 * An edition of a form, with its note, and when and by whom it was last made live.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "EditionReply".
 */
export interface EditionReply {
  last_live_at: string | null;
  last_live_by: string | null;
  note: string;
  number: number;
  published_at: string;
  published_by: string | null;
  responses: number;
}
/**
 * The editions of a form, newest first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "EditionsReply".
 */
export interface EditionsReply {
  editions: EditionReply[];
}
/**
 * What the browser may know of an e-mail field.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "EmailFace".
 */
export interface EmailFace {
  help: string;
  id: string;
  label: string;
  placeholder: string;
  type: "email";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * A job that follows from no response: what it is, how often it was tried, and how it stands or ended.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ErrandReply".
 */
export interface ErrandReply {
  created_at: string;
  ended_at: string | null;
  id: number;
  kind: string;
  result: string;
  state: string;
  tries: number;
}
/**
 * What went wrong: a stable code, a sentence for people, and the places where known.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ErrorReply".
 */
export interface ErrorReply {
  code: string;
  message: string;
  problems: Problem[];
}
/**
 * One thing that is wrong with a document: `path` is where ("pages.0.blocks.2.minimum").
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Problem".
 */
export interface Problem {
  message: string;
  path: string;
}
/**
 * The form's state with these answers.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "EvaluateReply".
 */
export interface EvaluateReply {
  state: FormState;
  turn: number;
}
/**
 * What the visitor has entered, by block id, and what came with the address.
 *
 * `turn` is handed back, so that late replies are known. `changed` are the blocks whose answers are new since the last
 * reply: only what hangs on them comes back. Without it all does. `checked` are the questions of a quiz that the
 * visitor is done with: what was right of them is told as far as it is due.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "EvaluateRequest".
 */
export interface EvaluateRequest {
  answers: {
    [k: string]: unknown;
  };
  changed: string[] | null;
  /**
   * @maxItems 2000
   */
  checked: string[];
  entry: string;
  link: {
    [k: string]: string;
  };
  seal: string;
  turn: number;
  visit: string;
}
/**
 * Something that happened to a response; `who` is visitor, person, bank or clock, `person` a name of the team.
 *
 * `about` is what belongs to it, in words: a note, a tag, from which status to which.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "EventReply".
 */
export interface EventReply {
  about: string;
  at: string;
  kind: string;
  person: string | null;
  who: string;
}
/**
 * What somebody may do with one form in the place of what their role allows; "none" hides it from them.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ExceptionReply".
 */
export interface ExceptionReply {
  form_id: string;
  form_name: string;
  person_id: string;
  person_name: string;
  role: "none" | "viewer" | "reviewer" | "editor";
}
/**
 * Another role for somebody and one form; None takes the exception away.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ExceptionRequest".
 */
export interface ExceptionRequest {
  form: string;
  person: string;
  role: ("none" | "viewer" | "reviewer" | "editor") | null;
}
/**
 * The exceptions of the team's forms, by form and person.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ExceptionsReply".
 */
export interface ExceptionsReply {
  exceptions: ExceptionReply[];
}
/**
 * Answers to a draft, what came with the address, and the part to explain: "OWNER" or "REPEAT/ROW/BLOCK".
 *
 * A block, page or figure is named by id or key, what holds for the whole form as "form".
 * `visitor` is who fills in.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ExplainRequest".
 */
export interface ExplainRequest {
  answers: {
    [k: string]: unknown;
  };
  link: {
    [k: string]: string;
  };
  part: string;
  visitor: TrialVisitor;
}
/**
 * One fact in words, and what it hangs on.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ExplanationReply".
 */
export interface ExplanationReply {
  because: ExplanationReply[];
  fact: string;
  formula: string;
  name: string;
  owner: string;
  sentence: string;
  value: string;
}
/**
 * All facts of one part, in the order in which people ask.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ExplanationsReply".
 */
export interface ExplanationsReply {
  facts: ExplanationReply[];
}
/**
 * A file that is made of responses: `rows` so far, `size` in bytes once it is done, `result` why it failed.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ExportFileReply".
 */
export interface ExportFileReply {
  created_at: string;
  id: string;
  name: string;
  person: string | null;
  result: string;
  rows: number;
  size: number;
  state: "waiting" | "done" | "failed";
}
/**
 * The files of a form, newest first; each is kept for a day.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ExportFilesReply".
 */
export interface ExportFilesReply {
  files: ExportFileReply[];
}
/**
 * A second factor of one's own.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FactorReply".
 */
export interface FactorReply {
  id: string;
  kind: "codes" | "passkey";
  made_at: string;
  name: string;
}
/**
 * One's own second factors, and how many codes for recovery are left.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FactorsReply".
 */
export interface FactorsReply {
  codes_left: number;
  factors: FactorReply[];
}
/**
 * A live feed of a view; `address` is without its ending, .csv or .json.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FeedReply".
 */
export interface FeedReply {
  address: string;
  fetches: number;
  id: string;
  last_fetched_at: string | null;
  made_at: string;
  made_by: string | null;
  view: string;
  view_id: string;
}
/**
 * The live feeds of a form, newest first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FeedsReply".
 */
export interface FeedsReply {
  feeds: FeedReply[];
}
/**
 * A field, and for how many visitors something was so.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FieldCountReply".
 */
export interface FieldCountReply {
  count: number;
  id: string;
  label: string;
  number: string;
}
/**
 * What the browser may know of an upload: which kinds of files, how many, and how large each.
 *
 * Of pictures those of `picture_types` are let in.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FileUploadFace".
 */
export interface FileUploadFace {
  help: string;
  id: string;
  kinds: ("picture" | "pdf" | "document" | "table" | "sound" | "film" | "archive")[];
  label: string;
  megabytes: number;
  most: number;
  picture_types: ("jpeg" | "png" | "gif" | "webp" | "heic" | "avif")[];
  type: "file_upload";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * How a file writes: decimals with a comma or a point, the day or the month first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FileWriting".
 */
export interface FileWriting {
  comma: boolean;
  days: "day" | "month";
}
/**
 * A page as visitors see it; one question at a time, each of them.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FilledPageFace".
 */
export interface FilledPageFace {
  address: string;
  back_label: string;
  blocks: (
    | ShortTextFace
    | LongTextFace
    | NumberFace
    | MoneyFace
    | CalculatedFace
    | ProductFace
    | QuantityFace
    | OrderSummaryFace
    | DateFace
    | TimeFace
    | DateTimeFace
    | SlotFace
    | YesNoFace
    | SingleChoiceFace
    | DropdownFace
    | SeveralChoicesFace
    | RecordChoiceFace
    | RatingFace
    | ScaleFace
    | SliderFace
    | GridFace
    | NameFace
    | EmailFace
    | PhoneFace
    | WebAddressFace
    | AddressFace
    | ConsentFace
    | SignatureFace
    | FileUploadFace
    | HeadingFace
    | TextFace
    | PictureFace
    | DividerFace
    | AllAnswersFace
    | GroupFace
    | RepeatFace
    | HiddenFace
  )[];
  id: string;
  next_label: string;
  title: string;
}
/**
 * What the browser may know of a short text.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ShortTextFace".
 */
export interface ShortTextFace {
  help: string;
  id: string;
  label: string;
  max_length: number | null;
  placeholder: string;
  type: "short_text";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a long text.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LongTextFace".
 */
export interface LongTextFace {
  help: string;
  id: string;
  label: string;
  lines: number;
  max_length: number | null;
  placeholder: string;
  type: "long_text";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a number.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NumberFace".
 */
export interface NumberFace {
  decimals: number;
  help: string;
  id: string;
  label: string;
  placeholder: string;
  type: "number";
  unit: string;
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of an amount.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MoneyFace".
 */
export interface MoneyFace {
  help: string;
  id: string;
  label: string;
  placeholder: string;
  type: "money";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a product; prices and what is left come with the state.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ProductFace".
 */
export interface ProductFace {
  alternative: string;
  help: string;
  id: string;
  label: string;
  options: OptionFace[];
  picture: string;
  quantity: "here" | "apart";
  type: "product";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of an option: the label to show and the id to send.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OptionFace".
 */
export interface OptionFace {
  id: string;
  label: string;
}
/**
 * What the browser may know of a quantity.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "QuantityFace".
 */
export interface QuantityFace {
  help: string;
  id: string;
  label: string;
  placeholder: string;
  type: "quantity";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of an order summary; its lines come with the state.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OrderSummaryFace".
 */
export interface OrderSummaryFace {
  id: string;
  label: string;
  type: "order_summary";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a time.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TimeFace".
 */
export interface TimeFace {
  help: string;
  id: string;
  label: string;
  type: "time";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a slot block; which slots there are comes with the state.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SlotFace".
 */
export interface SlotFace {
  help: string;
  id: string;
  label: string;
  type: "slot";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a yes/no question: the words of its two answers.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "YesNoFace".
 */
export interface YesNoFace {
  help: string;
  id: string;
  label: string;
  no: string;
  type: "yes_no";
  width: "full" | "half" | "third" | "quarter";
  yes: string;
}
/**
 * What the browser may know of a single choice.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SingleChoiceFace".
 */
export interface SingleChoiceFace {
  arrangement: "row" | "column";
  help: string;
  id: string;
  label: string;
  options: ChoiceFace[];
  other: boolean;
  other_label: string;
  shuffled: boolean;
  type: "single_choice";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of several choices.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SeveralChoicesFace".
 */
export interface SeveralChoicesFace {
  arrangement: "row" | "column";
  help: string;
  id: string;
  label: string;
  options: ChoiceFace[];
  other: boolean;
  other_label: string;
  shuffled: boolean;
  type: "several_choices";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a record choice; which records there are comes with the state.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordChoiceFace".
 */
export interface RecordChoiceFace {
  help: string;
  id: string;
  label: string;
  look: "list" | "dropdown" | "search";
  placeholder: string;
  several: boolean;
  type: "record_choice";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a rating: the picture that is repeated, and how often.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RatingFace".
 */
export interface RatingFace {
  count: number;
  help: string;
  icon: "star" | "heart" | "moon" | "dot";
  id: string;
  label: string;
  type: "rating";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a scale: its numbers and the words at its ends.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ScaleFace".
 */
export interface ScaleFace {
  help: string;
  id: string;
  label: string;
  least: number;
  least_label: string;
  most: number;
  most_label: string;
  type: "scale";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a slider.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SliderFace".
 */
export interface SliderFace {
  help: string;
  id: string;
  label: string;
  least: string;
  most: string;
  step: string;
  type: "slider";
  unit: string;
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a grid.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GridFace".
 */
export interface GridFace {
  help: string;
  id: string;
  label: string;
  options: OptionFace[];
  questions: GridQuestionFace[];
  type: "grid";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a grid's question.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GridQuestionFace".
 */
export interface GridQuestionFace {
  id: string;
  label: string;
}
/**
 * What the browser may know of a name; the first box, or the only one, has the first `placeholder`.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NameFace".
 */
export interface NameFace {
  help: string;
  id: string;
  label: string;
  parts: "one" | "first_last";
  placeholder: string;
  placeholder_last: string;
  type: "name";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a phone field.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PhoneFace".
 */
export interface PhoneFace {
  help: string;
  id: string;
  label: string;
  placeholder: string;
  type: "phone";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a web address.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WebAddressFace".
 */
export interface WebAddressFace {
  help: string;
  id: string;
  label: string;
  placeholder: string;
  type: "web_address";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a signature.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SignatureFace".
 */
export interface SignatureFace {
  help: string;
  id: string;
  label: string;
  type: "signature";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a heading: all that it says, and how it is set.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "HeadingFace".
 */
export interface HeadingFace {
  accent: boolean;
  align: "start" | "centre" | "end";
  id: string;
  italic: boolean;
  lead: string;
  size: "small" | "normal" | "large";
  text: string;
  type: "heading";
  underlined: boolean;
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a text: all that it says, as sanitised HTML.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TextFace".
 */
export interface TextFace {
  id: string;
  text: string;
  type: "text";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a picture.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PictureFace".
 */
export interface PictureFace {
  alternative: string;
  caption: string;
  id: string;
  size: "small" | "medium" | "full";
  source: string;
  type: "picture";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a group: its blocks fill so many `columns`, one after another, where they fit.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GroupFace".
 */
export interface GroupFace {
  blocks: (
    | ShortTextFace
    | LongTextFace
    | NumberFace
    | MoneyFace
    | CalculatedFace
    | ProductFace
    | QuantityFace
    | OrderSummaryFace
    | DateFace
    | TimeFace
    | DateTimeFace
    | SlotFace
    | YesNoFace
    | SingleChoiceFace
    | DropdownFace
    | SeveralChoicesFace
    | RecordChoiceFace
    | RatingFace
    | ScaleFace
    | SliderFace
    | GridFace
    | NameFace
    | EmailFace
    | PhoneFace
    | WebAddressFace
    | AddressFace
    | ConsentFace
    | SignatureFace
    | FileUploadFace
    | HeadingFace
    | TextFace
    | PictureFace
    | DividerFace
    | AllAnswersFace
    | GroupFace
    | RepeatFace
    | HiddenFace
  )[];
  columns: number;
  help: string;
  id: string;
  label: string;
  type: "group";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a repeat.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RepeatFace".
 */
export interface RepeatFace {
  help: string;
  id: string;
  kinds: ShapedRowKindFace[];
  label: string;
  max_rows: number;
  type: "repeat";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * What the browser may know of a row kind and its blocks.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ShapedRowKindFace".
 */
export interface ShapedRowKindFace {
  add_label: string;
  blocks: (
    | ShortTextFace
    | LongTextFace
    | NumberFace
    | MoneyFace
    | CalculatedFace
    | ProductFace
    | QuantityFace
    | OrderSummaryFace
    | DateFace
    | TimeFace
    | DateTimeFace
    | SlotFace
    | YesNoFace
    | SingleChoiceFace
    | DropdownFace
    | SeveralChoicesFace
    | RecordChoiceFace
    | RatingFace
    | ScaleFace
    | SliderFace
    | GridFace
    | NameFace
    | EmailFace
    | PhoneFace
    | WebAddressFace
    | AddressFace
    | ConsentFace
    | SignatureFace
    | FileUploadFace
    | HeadingFace
    | TextFace
    | PictureFace
    | DividerFace
    | AllAnswersFace
    | GroupFace
    | RepeatFace
    | HiddenFace
  )[];
  id: string;
  label: string;
  max_rows: number | null;
  one_line: boolean;
}
/**
 * Nothing of a hidden field reaches the browser; this is its shape for the workbench.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "HiddenFace".
 */
export interface HiddenFace {
  help: string;
  id: string;
  label: string;
  type: "hidden";
  width: "full" | "half" | "third" | "quarter";
}
/**
 * Which responses: all conditions must hold, or any; and each of the words must be found in what was answered.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Filter".
 */
export interface Filter {
  /**
   * @maxItems 40
   */
  conditions: Condition[];
  match: "all" | "any";
  words: string;
}
/**
 * What a visitor looks for at the question at `address` ("id", or "repeat/row/id"), with what was answered.
 *
 * Records by `words`, or slots that begin on the day `since` or after it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FindOffersRequest".
 */
export interface FindOffersRequest {
  address: string;
  answers: {
    [k: string]: unknown;
  };
  entry: string;
  link: {
    [k: string]: string;
  };
  seal: string;
  since: string | null;
  visit: string;
  words: string;
}
/**
 * What would follow, in order.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FollowUpsReply".
 */
export interface FollowUpsReply {
  due: DueReply[];
}
/**
 * Answers to a draft, and what came with the address.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FollowUpsRequest".
 */
export interface FollowUpsRequest {
  answers: {
    [k: string]: unknown;
  };
  link: {
    [k: string]: string;
  };
  visitor: TrialVisitor;
}
/**
 * Whose responses are anonymised or removed.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ForgetPersonRequest".
 */
export interface ForgetPersonRequest {
  does: "anonymise" | "remove";
  email: string;
}
/**
 * How many responses are being anonymised or removed; those `staying` are still filled in, held, or unpaid.
 *
 * `records` of tables are gone for good.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ForgottenReply".
 */
export interface ForgottenReply {
  records: number;
  responses: number;
  staying: number;
}
/**
 * A form as visitors see it, with its `languages` where there are several.
 *
 * `first_weekday` is the day with which weeks begin, 0 for Sunday. `asks` are the blocks after whose change the
 * browser asks for the new state.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FormFace".
 */
export interface FormFace {
  asks: string[];
  brand: Brand;
  currency: string;
  enter: string;
  first_weekday: 0 | 1 | 2 | 3 | 4 | 5 | 6;
  goes_on: boolean;
  languages: LanguageFace[];
  lead: string;
  locale: string;
  page_addresses: string;
  pages: FilledPageFace[];
  presentation: string;
  progress: ("steps" | "bar" | "count" | "percent" | "left")[];
  quiz: QuizFace | null;
  title: string;
  welcome: Welcome | null;
  wording: Wording;
}
/**
 * A language in which the form can be filled in: its code, and its own name for itself.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LanguageFace".
 */
export interface LanguageFace {
  locale: string;
  name: string;
}
/**
 * Of which questions visitors are told whether they were right, when, and whether they may answer again.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "QuizFace".
 */
export interface QuizFace {
  again: boolean;
  questions: string[];
  when: "page" | "at_once";
}
/**
 * A form that writes to a person.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FormHangingReply".
 */
export interface FormHangingReply {
  id: string;
  name: string;
}
/**
 * A form, by id and name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FormNamedReply".
 */
export interface FormNamedReply {
  id: string;
  name: string;
}
/**
 * The password that visitors type; "" takes it away.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FormPasswordRequest".
 */
export interface FormPasswordRequest {
  password: string;
}
/**
 * A form in the workbench; `changes` counts what differs from the live edition.
 *
 * `role` is that of who asks, for this form. `practice_website` is where a live picture of it on a website is shown,
 * "" for nowhere.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FormReply".
 */
export interface FormReply {
  address: string;
  analysis: AnalysisReply;
  changed_at: string;
  changed_by: string | null;
  changes: number;
  draft: Form;
  id: string;
  live_edition: number | null;
  newest_edition: number;
  practice_website: string;
  responses: number;
  revision: number;
  role: "owner" | "editor" | "reviewer" | "viewer";
  sites: string[];
  slug: string;
}
/**
 * The responses of one form that name an address, by number.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FoundInReply".
 */
export interface FoundInReply {
  form: string;
  name: string;
  numbers: number[];
}
/**
 * What is offered there: the records in which all words are shown, or the slots that are free.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FoundOffersReply".
 */
export interface FoundOffersReply {
  records: RecordsState | null;
  slots: SlotsState | null;
}
/**
 * Something in a form: its form, itself, and its number, title and key.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FoundPartReply".
 */
export interface FoundPartReply {
  form: string;
  form_name: string;
  key: string;
  number: string;
  part: string;
  title: string;
}
/**
 * What was found, form by form.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FoundPartsReply".
 */
export interface FoundPartsReply {
  parts: FoundPartReply[];
}
/**
 * What a file brings: translations by where they stand, how many of other words than are there, and the rest.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FoundTranslationsReply".
 */
export interface FoundTranslationsReply {
  changed: number;
  passed: PassedReply[];
  texts: {
    [k: string]: Translation;
  };
}
/**
 * A line of a file that was passed over, and why.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PassedReply".
 */
export interface PassedReply {
  at: string;
  reason: string;
}
/**
 * A form's visits: all together, by step, by what they are told apart by, and by day.
 *
 * `presentation` is the way of presenting whose steps these are; with `by_month` days long ago are only known by
 * their month, which stands at its first day. `unheeded` are the places of the conditions that
 * can't be asked of visits; `words_unheeded` says so of what is searched for.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FunnelReply".
 */
export interface FunnelReply {
  all: VisitSumsReply;
  by_month: boolean;
  days: VisitSumsReply[];
  groups: VisitSumsReply[];
  left_at: FieldCountReply[];
  presentation: string;
  presentations: VisitSumsReply[];
  seconds: number | null;
  steps: StepCountReply[];
  unheeded: number[];
  words_unheeded: boolean;
  wrong: FieldCountReply[];
}
/**
 * Visits that have something in common: how many came, answered something, and sent; `label` for people.
 *
 * `choosable` where a filter can leave only these.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "VisitSumsReply".
 */
export interface VisitSumsReply {
  choosable: boolean;
  label: string;
  seen: number;
  sent: number;
  started: number;
  value: string;
}
/**
 * A step of a funnel: how many reached it, how many left there, and the median of its seconds.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "StepCountReply".
 */
export interface StepCountReply {
  earlier: boolean;
  id: string;
  label: string;
  left: number;
  number: string;
  reached: number;
  seconds: number | null;
}
/**
 * To which part a response shall go, "" for who filled it in, and what is asked there.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GiveToRequest".
 */
export interface GiveToRequest {
  remark: string;
  to: string;
}
/**
 * Give visitors an earlier edition; `live` is the one that they get, as it was seen.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GoLiveRequest".
 */
export interface GoLiveRequest {
  live: number | null;
}
/**
 * The team to go to.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GoToTeamRequest".
 */
export interface GoToTeamRequest {
  team: string;
}
/**
 * The forms, by name, that name a group or let it fill in.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GroupHangingReply".
 */
export interface GroupHangingReply {
  forms: string[];
}
/**
 * The group was made; formulas know it by its code.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GroupMadeReply".
 */
export interface GroupMadeReply {
  code: string;
}
/**
 * A group: formulas know it by its `code`; `people` are those of the team in it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GroupReply".
 */
export interface GroupReply {
  code: string;
  name: string;
  people: string[];
}
/**
 * What a group is called.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GroupRequest".
 */
export interface GroupRequest {
  name: string;
}
/**
 * The groups of the team, by name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "GroupsReply".
 */
export interface GroupsReply {
  groups: GroupReply[];
}
/**
 * What hangs on a person: forms that write to them, and how many responses are in their hands.
 *
 * `waiting` counts the approvals they are asked for and the tasks they have not done; `desk` are the forms on
 * their personal desk, where they are in no other team.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "HangingReply".
 */
export interface HangingReply {
  desk: FormHangingReply[];
  forms: FormHangingReply[];
  in_hand: number;
  waiting: number;
}
/**
 * Why a form can't move to a team, in words; nothing where it can.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "HindrancesReply".
 */
export interface HindrancesReply {
  hindrances: string[];
}
/**
 * By which way a response came, from which page of a website ("" where it is none), and in how many seconds.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "HowItCame".
 */
export interface HowItCame {
  page: string;
  seconds: number | null;
  way: "link" | "script" | "frame" | "pop-up" | "tab" | "corner";
}
/**
 * A file to take in; with a `key_column` a line changes the record that has its value.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ImportRecordsRequest".
 */
export interface ImportRecordsRequest {
  columns: {
    [k: string]: string;
  };
  file: string;
  key_column: string;
  name: string;
  writing: FileWriting;
}
/**
 * How far a table has come: of `count` lines `place` were gone through, `kept` are responses now.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ImportReply".
 */
export interface ImportReply {
  count: number;
  created_at: string;
  id: string;
  kept: number;
  name: string;
  person: string | null;
  place: number;
  refused: RefusedLineReply[];
  state: "waiting" | "done" | "stopped";
}
/**
 * A line that is not taken in, by its number as spreadsheets count, and why.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RefusedLineReply".
 */
export interface RefusedLineReply {
  line: number;
  message: string;
}
/**
 * A table to take in, under a name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ImportRequest".
 */
export interface ImportRequest {
  columns: {
    [k: string]: string;
  };
  name: string;
  table: string;
}
/**
 * What was taken in of late, newest first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ImportsReply".
 */
export interface ImportsReply {
  imports: ImportReply[];
}
/**
 * Whether somebody is in a group from now on.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "InGroupRequest".
 */
export interface InGroupRequest {
  inside: boolean;
}
/**
 * An invitation: into which team, for which e-mail, in which role, by whom.
 *
 * `known` says that somebody signs in with that e-mail already, `signed_in` that this is who asks.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "InvitationLookReply".
 */
export interface InvitationLookReply {
  email: string;
  invited_by: string | null;
  known: boolean;
  role: "owner" | "editor" | "reviewer" | "viewer";
  signed_in: boolean;
  team_name: string;
}
/**
 * The link that came by mail.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "InvitationLookRequest".
 */
export interface InvitationLookRequest {
  token: string;
}
/**
 * Whom the team has invited and who has not come yet.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "InvitationReply".
 */
export interface InvitationReply {
  email: string;
  expires_at: string;
  id: string;
  invited_at: string;
  invited_by: string | null;
  role: "owner" | "editor" | "reviewer" | "viewer";
}
/**
 * The members to write to, by the numbers of their records.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "InviteMembersRequest".
 */
export interface InviteMembersRequest {
  /**
   * @minItems 1
   * @maxItems 2000
   */
  numbers: [number, ...number[]];
}
/**
 * Whom to invite, and in which role.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "InviteRequest".
 */
export interface InviteRequest {
  email: string;
  role: "owner" | "editor" | "reviewer" | "viewer";
}
/**
 * The link, with name and password of who is new, or the password of who is known; neither of who is signed in.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "JoinRequest".
 */
export interface JoinRequest {
  name: string;
  password: string;
  token: string;
}
/**
 * It is kept: under which number, at which address, under which version, and until when in words.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "KeepReply".
 */
export interface KeepReply {
  address: string;
  number: number;
  until: string;
  version: number;
}
/**
 * What a visitor has entered so far, to go on with later, and how far they are.
 *
 * `version` is the one that was seen last, 0 before the first; with null these answers replace whatever is kept.
 * `began` is when the visitor began, in milliseconds since 1970.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "KeepRequest".
 */
export interface KeepRequest {
  answers: {
    [k: string]: unknown;
  };
  began: number;
  came: HowItCame;
  /**
   * @maxItems 2000
   */
  checked: string[];
  entry: string;
  link: {
    [k: string]: string;
  };
  page: string | null;
  seal: string;
  seed: number;
  token: string;
  version: number | null;
  visit: string;
}
/**
 * Answers that a visitor goes on with: kept `when`, in words, with which edition and on which visit.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "KeptAnswers".
 */
export interface KeptAnswers {
  answers: {
    [k: string]: unknown;
  };
  began: number;
  checked: string[];
  edition: number;
  page: string | null;
  seed: number;
  token: string;
  version: number;
  visit: string;
  when: string;
}
/**
 * Where the private link is to be sent.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "KeptMailRequest".
 */
export interface KeptMailRequest {
  email: string;
  token: string;
}
/**
 * A key as its team sees it; `form` is the form's name, None where it is for all.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "KeyReply".
 */
export interface KeyReply {
  form: string | null;
  id: string;
  last_used_at: string | null;
  made_at: string;
  made_by: string | null;
  name: string;
  rights: KeyRight[];
}
/**
 * The keys of a team, newest first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "KeysReply".
 */
export interface KeysReply {
  keys: KeyReply[];
}
/**
 * The labels of a form, all of them.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LabelsRequest".
 */
export interface LabelsRequest {
  /**
   * @maxItems 20
   */
  labels:
    | []
    | [string]
    | [string, string]
    | [string, string, string]
    | [string, string, string, string]
    | [string, string, string, string, string]
    | [string, string, string, string, string, string]
    | [string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string, string, string, string, string, string]
    | [string, string, string, string, string, string, string, string, string, string, string, string, string, string]
    | [
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string
      ]
    | [
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string
      ]
    | [
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string
      ]
    | [
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string
      ]
    | [
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string
      ]
    | [
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string,
        string
      ];
}
/**
 * A language, by its own name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LanguageChoice".
 */
export interface LanguageChoice {
  code: string;
  name: string;
}
/**
 * How far a language is: so many of so many texts; `name` is its own.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LanguageProgressReply".
 */
export interface LanguageProgressReply {
  all: number;
  done: number;
  locale: string;
  name: string;
}
/**
 * The language in which somebody is written to, and all that there are.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LanguageReply".
 */
export interface LanguageReply {
  language: string;
  languages: LanguageChoice[];
}
/**
 * The language in which somebody wants to be written to.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LanguageRequest".
 */
export interface LanguageRequest {
  language: string;
}
/**
 * A tab that was closed.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LeaveRequest".
 */
export interface LeaveRequest {
  tab: string;
}
/**
 * So many links will be sent.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LinkMailsReply".
 */
export interface LinkMailsReply {
  count: number;
}
/**
 * What the mail with each link says.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LinkMailsRequest".
 */
export interface LinkMailsRequest {
  subject: string;
  words: string;
}
/**
 * The address that somebody signs in with who has forgotten the password.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LinkRequest".
 */
export interface LinkRequest {
  email: string;
}
/**
 * What would be made of a table: its headers, how many links, the first with their values, and what is wrong.
 *
 * Before columns are picked nothing is made. Of what is `wrong` the first lines are told, of `wrong_count`.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LinksPlanReply".
 */
export interface LinksPlanReply {
  empty: number;
  first: {
    [k: string]: string;
  }[];
  headers: string[];
  lines: number;
  links: number;
  wrong: WrongLineReply[];
  wrong_count: number;
}
/**
 * A line that no link is made of, and why.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WrongLineReply".
 */
export interface WrongLineReply {
  message: string;
  number: number;
}
/**
 * Sealed links to be made of a table: its bytes in base64 (RFC 4648), and which column gives which value.
 *
 * `until` is a moment where the form is at home, or ""; without `uses` a link may be used any number of times.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LinksRequest".
 */
export interface LinksRequest {
  columns: {
    [k: string]: string;
  };
  email: string;
  name: string;
  table: string;
  until: string;
  uses: number | null;
}
/**
 * A list: how many options it has, and in how many forms' drafts it is.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ListFaceReply".
 */
export interface ListFaceReply {
  changed_at: string;
  forms: number;
  id: string;
  name: string;
  options: number;
}
/**
 * A list, and the forms that have options from it; `behind` are those that others were just saving.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ListReply".
 */
export interface ListReply {
  behind: string[];
  forms: FormNamedReply[];
  id: string;
  name: string;
  options: SharedOption[];
  revision: number;
}
/**
 * An option of a list: what visitors read, its code, the number that it counts as, and what it belongs to.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SharedOption".
 */
export interface SharedOption {
  belongs_to: string;
  code: string;
  counts_as: string;
  label: string;
}
/**
 * The team's lists, by name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ListsReply".
 */
export interface ListsReply {
  lists: ListFaceReply[];
}
/**
 * What was seen on the page, first what keeps the form from showing.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LookReply".
 */
export interface LookReply {
  remarks: RemarkReply[];
}
/**
 * Something that was seen on the page.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RemarkReply".
 */
export interface RemarkReply {
  good: boolean;
  words: string;
}
/**
 * A page of a website on which the form should be.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LookRequest".
 */
export interface LookRequest {
  page: string;
}
/**
 * Links were made: what they are known by together, and how many.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MadeLinksReply".
 */
export interface MadeLinksReply {
  batch: number;
  links: number;
}
/**
 * A form was made.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MadeReply".
 */
export interface MadeReply {
  id: string;
}
/**
 * The table that was made.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MadeTableReply".
 */
export interface MadeTableReply {
  id: string;
}
/**
 * Responses, by number, that get something: a status, a tag, or no longer a tag, or a person ("" for nobody).
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MarkRequest".
 */
export interface MarkRequest {
  kind: "status" | "tag" | "untag" | "person";
  /**
   * @minItems 1
   * @maxItems 200
   */
  numbers: [number, ...number[]];
  value: string;
}
/**
 * How many were changed by it: others had it already, or are gone.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MarkedReply".
 */
export interface MarkedReply {
  changed: number;
}
/**
 * Who is signed in now, with what their page carries from now on; or, with `asked`, which code is waited for.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MemberSignInReply".
 */
export interface MemberSignInReply {
  asked: string;
  entry: string;
  visitor: string;
  words: string;
}
/**
 * Somebody signs in while they fill in: by a password, or the code of a mail; or wants the mail ("mail").
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MemberSignInRequest".
 */
export interface MemberSignInRequest {
  asked: string;
  code: string;
  email: string;
  entry: string;
  password: string;
  way: "password" | "code" | "mail";
}
/**
 * To how many was written.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MembersInvitedReply".
 */
export interface MembersInvitedReply {
  count: number;
}
/**
 * Something that happened about money: of which `charge` (None for what was paid at first), and by whom.
 *
 * `amount` as people write it, `card` and `reason` are "" where it has none.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MoneyEventReply".
 */
export interface MoneyEventReply {
  amount: string;
  at: string;
  card: string;
  charge: number | null;
  kind: string;
  person: string | null;
  reason: string;
}
/**
 * Another slot, by its beginning, in the place of the one at an address.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MoveBookingRequest".
 */
export interface MoveBookingRequest {
  address: string;
  code: string;
}
/**
 * A response moved on a board by a column: from the status or option that was seen to another; "" is none.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MoveRequest".
 */
export interface MoveRequest {
  by: string;
  to: string;
  was: string;
}
/**
 * What somebody is called.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NameRequest".
 */
export interface NameRequest {
  name: string;
}
/**
 * What a saved state is called; "" for nothing.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NameStateRequest".
 */
export interface NameStateRequest {
  name: string;
}
/**
 * How many records of a table name a record, and by which of its columns.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NamingReply".
 */
export interface NamingReply {
  column: string;
  count: number;
  name: string;
  table: string;
}
/**
 * The responses before and after one in a set, by number.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NeighboursReply".
 */
export interface NeighboursReply {
  after: number | null;
  before: number | null;
}
/**
 * The secret key of an account, entered once.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NewAccountRequest".
 */
export interface NewAccountRequest {
  secret: string;
}
/**
 * A look to keep under a name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NewBrandRequest".
 */
export interface NewBrandRequest {
  look: {
    [k: string]: unknown;
  };
  name: string;
}
/**
 * A calendar to be taken up: its address (CalDAV), and what is signed in by; the password is entered once.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NewCalendarRequest".
 */
export interface NewCalendarRequest {
  address: string;
  name: string;
  password: string;
  user_name: string;
}
/**
 * A saved view to make a feed of.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NewFeedRequest".
 */
export interface NewFeedRequest {
  view: string;
}
/**
 * A blank form of that name, the form of a JSON document, of a template by its name, or of a pasted outline.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NewFormRequest".
 */
export interface NewFormRequest {
  document: {
    [k: string]: unknown;
  } | null;
  name: string;
  outline: string | null;
  template: string | null;
}
/**
 * A key that was made: it is shown this once.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NewKeyReply".
 */
export interface NewKeyReply {
  id: string;
  key: string;
}
/**
 * A key to make: what it may do, for one form or all of the team's.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NewKeyRequest".
 */
export interface NewKeyRequest {
  form: string | null;
  name: string;
  /**
   * @minItems 1
   * @maxItems 3
   */
  rights: [KeyRight] | [KeyRight, KeyRight] | [KeyRight, KeyRight, KeyRight];
}
/**
 * A list to make: its name and options.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NewListRequest".
 */
export interface NewListRequest {
  document: {
    [k: string]: unknown;
  };
}
/**
 * A new password, by the link that came by mail.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NewPasswordRequest".
 */
export interface NewPasswordRequest {
  password: string;
  token: string;
}
/**
 * A table to make: its definition, of which all but the name can be left out.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NewTableRequest".
 */
export interface NewTableRequest {
  definition: {
    [k: string]: unknown;
  };
}
/**
 * What is new since an earlier edition, for a visitor who began with that, in words.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NewsReply".
 */
export interface NewsReply {
  news: string[];
}
/**
 * Whether there is a rehearsal, and which.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NoRehearsalReply".
 */
export interface NoRehearsalReply {
  rehearsal: RehearsalReply | null;
}
/**
 * A rehearsal: its form, where that is filled in, since when, and the days that its clock was moved on.
 *
 * `filled_in_by` is as whom, as a preview knows them: "" for a guest, "me", or "member." and a record's number;
 * `visitor_name` is what that member is called.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RehearsalReply".
 */
export interface RehearsalReply {
  address: string;
  approvals: RehearsedApprovalReply[];
  days: number;
  filled_in_by: string;
  form: string;
  responses: RehearsedReply[];
  since: string;
  visitor_name: string;
}
/**
 * What is to be decided about a response.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RehearsedApprovalReply".
 */
export interface RehearsedApprovalReply {
  id: string;
  name: string;
  number: number;
  step: number;
  step_name: string;
  subject: string;
}
/**
 * A response of a rehearsal: how it stands, its answers, what happened, what followed, its visitor's own page.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RehearsedReply".
 */
export interface RehearsedReply {
  answers: RehearsedAnswerReply[];
  booking: string;
  decision: string;
  events: EventReply[];
  number: number;
  own_page: string;
  payment: string;
  runs: RunReply[];
  stage: string;
  standing: StandingReply | null;
}
/**
 * What was answered or worked out: a label, and what stands there.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RehearsedAnswerReply".
 */
export interface RehearsedAnswerReply {
  label: string;
  text: string;
}
/**
 * What followed from a response: in one line, how often it was tried, and how it stands ("waiting", "done" …).
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RunReply".
 */
export interface RunReply {
  again: number;
  asked_by: string | null;
  created_at: string;
  due_at: string | null;
  ended_at: string | null;
  id: number;
  name: string;
  number: number;
  result: string;
  state: string;
  told: string;
  tries: number;
}
/**
 * With which part of its form a response stands ("" for who filled it in), since when, and what was said.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "StandingReply".
 */
export interface StandingReply {
  by_name: string;
  name: string;
  part: string;
  remark: string;
  since: string;
}
/**
 * A record that makes no slot: its number, and why not.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NoSlotReply".
 */
export interface NoSlotReply {
  message: string;
  number: number;
}
/**
 * A note to keep with a response.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NoteRequest".
 */
export interface NoteRequest {
  note: string;
}
/**
 * The responses to which it happened, by number.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NumbersReply".
 */
export interface NumbersReply {
  numbers: number[];
}
/**
 * Responses, by number.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NumbersRequest".
 */
export interface NumbersRequest {
  /**
   * @minItems 1
   * @maxItems 200
   */
  numbers: [number, ...number[]];
}
/**
 * Records that are offered to be chosen from now on, or no more.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OfferRecordsRequest".
 */
export interface OfferRecordsRequest {
  /**
   * @minItems 1
   * @maxItems 2000
   */
  numbers: [number, ...number[]];
  offered: boolean;
}
/**
 * A response that made or changed a record.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OriginReply".
 */
export interface OriginReply {
  at: string;
  form: string;
  kind: string;
  name: string;
  number: number;
}
/**
 * What comes out of answers: what a trial would look at; which conditions hold, by owner and setting.
 *
 * `values` are the texts of fields and figures by id; `charts` the bars of charts by confirmation and
 * paragraph ("ID.2"); `looked_at` the numbers that
 * figures of bands look at, as plain text; `to_pay` what is due at once, as visitors read it, and `plan` what
 * is due later; `state` what they would see.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OutcomeReply".
 */
export interface OutcomeReply {
  charts: {
    [k: string]: BarFace[];
  };
  holding: {
    [k: string]: {
      [k: string]: boolean;
    };
  };
  looked_at: {
    [k: string]: string;
  };
  outcome: Expected;
  plan: TriedPlanReply | null;
  state: FormState;
  to_pay: string;
  values: {
    [k: string]: string;
  };
}
/**
 * What is paid now and later in `words`; the first later charges, how many follow (None for no end) and the last.
 *
 * `whole` is all that is ever paid, "" where there is no end to it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TriedPlanReply".
 */
export interface TriedPlanReply {
  charges: TriedChargeReply[];
  last_day: string | null;
  more: number | null;
  whole: string;
  words: string;
}
/**
 * A later charge: on which day, and how much, as visitors read it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TriedChargeReply".
 */
export interface TriedChargeReply {
  amount: string;
  day: string;
}
/**
 * Answers to a draft, what came with the address, who fills in, and the day on which they do, or now.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OutcomeRequest".
 */
export interface OutcomeRequest {
  answers: {
    [k: string]: unknown;
  };
  day: string | null;
  link: {
    [k: string]: string;
  };
  visitor: TrialVisitor;
}
/**
 * A line of the text: what it makes in words, or what was not understood of it; `number` counts from 1.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OutlineLine".
 */
export interface OutlineLine {
  makes: string;
  number: number;
  problem: string;
  text: string;
}
/**
 * What the text makes: pages of a form's document, and what became of each line.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OutlineReply".
 */
export interface OutlineReply {
  lines: OutlineLine[];
  pages: Page[];
}
/**
 * Pasted text, a line a field.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OutlineRequest".
 */
export interface OutlineRequest {
  text: string;
}
/**
 * Whose a form is, by a person's id.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "OwnerRequest".
 */
export interface OwnerRequest {
  person: string;
}
/**
 * A part of a form, which a response may be given to.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PartReply".
 */
export interface PartReply {
  id: string;
  name: string;
}
/**
 * What a browser is told to make a passkey, or to ask for one (Web Authentication, 5.4 and 5.5, as JSON).
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PasskeyOptionsReply".
 */
export interface PasskeyOptionsReply {
  options: {
    [k: string]: unknown;
  };
}
/**
 * What a browser has of a passkey (Web Authentication, 5.1, as JSON), and what its person calls it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PasskeyRequest".
 */
export interface PasskeyRequest {
  credential: {
    [k: string]: unknown;
  };
  name: string;
}
/**
 * A new password in place of the old one.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PasswordRequest".
 */
export interface PasswordRequest {
  new: string;
  old: string;
}
/**
 * All that came of a response's payment: at first and later, what is to come next, and what happened when.
 *
 * `more` says how many are to come after those, None for no end.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PaymentInFullReply".
 */
export interface PaymentInFullReply {
  events: MoneyEventReply[];
  more: number | null;
  payments: PaymentReply[];
  to_come: ToComeReply[];
}
/**
 * A payment as the team sees it: amounts as people write them, `left` what can be given back (plain decimal).
 *
 * `turn` 0 is what was paid at first, with the `plan` that it began in words and how that stands; others are charges,
 * each of a `day`. `test` where it was practice.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PaymentReply".
 */
export interface PaymentReply {
  amount: string;
  card: string;
  changed_at: string;
  created_at: string;
  currency: string;
  day: string | null;
  due_until: string;
  form: string;
  form_name: string;
  left: string;
  next_on: string | null;
  number: number;
  payer: string;
  plan: string;
  plan_state: string;
  provider_number: string;
  reason: string;
  receipt: number | null;
  refunded: string;
  state: string;
  test: boolean;
  turn: number;
}
/**
 * A charge that is still to come.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ToComeReply".
 */
export interface ToComeReply {
  amount: string;
  day: string;
}
/**
 * The latest payments of a form or of all, and what they come to.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PaymentsReply".
 */
export interface PaymentsReply {
  payments: PaymentReply[];
  sums: SumsReply[];
}
/**
 * What came of a form's payments in one currency, as people write it; of tries apart.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SumsReply".
 */
export interface SumsReply {
  count: number;
  due: string;
  paid: string;
  refunded: string;
  test: boolean;
}
/**
 * The people of the team, by name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PeopleReply".
 */
export interface PeopleReply {
  people: TeamPersonReply[];
}
/**
 * Somebody of the team.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TeamPersonReply".
 */
export interface TeamPersonReply {
  email: string;
  id: string;
  name: string;
  role: string;
}
/**
 * Where the team's forms and tables name an address.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PersonReply".
 */
export interface PersonReply {
  found: FoundInReply[];
  records: RecordsInReply[];
}
/**
 * The records of one table that name an address, or did, by number.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordsInReply".
 */
export interface RecordsInReply {
  name: string;
  numbers: number[];
  table: string;
}
/**
 * The e-mail address of somebody.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PersonRequest".
 */
export interface PersonRequest {
  email: string;
}
/**
 * A picture was kept: where it is, and its size in pixels.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PictureReply".
 */
export interface PictureReply {
  height: number;
  source: string;
  width: number;
}
/**
 * What a table would bring; of the lines that were `tried` the first that are wrong, and how many are.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PlanImportReply".
 */
export interface PlanImportReply {
  columns: {
    [k: string]: string;
  };
  empty: number;
  headers: string[];
  lines: number;
  targets: TargetReply[];
  tried: number;
  wrong: RefusedLineReply[];
  wrong_count: number;
}
/**
 * A field that a column may be.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TargetReply".
 */
export interface TargetReply {
  key: string;
  label: string;
}
/**
 * A table, its bytes in base64 (RFC 4648), and which column is which field, by key; None for what headers say.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PlanImportRequest".
 */
export interface PlanImportRequest {
  columns: {
    [k: string]: string;
  } | null;
  table: string;
}
/**
 * What a file would bring; of the lines that were `tried` those that are wrong, and the first of them.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PlanRecordsReply".
 */
export interface PlanRecordsReply {
  columns: PlannedColumnReply[];
  empty: number;
  lines: number;
  tried: number;
  writing: FileWriting;
  wrong: RefusedLineReply[];
  wrong_count: number;
}
/**
 * What a header of the file is, and of which type a new column of it would be.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PlannedColumnReply".
 */
export interface PlannedColumnReply {
  column: string;
  header: string;
  type: string;
}
/**
 * A CSV or XLSX file in base64 (RFC 4648), what its headers are, and how it writes; None for what is likely.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PlanRecordsRequest".
 */
export interface PlanRecordsRequest {
  columns: {
    [k: string]: string;
  } | null;
  file: string;
  writing: FileWriting | null;
}
/**
 * Who else is here, the revision that is saved now, and the edition that visitors get now.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PresenceReply".
 */
export interface PresenceReply {
  live_edition: number | null;
  people: PresentReply[];
  revision: number;
}
/**
 * Somebody else with the form open.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PresentReply".
 */
export interface PresentReply {
  area: string;
  name: string;
  part: string | null;
}
/**
 * A tab that shows a form: the area, and the part that is selected in it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PresenceRequest".
 */
export interface PresenceRequest {
  area: string;
  part: string | null;
  tab: string;
}
/**
 * A form's public address.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PublicAddressReply".
 */
export interface PublicAddressReply {
  address: string;
  slug: string;
}
/**
 * The last part of a form's public address, as a person writes it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PublicAddressRequest".
 */
export interface PublicAddressRequest {
  address: string;
}
/**
 * What the page of a public form carries: where to ask, what to show, and the first state.
 *
 * `base` is what the addresses begin with that the form asks. `address` is the form's own, without a page; `page` the
 * address of the page that was asked for, or "". `token` is there in the workbench alone: the session's, for asking
 * about a draft, or a response that is corrected, which `takes_files`. `shown` is another way of presenting the form.
 * `received` is what was received and is seen again at an address of its own. `seal` is the link's, `entry` says that
 * the password was typed; `came` is how the visitor came, and `host` the origin of the website around, "" where it is
 * not known. `visitor` is who is signed in, by name, and `members` the page of the team's members.
 * With `later` answers can be kept to go on with later; `kept` are those that the visitor goes on with.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PublicPage".
 */
export interface PublicPage {
  address: string;
  base: string;
  came: HowItCame;
  edition: number;
  entry: string;
  face: FormFace;
  form: string;
  framed: boolean;
  host: string;
  kept: KeptAnswers | null;
  later: boolean;
  link: {
    [k: string]: string;
  };
  members: string;
  opened: string;
  page: string;
  received: ReceivedReply | null;
  seal: string;
  shown: string;
  state: FormState;
  takes_files: boolean;
  token: string | null;
  visitor: string;
}
/**
 * The response was kept under this number; what the visitor reads then, and at which address again.
 *
 * In a preview, which keeps nothing, there is no such address. Where `payment` is due, the confirmation follows it,
 * and `order` is what it is for.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ReceivedReply".
 */
export interface ReceivedReply {
  confirmation: ConfirmationFace;
  number: number;
  order: OrderFace | null;
  page: string;
  payment: ToPayReply | null;
}
/**
 * How a response's payment stands: due, paid or expired. `amount` as people write it, `page` the bank's own page.
 *
 * `amount` is "" where nothing is paid at once, `plan` what is paid now and later in words, "" without a plan.
 * `reason` is why a card was refused; `away` says that the bank can't be asked just now. With `in_frame` the bank's
 * page stands in ours.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ToPayReply".
 */
export interface ToPayReply {
  amount: string;
  away: boolean;
  in_frame: boolean;
  page: string;
  plan: string;
  practice: boolean;
  reason: string;
  state: "due" | "paid" | "expired";
}
/**
 * How a table's records are published: at which `address` of the team, under which title, with which columns.
 *
 * Their order is the one in which they are read. `author` is the column that says who wrote a record, "" for none.
 * With `at_once` a new record is published as it is made; else it waits until somebody of the team lets it go.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Publication".
 */
export interface Publication {
  address: string;
  at_once: boolean;
  author: string;
  /**
   * @maxItems 100
   */
  columns: string[];
  title: string;
}
/**
 * Records that anybody may read from now on, or no more.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PublishRecordsRequest".
 */
export interface PublishRecordsRequest {
  /**
   * @minItems 1
   * @maxItems 2000
   */
  numbers: [number, ...number[]];
  published: boolean;
}
/**
 * Publish this revision of the draft; with `despite_trials` also where trials of it fail.
 *
 * `live` is the edition that was live when the changes were looked at; `note` is for the team.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PublishRequest".
 */
export interface PublishRequest {
  despite_trials: boolean;
  live: number | null;
  note: string;
  revision: number;
}
/**
 * The edition that visitors get from now on, the newest that there is, and what the draft changes of it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PublishedReply".
 */
export interface PublishedReply {
  address: string;
  changes: number;
  edition: number;
  newest_edition: number;
}
/**
 * How many jobs are due and wait, how many wait for a later day, how many are carried out; living workers.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "QueueReply".
 */
export interface QueueReply {
  later: number;
  running: number;
  waiting: number;
  workers: number;
}
/**
 * What was done to a record; of a change the cells as they were before.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordChangeReply".
 */
export interface RecordChangeReply {
  at: string;
  cells: {
    [k: string]: string;
  };
  kind: string;
  person: string | null;
}
/**
 * What happened to a record, newest first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordHistoryReply".
 */
export interface RecordHistoryReply {
  changes: RecordChangeReply[];
}
/**
 * What names a record, which responses made or changed it, and which forms offer it to visitors now.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordNamedReply".
 */
export interface RecordNamedReply {
  forms: FormNamedReply[];
  naming: NamingReply[];
  responses: OriginReply[];
}
/**
 * What records are called, by number, and whether there are more than so many.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordNamesReply".
 */
export interface RecordNamesReply {
  more: boolean;
  names: string[];
}
/**
 * The records that it was done to.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordNumbersReply".
 */
export interface RecordNumbersReply {
  numbers: number[];
}
/**
 * Records by number.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordNumbersRequest".
 */
export interface RecordNumbersRequest {
  /**
   * @minItems 1
   * @maxItems 2000
   */
  numbers: [number, ...number[]];
}
/**
 * Records from a place on, of `count` that there are.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecordsReply".
 */
export interface RecordsReply {
  count: number;
  records: RecordReply[];
}
/**
 * Codes for recovery, shown once; none where there are some already.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RecoveryCodesReply".
 */
export interface RecoveryCodesReply {
  codes: string[] | null;
}
/**
 * So much is given back, in major units as plain decimal: of what was paid at first, or of a later charge.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RefundRequest".
 */
export interface RefundRequest {
  amount: string;
  turn: number;
}
/**
 * The response was not kept: what is wrong, by block id; `work` is what is asked of the sender's computer first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RefusedReply".
 */
export interface RefusedReply {
  code: string;
  errors: {
    [k: string]: ErrorFace;
  };
  message: string;
  work: string;
}
/**
 * What is said to a step of an approval, in the place of whoever is asked.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RehearsedDecisionRequest".
 */
export interface RehearsedDecisionRequest {
  remark: string;
  step: number;
  verdict: "approve" | "deny" | "ask back";
}
/**
 * As whom a rehearsal is filled in: "" for a guest, "me", or "member." and the number of a member's record.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RehearsedVisitorRequest".
 */
export interface RehearsedVisitorRequest {
  known: string;
}
/**
 * Records to remove, and what becomes of those that others name: "ask" refuses and tells who does.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RemoveRecordsRequest".
 */
export interface RemoveRecordsRequest {
  /**
   * @minItems 1
   * @maxItems 2000
   */
  numbers: [number, ...number[]];
  way: "ask" | "empty" | "keep";
}
/**
 * The records that were removed, and those that stay and are offered no more.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RemovedRecordsReply".
 */
export interface RemovedRecordsReply {
  kept: number[];
  removed: number[];
}
/**
 * A draft and what a name in it shall be: a "key", "options.2.code", "bands.0.label" and the like.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RenameRequest".
 */
export interface RenameRequest {
  draft: {
    [k: string]: unknown;
  };
  name: string;
  part: string;
  setting: string;
}
/**
 * Some responses put through the draft, newest first; `next` is what to go on after, null at the end.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ReplayReply".
 */
export interface ReplayReply {
  differing: ReplayedReply[];
  looked_at: number;
  next: string | null;
  unreadable: number;
}
/**
 * A response that would come out otherwise.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ReplayedReply".
 */
export interface ReplayedReply {
  differences: DifferenceReply[];
  edition: number;
  number: number;
  received_at: string;
}
/**
 * One response with its files by column, how it came, and what happened to it, in order.
 *
 * `way` is "" where that is not known; `link` is what its sealed link was made with, "" where there was none.
 * `visitor` is who was signed in, by name and e-mail, "" for nobody; `standing` is where it stands, and `parts` are
 * those that it may be given to.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ResponseReply".
 */
export interface ResponseReply {
  columns: ColumnReply[];
  events: EventReply[];
  files: {
    [k: string]: FileFace[];
  };
  link: string;
  page: string;
  parts: PartReply[];
  row: RowReply;
  seconds: number | null;
  standing: StandingReply | null;
  visitor: string;
  way: string;
}
/**
 * A page of responses in an order; `next` asks for the page after it, "" where there is none.
 *
 * `exact` where `count` is no estimate; `behind` is how many responses are still being read in.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ResponsesReply".
 */
export interface ResponsesReply {
  behind: number;
  columns: ColumnReply[];
  count: number;
  exact: boolean;
  next: string;
  rows: RowReply[];
}
/**
 * How long a form's responses are kept: after so many days they are anonymised or removed; None for ever.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Retention".
 */
export interface Retention {
  days: number | null;
  does: "anonymise" | "remove";
}
/**
 * Another role.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RoleRequest".
 */
export interface RoleRequest {
  role: "owner" | "editor" | "reviewer" | "viewer";
}
/**
 * The table of the team's members.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RollBegunReply".
 */
export interface RollBegunReply {
  table: string;
}
/**
 * The table of the team's members, None before it was begun, how their accounts stand, and where they sign in.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RollReply".
 */
export interface RollReply {
  confirmed: number;
  invited: number;
  members: number;
  page: string;
  table: string | null;
}
/**
 * The condition as rows; null where it can't be read.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RowsReply".
 */
export interface RowsReply {
  rows: ConditionRows | null;
}
/**
 * A condition as a formula.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RowsRequest".
 */
export interface RowsRequest {
  formula: string;
}
/**
 * In how many trials a condition held, and in how many it did not; in rows, in any of them.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RuleCoverage".
 */
export interface RuleCoverage {
  did_not: number;
  held: number;
  owner: string;
  setting: string;
}
/**
 * What a run sends: of a mail its HTML and text, of a webhook its body and every try, first to last.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RunInFullReply".
 */
export interface RunInFullReply {
  body: {
    [k: string]: unknown;
  } | null;
  deliveries: DeliveryReply[];
  html: string;
  text: string;
}
/**
 * What followed from a response, in order; or what waits and what did not work, of a form.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RunsReply".
 */
export interface RunsReply {
  runs: RunReply[];
}
/**
 * Plausible answers, by block id.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SampleReply".
 */
export interface SampleReply {
  answers: {
    [k: string]: unknown;
  };
}
/**
 * Which of the samples: the same number gives the same answers.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SampleRequest".
 */
export interface SampleRequest {
  seed: number;
}
/**
 * A filter to be kept under a name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SaveDeskViewRequest".
 */
export interface SaveDeskViewRequest {
  name: string;
  view: DeskView;
}
/**
 * A draft made from that revision.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SaveDraftRequest".
 */
export interface SaveDraftRequest {
  draft: {
    [k: string]: unknown;
  };
  revision: number;
}
/**
 * Another name or other options for a list; `revision` is the one that was seen.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SaveListRequest".
 */
export interface SaveListRequest {
  document: {
    [k: string]: unknown;
  };
  revision: number;
}
/**
 * Other columns or another name for a table; `revision` is the one that was seen.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SaveTableRequest".
 */
export interface SaveTableRequest {
  definition: {
    [k: string]: unknown;
  };
  revision: number;
}
/**
 * The draft was kept; until the first edition the address follows the name. `changes` counts as in FormReply.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SavedReply".
 */
export interface SavedReply {
  address: string;
  analysis: AnalysisReply;
  changed_at: string;
  changes: number;
  revision: number;
}
/**
 * The id of a view that was saved.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SavedViewReply".
 */
export interface SavedViewReply {
  id: string;
}
/**
 * The number of the new key.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SealKeyReply".
 */
export interface SealKeyReply {
  key: number;
}
/**
 * Sign new links with a new key; with `end_others` no earlier link opens any more.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SealKeyRequest".
 */
export interface SealKeyRequest {
  end_others: boolean;
}
/**
 * A sealed link: its address, what it gives, until when, and what became of it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SealedLinkReply".
 */
export interface SealedLinkReply {
  address: string;
  email: string;
  ended: boolean;
  given: {
    [k: string]: string;
  };
  id: number;
  mail: "" | "waiting" | "sent" | "failed";
  mail_result: string;
  mailed_at: string | null;
  responses: number;
  until: string | null;
  uses: number | null;
}
/**
 * Some of the links that were made together; `next` is what to go on after, null at the end.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SealedLinksReply".
 */
export interface SealedLinksReply {
  links: SealedLinkReply[];
  next: number | null;
}
/**
 * The code of an app, or one for recovery.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SecondCodeRequest".
 */
export interface SecondCodeRequest {
  code: string;
}
/**
 * The password was right, and a second factor is still to be shown.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SecondFactorReply".
 */
export interface SecondFactorReply {
  second_factor: true;
}
/**
 * What signs a form's webhooks.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SecretReply".
 */
export interface SecretReply {
  secret: string;
}
/**
 * A session of who is signed in: by what program it was begun; `own` is this one.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SessionReply".
 */
export interface SessionReply {
  created_at: string;
  id: string;
  own: boolean;
  program: string;
  seen_at: string;
}
/**
 * The sessions of who is signed in, the last used first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SessionsReply".
 */
export interface SessionsReply {
  sessions: SessionReply[];
}
/**
 * A title, a description and a picture; "" stands for the form's own title and lead, and for no picture.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Sharing".
 */
export interface Sharing {
  description: string;
  picture: string;
  title: string;
}
/**
 * How links to the form look in other programs.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SharingRequest".
 */
export interface SharingRequest {
  sharing: Sharing;
}
/**
 * A field that tells who somebody is.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SheetColumnReply".
 */
export interface SheetColumnReply {
  id: string;
  label: string;
}
/**
 * The booking sheet of a day; `before` and `after` are the next days that have slots.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SheetReply".
 */
export interface SheetReply {
  after: string | null;
  before: string | null;
  block: string;
  blocks: BookedBlockReply[];
  columns: SheetColumnReply[];
  day: string;
  slots: SheetSlotReply[];
}
/**
 * A slot of a day: its name, when it begins and ends by the clock, where, its places, and who has them.
 *
 * One that the live edition has no more has 0 places and "" for an end. A closed one is given to nobody else.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SheetSlotReply".
 */
export interface SheetSlotReply {
  at: string;
  at_label: string;
  closed: boolean;
  ends: string;
  name: string;
  places: number;
  starts: string;
  taken: number;
  takers: TakerReply[];
}
/**
 * A response with places of a slot, or which waits for them; `cells` tell who it is, by column.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TakerReply".
 */
export interface TakerReply {
  cells: {
    [k: string]: string;
  };
  number: number;
  pieces: number;
  waiting: boolean;
}
/**
 * The settings of a slot block as they are being made, and of which days its slots are wanted, both included.
 *
 * `labels` are what its places are called, by code.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ShowSlotsRequest".
 */
export interface ShowSlotsRequest {
  first: string;
  labels: {
    [k: string]: string;
  };
  last: string;
  /**
   * @maxItems 1000
   */
  left_out: DaysLeftOut[];
  /**
   * @maxItems 100
   */
  series: SlotSeries[];
  /**
   * @maxItems 10000
   */
  singles: SingleSlot[];
  time_zone: string;
}
/**
 * A slot: when it begins and ends by the clock ("2026-12-03T18:30"), its places, at what, and of which series.
 *
 * `series` is that one's id, "" where it was set by hand.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ShownSlotReply".
 */
export interface ShownSlotReply {
  at: string;
  ends: string;
  places: number;
  series: string;
  starts: string;
}
/**
 * The slots of those days; each series in words, by id; how many there are in all, from which day to which.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ShownSlotsReply".
 */
export interface ShownSlotsReply {
  count: number;
  first_day: string | null;
  last_day: string | null;
  slots: ShownSlotReply[];
  told: {
    [k: string]: string;
  };
  too_many: boolean;
}
/**
 * E-mail and password.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SignInRequest".
 */
export interface SignInRequest {
  email: string;
  password: string;
}
/**
 * Who is signed in; `csrf_token` goes into X-CSRF-Token of every changing request.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SignedInReply".
 */
export interface SignedInReply {
  csrf_token: string;
  email: string;
  person_id: string;
  person_name: string;
  role: string;
  team_id: string;
  team_name: string;
  team_slug: string;
}
/**
 * The websites as they were understood.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SitesReply".
 */
export interface SitesReply {
  sites: string[];
}
/**
 * The websites that may show the form in a frame.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SitesRequest".
 */
export interface SitesRequest {
  /**
   * @maxItems 50
   */
  sites: string[];
}
/**
 * Which columns, by id, have a slot's day (or its day and time), time, minutes, places and where; "" for none.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SlotColumns".
 */
export interface SlotColumns {
  at: string;
  day: string;
  minutes: string;
  places: string;
  time: string;
}
/**
 * The slots that a table's records make, and the first of those that make none, of so many.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SlotsOfTableReply".
 */
export interface SlotsOfTableReply {
  slots: SingleSlot[];
  wrong: NoSlotReply[];
  wrong_count: number;
}
/**
 * Which columns of a table say when slots begin, and what slots are like of which a record says nothing else.
 *
 * `labels` are what the block's places are called, by code.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SlotsOfTableRequest".
 */
export interface SlotsOfTableRequest {
  columns: SlotColumns;
  labels: {
    [k: string]: string;
  };
  table: string;
  time_zone: string;
  usual: UsualSlot;
}
/**
 * What a slot is like where a record says nothing else.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "UsualSlot".
 */
export interface UsualSlot {
  at: string;
  minutes: number;
  places: number;
}
/**
 * The answer that it gives, as the form would have been given it, or what is wrong with it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SpokenReply".
 */
export interface SpokenReply {
  answer: unknown;
  error: ErrorFace | null;
}
/**
 * What a visitor says to a question, by the id of its block.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SpokenRequest".
 */
export interface SpokenRequest {
  block: string;
  entry: string;
  words: string;
}
/**
 * Saved states, newest first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "StatesReply".
 */
export interface StatesReply {
  states: StateReply[];
}
/**
 * The statuses that a form's responses can have, in order.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "StatusesRequest".
 */
export interface StatusesRequest {
  /**
   * @maxItems 20
   */
  statuses:
    | []
    | [StatusReply]
    | [StatusReply, StatusReply]
    | [StatusReply, StatusReply, StatusReply]
    | [StatusReply, StatusReply, StatusReply, StatusReply]
    | [StatusReply, StatusReply, StatusReply, StatusReply, StatusReply]
    | [StatusReply, StatusReply, StatusReply, StatusReply, StatusReply, StatusReply]
    | [StatusReply, StatusReply, StatusReply, StatusReply, StatusReply, StatusReply, StatusReply]
    | [StatusReply, StatusReply, StatusReply, StatusReply, StatusReply, StatusReply, StatusReply, StatusReply]
    | [
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply
      ]
    | [
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply
      ]
    | [
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply
      ]
    | [
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply
      ]
    | [
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply
      ]
    | [
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply
      ]
    | [
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply
      ]
    | [
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply
      ]
    | [
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply
      ]
    | [
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply
      ]
    | [
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply
      ]
    | [
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply,
        StatusReply
      ];
}
/**
 * What the visitor hands in, by block id, what came with the address, and how they came.
 *
 * `seen` are the stamps of the records that were chosen, by address, as the visitor saw them last.
 * `opened` says when the form's page was given out, `trap` what was entered where people see nothing. `kept` is the
 * token of answers that were kept for later, "" where none were; `work` what the sender's computer found where work
 * was asked of it (`services/work.py`).
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SubmitRequest".
 */
export interface SubmitRequest {
  answers: {
    [k: string]: unknown;
  };
  came: HowItCame;
  entry: string;
  kept: string;
  link: {
    [k: string]: string;
  };
  opened: string;
  seal: string;
  seen: {
    [k: string]: string;
  };
  trap: string;
  visit: string;
  work: string;
}
/**
 * A column: its type, what people call it, and how a cell of it is edited.
 *
 * `options` are the labels that a cell can have; `computed` where nobody types it: a formula gives it, or it has
 * `files`; `once` where no two records have the same; `table` is the one whose records it names.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TableColumnReply".
 */
export interface TableColumnReply {
  computed: boolean;
  files: boolean;
  id: string;
  key: string;
  label: string;
  numeric: boolean;
  once: boolean;
  options: string[];
  required: boolean;
  table: string | null;
  type: string;
}
/**
 * A table on the desk.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TableFace".
 */
export interface TableFace {
  changed_at: string;
  columns: number;
  id: string;
  name: string;
  records: number;
}
/**
 * The files that were taken in of late, with the lines that were refused.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TableImportsReply".
 */
export interface TableImportsReply {
  imports: ImportReply[];
}
/**
 * A file to make a table of.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TableOfFileRequest".
 */
export interface TableOfFileRequest {
  file: string;
  name: string;
}
/**
 * The table that was made of a form, and the labels of what it has no column for.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TableOfFormReply".
 */
export interface TableOfFormReply {
  id: string;
  left_out: string[];
}
/**
 * A table: its definition, its columns as the grid needs them, and what its records can be `asked` for.
 *
 * `named_by` is the column that names a record, `known` what a form that offers its records is told of it. `published`
 * says what anybody may read of it, at the address `read_at`, to which ".json" and ".atom" can be added. It is seen,
 * and its records changed, by everybody of the team from a role on; `may_change` says whether whoever asks may.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TableReply".
 */
export interface TableReply {
  asked: AskedColumnReply[];
  changed_by: "reviewer" | "editor" | "owner";
  changed_groups: string[];
  columns: TableColumnReply[];
  definition: {
    [k: string]: unknown;
  };
  id: string;
  known: KnownTable;
  may_change: boolean;
  named_by: string;
  published: Publication | null;
  read_at: string | null;
  revision: number;
  seen_by: "viewer" | "reviewer" | "editor" | "owner";
  seen_groups: string[];
}
/**
 * From which role on the people of the team see a table, and change its records; and which groups besides.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TableRightsRequest".
 */
export interface TableRightsRequest {
  changed_by: "reviewer" | "editor" | "owner";
  /**
   * @maxItems 200
   */
  changed_groups: string[];
  seen_by: "viewer" | "reviewer" | "editor" | "owner";
  /**
   * @maxItems 200
   */
  seen_groups: string[];
}
/**
 * The team's tables, by name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TablesReply".
 */
export interface TablesReply {
  tables: TableFace[];
}
/**
 * Who takes over what was a person's, None for nobody; with `bring` their own desk's forms come to the team.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TakeOutRequest".
 */
export interface TakeOutRequest {
  bring: boolean;
  successor: string | null;
}
/**
 * The forms of the person's own desk that could not be brought, by name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TakenOutReply".
 */
export interface TakenOutReply {
  stayed: string[];
}
/**
 * Something to do about a response, until which day, and whether that is over.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TaskReply".
 */
export interface TaskReply {
  due_on: string | null;
  form_id: string;
  form_name: string;
  id: number;
  late: boolean | null;
  made_at: string;
  number: number;
  words: string;
}
/**
 * What who asks has to do, what is due first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TasksReply".
 */
export interface TasksReply {
  tasks: TaskReply[];
}
/**
 * A team of who is signed in.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TeamOfReply".
 */
export interface TeamOfReply {
  id: string;
  name: string;
  personal: boolean;
  role: "owner" | "editor" | "reviewer" | "viewer";
}
/**
 * The people of the team by name, and whom it has invited.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TeamReply".
 */
export interface TeamReply {
  invitations: InvitationReply[];
  people: TeammateReply[];
}
/**
 * Somebody of the team.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TeammateReply".
 */
export interface TeammateReply {
  email: string;
  id: string;
  name: string;
  role: "owner" | "editor" | "reviewer" | "viewer";
}
/**
 * The teams of who is signed in, by name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TeamsReply".
 */
export interface TeamsReply {
  teams: TeamOfReply[];
}
/**
 * A form to begin from, in a sentence and in numbers.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TemplateReply".
 */
export interface TemplateReply {
  fields: number;
  figures: number;
  name: string;
  pages: number;
  purpose: string;
  rules: number;
  shows: string;
  title: string;
}
/**
 * All templates.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TemplatesReply".
 */
export interface TemplatesReply {
  templates: TemplateReply[];
}
/**
 * What a test of an account found, in words.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TestedReply".
 */
export interface TestedReply {
  told: string;
}
/**
 * A text that visitors read, in which setting (`what`) of what (`owner`, by id), and what it reads in a language.
 *
 * `text` is its translation, "" where there is none, and `of` the words that it was made of. `lost` are values that it
 * has not, `unknown` those that mean nothing there; `same` is how the same words are translated elsewhere.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TextToTranslate".
 */
export interface TextToTranslate {
  at: string;
  has_words: boolean;
  how: "text" | "html" | "address";
  lost: string[];
  of: string;
  owner: string;
  same: string;
  source: string;
  standing: "done" | "missing" | "changed";
  text: string;
  unknown: string[];
  what: string;
}
/**
 * What a column of numbers comes to over a set: how many, their sum and average, plain and for people.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TotalReply".
 */
export interface TotalReply {
  average: string;
  average_shown: string;
  count: number;
  sum: string;
  sum_shown: string;
}
/**
 * What the columns of numbers come to, by column id.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TotalsReply".
 */
export interface TotalsReply {
  totals: {
    [k: string]: TotalReply;
  };
}
/**
 * A file of translations into a language: its bytes in base64 (RFC 4648).
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TranslationFileRequest".
 */
export interface TranslationFileRequest {
  file: string;
  locale: string;
}
/**
 * The languages of a draft, and its texts in the one asked for.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TranslationsReply".
 */
export interface TranslationsReply {
  languages: LanguageProgressReply[];
  texts: TextToTranslate[];
}
/**
 * How a trial ended; `outcome` is all that came out.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TrialResult".
 */
export interface TrialResult {
  differences: Difference[];
  outcome: Expected;
  passed: boolean;
  trial: string;
}
/**
 * How the trials of a saved draft ended.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TrialsReply".
 */
export interface TrialsReply {
  coverage: RuleCoverage[];
  results: TrialResult[];
}
/**
 * A response as the draft would see it: its answers as entered, and the draft's figures as text, by id.
 *
 * Of one that is asked for by its number the fields are among them, as text too.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TriedResponseReply".
 */
export interface TriedResponseReply {
  answers: {
    [k: string]: unknown;
  };
  figures: {
    [k: string]: string;
  };
  number: number;
}
/**
 * The newest responses as the draft would see them.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TriedResponsesReply".
 */
export interface TriedResponsesReply {
  responses: TriedResponseReply[];
}
/**
 * Which mail is sent to who asks, with which answers.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TryRequest".
 */
export interface TryRequest {
  answers: {
    [k: string]: unknown;
  };
  follow_up: string;
  link: {
    [k: string]: string;
  };
  visitor: TrialVisitor;
}
/**
 * Grows with each change.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TurnReply".
 */
export interface TurnReply {
  turn: number;
}
/**
 * The same as they are typed in another.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TypedReply".
 */
export interface TypedReply {
  answers: {
    [k: string]: unknown;
  };
}
/**
 * Answers as they were typed in a `language`, by its code.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TypedRequest".
 */
export interface TypedRequest {
  answers: {
    [k: string]: unknown;
  };
  entry: string;
  language: string;
}
/**
 * Answers for a new trial, with what a link brings, and what comes out of them.
 *
 * `reached` is what no trial had tried and these do, `missed` what no answers were found for.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "UntriedReply".
 */
export interface UntriedReply {
  answers: {
    [k: string]: unknown;
  };
  link: {
    [k: string]: string;
  };
  missed: AimReply[];
  outcome: Expected;
  reached: AimReply[];
}
/**
 * A file was taken: `size` in bytes; `thumbnail` is the address of a small picture of it, where there is one.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "UploadReply".
 */
export interface UploadReply {
  id: string;
  name: string;
  size: number;
  thumbnail: string | null;
}
/**
 * What a view is: which of the four, its filter, the table's columns and order, the board, its charts.
 *
 * `charts` are pairs of a column and what it is compared by; `widths` are those of columns in pixels, `fixed` how
 * many of the first stay in sight. The funnel tells visits `apart` by something, of windows of a width, in a way of
 * presenting.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ViewContent".
 */
export interface ViewContent {
  apart: "width" | "edition" | "way" | "page" | "link";
  board_by: string;
  /**
   * @maxItems 6
   */
  cards:
    | []
    | [string]
    | [string, string]
    | [string, string, string]
    | [string, string, string, string]
    | [string, string, string, string, string]
    | [string, string, string, string, string, string];
  /**
   * @maxItems 40
   */
  charts: [unknown, unknown][];
  /**
   * @maxItems 400
   */
  columns: string[];
  filter: Filter;
  fixed: number;
  presentation: "" | "whole" | "paged" | "single" | "chat";
  shown: "table" | "charts" | "board" | "funnel";
  /**
   * @maxItems 4
   */
  sorts: [] | [string] | [string, string] | [string, string, string] | [string, string, string, string];
  widths: {
    [k: string]: number;
  };
  window: "" | "narrow" | "medium" | "wide";
}
/**
 * A view that is kept.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ViewReply".
 */
export interface ViewReply {
  content: ViewContent;
  id: string;
  made_by: string | null;
  name: string;
  opens_first: boolean;
}
/**
 * A view to keep, under a name that no other of the form has.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ViewRequest".
 */
export interface ViewRequest {
  content: ViewContent;
  name: string;
  opens_first: boolean;
}
/**
 * The views of a form, by name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ViewsReply".
 */
export interface ViewsReply {
  views: ViewReply[];
}
/**
 * How far a visit has come, for counting: see `services/visits.py`. Nothing in it says whose it is.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "VisitRequest".
 */
export interface VisitRequest {
  came: HowItCame;
  entry: string;
  field: string;
  place: string;
  seal: string;
  seconds: number;
  sent: boolean;
  started: boolean;
  steps: {
    [k: string]: number;
  };
  turn: number;
  visit: string;
  width: "narrow" | "medium" | "wide";
  /**
   * @maxItems 2000
   */
  wrong: string[];
}
/**
 * The address that somebody wants, and where it was confirmed; null where they want no other.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WantedAddressReply".
 */
export interface WantedAddressReply {
  email: string | null;
  new_confirmed: boolean;
  old_confirmed: boolean;
}
/**
 * What is set; `taken` responses count towards a limit, `kept` may be gone on with.
 *
 * `opens` and `closes` are moments with their offset.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WhoAndWhenReply".
 */
export interface WhoAndWhenReply {
  access: Access;
  closes: string;
  has_password: boolean;
  kept: number;
  opens: string;
  sharing: Sharing;
  taken: number;
}
/**
 * How the queue stands, the latest errands, and how mail is sent; the password for it is never told.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WorkingsReply".
 */
export interface WorkingsReply {
  errands: ErrandReply[];
  mail_from: string;
  mails_per_hour: string;
  queue: QueueReply;
  smtp_host: string;
  smtp_port: string;
  smtp_tls: string;
  smtp_user: string;
}
