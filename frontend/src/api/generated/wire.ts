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

export interface Wire {
  [k: string]: unknown;
}
/**
 * What the core says of a draft.
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
 * What a block's formulas read and whose formulas read it; block ids in the order of the outline.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Links".
 */
export interface Links {
  read_by: string[];
  reads: string[];
}
/**
 * A sentence about one fact of a block; `setting` is what an editor opens on.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Note".
 */
export interface Note {
  kind: NoteKind;
  setting: string;
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
 * What is true of every block now, by id.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FormState".
 */
export interface FormState {
  blocks: {
    [k: string]: BlockState;
  };
}
/**
 * What is true of a block now; `value` only for calculated fields.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BlockState".
 */
export interface BlockState {
  error: ErrorFace | null;
  required: boolean;
  shown: boolean;
  value: string | null;
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
 * How the form looks: the colour of buttons, choices and the banner.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Brand".
 */
export interface Brand {
  accent: string;
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
  width: "full" | "half" | "third";
}
/**
 * The result of `formula`, shown as a number, money in the form's currency, text or a date.
 *
 * Money is rounded to the currency's minor unit (ISO 4217) where it is worked out; a number is shown with so many
 * `decimals`, and kept exactly.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "CalculatedField".
 */
export interface CalculatedField {
  decimals: number;
  format: "number" | "money" | "text" | "date";
  formula: string;
  help: string;
  id: string;
  key: string;
  label: string;
  required: string;
  shown: string;
  type: "calculated";
  width: "full" | "half" | "third";
}
/**
 * A field as a column of the responses; `number` is its outline number, "" where it is gone.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ColumnReply".
 */
export interface ColumnReply {
  calculated: boolean;
  id: string;
  label: string;
  number: string;
  numeric: boolean;
}
/**
 * The team's forms, latest change first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DeskReply".
 */
export interface DeskReply {
  forms: FormRowReply[];
}
/**
 * A form on the desk.
 *
 * `changed` says that the draft differs from the live edition; `days` are the responses of each of the last 14 days,
 * today last.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FormRowReply".
 */
export interface FormRowReply {
  changed: boolean;
  changed_at: string;
  changed_by: string | null;
  days: number[];
  id: string;
  live_edition: number | null;
  name: string;
  responses: number;
  revision: number;
  slug: string;
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
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Form".
 */
export interface Form {
  brand: Brand;
  currency: string;
  format: 1;
  lead: string;
  locale: string;
  name: string;
  pages: Page[];
  time_zone: string;
  title: string;
  wording: Wording;
}
/**
 * A page: its title for visitors and its blocks in order.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Page".
 */
export interface Page {
  blocks: (ShortTextField | EmailField | NumberField | CalculatedField | SingleChoiceField | HeadingBlock)[];
  id: string;
  title: string;
}
/**
 * One line of text; `max_length` in characters.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ShortTextField".
 */
export interface ShortTextField {
  help: string;
  id: string;
  key: string;
  label: string;
  max_length: number | null;
  placeholder: string;
  required: string;
  shown: string;
  type: "short_text";
  width: "full" | "half" | "third";
}
/**
 * One e-mail address (RFC 5321, internationalised by RFC 6531).
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "EmailField".
 */
export interface EmailField {
  help: string;
  id: string;
  key: string;
  label: string;
  placeholder: string;
  required: string;
  shown: string;
  type: "email";
  width: "full" | "half" | "third";
}
/**
 * A number from `minimum` to `maximum`, both included, with at most so many `decimals`.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NumberField".
 */
export interface NumberField {
  decimals: number;
  help: string;
  id: string;
  key: string;
  label: string;
  maximum: string | null;
  minimum: string | null;
  placeholder: string;
  required: string;
  shown: string;
  type: "number";
  unit: string;
  width: "full" | "half" | "third";
}
/**
 * One of the options, all of them in sight.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SingleChoiceField".
 */
export interface SingleChoiceField {
  arrangement: "row" | "column";
  help: string;
  id: string;
  key: string;
  label: string;
  options: Option[];
  required: string;
  shown: string;
  type: "single_choice";
  width: "full" | "half" | "third";
}
/**
 * An option: its stable code, which formulas and exports use, and the number that it counts as.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Option".
 */
export interface Option {
  code: string;
  counts_as: string;
  id: string;
  label: string;
}
/**
 * A heading with an optional line below it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "HeadingBlock".
 */
export interface HeadingBlock {
  id: string;
  key: string;
  lead: string;
  shown: string;
  text: string;
  type: "heading";
  width: "full" | "half" | "third";
}
/**
 * What the form itself says to visitors.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Wording".
 */
export interface Wording {
  confirmation_text: string;
  confirmation_title: string;
  required: string;
  submit: string;
}
/**
 * An edition of a form.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "EditionReply".
 */
export interface EditionReply {
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
  width: "full" | "half" | "third";
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
 * What the visitor has entered, by block id; `turn` is handed back, so that late replies are known.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "EvaluateRequest".
 */
export interface EvaluateRequest {
  answers: {
    [k: string]: unknown;
  };
  turn: number;
}
/**
 * A form as visitors see it. `asks` are the fields after whose change the browser asks for the new state.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FormFace".
 */
export interface FormFace {
  asks: string[];
  brand: Brand;
  lead: string;
  locale: string;
  pages: PageFace[];
  title: string;
  wording: Wording;
}
/**
 * A page as visitors see it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PageFace".
 */
export interface PageFace {
  blocks: (ShortTextFace | EmailFace | NumberFace | CalculatedFace | SingleChoiceFace | HeadingFace)[];
  id: string;
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
  width: "full" | "half" | "third";
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
  width: "full" | "half" | "third";
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
  options: OptionFace[];
  type: "single_choice";
  width: "full" | "half" | "third";
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
 * What the browser may know of a heading: all that it says.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "HeadingFace".
 */
export interface HeadingFace {
  id: string;
  lead: string;
  text: string;
  type: "heading";
  width: "full" | "half" | "third";
}
/**
 * A form in the workbench; `changes` counts what differs from the live edition.
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
  responses: number;
  revision: number;
  sites: string[];
  slug: string;
  snippet: string;
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
 * A request or reply; unknown keys are refused.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Message".
 */
export interface Message {}
/**
 * A blank form of that name, or the form of a JSON document.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "NewFormRequest".
 */
export interface NewFormRequest {
  document: {
    [k: string]: unknown;
  } | null;
  name: string;
}
/**
 * What the page of a public form carries: where to ask, what to show, and the first state.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PublicPage".
 */
export interface PublicPage {
  edition: number;
  face: FormFace;
  form: string;
  framed: boolean;
  state: FormState;
}
/**
 * Publish this revision of the draft.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PublishRequest".
 */
export interface PublishRequest {
  revision: number;
}
/**
 * The edition that visitors get from now on.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "PublishedReply".
 */
export interface PublishedReply {
  address: string;
  edition: number;
  snippet: string;
}
/**
 * The response was kept under this number.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ReceivedReply".
 */
export interface ReceivedReply {
  number: number;
}
/**
 * The response was not kept: what is wrong, by block id.
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
}
/**
 * A draft and the key that one of its blocks shall have.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RenameKeyRequest".
 */
export interface RenameKeyRequest {
  block: string;
  draft: {
    [k: string]: unknown;
  };
  key: string;
}
/**
 * One response.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ResponseReply".
 */
export interface ResponseReply {
  columns: ColumnReply[];
  row: RowReply;
}
/**
 * A response as a row; `cells` holds text by column id, nothing for a blank.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "RowReply".
 */
export interface RowReply {
  cells: {
    [k: string]: string;
  };
  edition: number;
  number: number;
  received_at: string;
}
/**
 * A page of responses, newest first.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ResponsesReply".
 */
export interface ResponsesReply {
  columns: ColumnReply[];
  count: number;
  rows: RowReply[];
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
 * The draft was kept; `changes` counts what differs from the live edition.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SavedReply".
 */
export interface SavedReply {
  analysis: AnalysisReply;
  changed_at: string;
  changes: number;
  revision: number;
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
  person_name: string;
  role: string;
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
 * What the visitor hands in, by block id.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SubmitRequest".
 */
export interface SubmitRequest {
  answers: {
    [k: string]: unknown;
  };
}
