// The workbench's only way to the server: typed, with the CSRF token, and with errors as sentences.
import type {
  AccountReply,
  AccountsReply,
  AllHeldReply,
  AskedReply,
  AskingReply,
  AuditReply,
  BatchesReply,
  BegunCodesReply,
  BegunReply,
  BinReply,
  BoardReply,
  BookingReply,
  Brand,
  BrandsReply,
  BrokenReply,
  BulkRequest,
  BulksReply,
  CalendarReply,
  CalendarsReply,
  CardsReply,
  ChangedRecordsReply,
  ChangesReply,
  ChartReply,
  ConditionReply,
  ConditionRows,
  ConfirmedAddressReply,
  CorrectedReply,
  CorrectionReply,
  CorrectionRequest,
  DecideRequest,
  DecisionReply,
  DecisionsReply,
  DeskReply,
  DeskView,
  Digest,
  DoneReply,
  DraftReply,
  EditionsReply,
  ErrorReply,
  ExceptionReply,
  ExceptionsReply,
  ExplanationsReply,
  ExportFilesReply,
  FactorsReply,
  FeedsReply,
  FollowUpsReply,
  ForgetPersonRequest,
  ForgottenReply,
  Form,
  FormReply,
  FoundPartsReply,
  FoundTranslationsReply,
  FunnelReply,
  GiveToRequest,
  GroupHangingReply,
  GroupMadeReply,
  GroupsReply,
  HangingReply,
  HindrancesReply,
  ImportRecordsRequest,
  ImportRequest,
  ImportsReply,
  InvitationLookReply,
  KeysReply,
  LanguageReply,
  LinkMailsReply,
  LinksPlanReply,
  ListReply,
  ListsReply,
  LookReply,
  MadeLinksReply,
  MadeReply,
  MadeTableReply,
  MarkedReply,
  MarkRequest,
  MembersInvitedReply,
  MoveRequest,
  NeighboursReply,
  NewCalendarRequest,
  NewKeyReply,
  NewKeyRequest,
  NoRehearsalReply,
  NumbersReply,
  NumbersRequest,
  OutcomeReply,
  OutlineReply,
  PasskeyOptionsReply,
  PaymentInFullReply,
  PaymentsReply,
  PeopleReply,
  PersonReply,
  PictureReply,
  PlanImportReply,
  PlanImportRequest,
  PlanRecordsReply,
  PlanRecordsRequest,
  PresenceReply,
  PublicAddressReply,
  PublishedReply,
  RecordHistoryReply,
  RecordNamedReply,
  RecordNamesReply,
  RecordNumbersReply,
  RecordReply,
  RecordsReply,
  RecoveryCodesReply,
  RehearsedDecisionRequest,
  RemovedRecordsReply,
  ReplayReply,
  ResponseReply,
  ResponsesReply,
  Retention,
  RollBegunReply,
  RollReply,
  RowsReply,
  RunInFullReply,
  RunsReply,
  SampleReply,
  SavedReply,
  SavedViewReply,
  SealedLinksReply,
  SealKeyReply,
  SecondFactorReply,
  SecretReply,
  SessionsReply,
  SharedOption,
  SheetReply,
  ShownSlotsReply,
  ShowSlotsRequest,
  SignedInReply,
  SitesReply,
  SlotsOfTableReply,
  SlotsOfTableRequest,
  StatesReply,
  StatusReply,
  TableImportsReply,
  TableOfFormReply,
  TableReply,
  TableRightsRequest,
  TablesReply,
  TakenOutReply,
  TasksReply,
  TeammateReply,
  TeamReply,
  TeamsReply,
  TemplatesReply,
  TestedReply,
  TotalsReply,
  TranslationsReply,
  TrialsReply,
  TrialVisitor,
  TriedResponseReply,
  TriedResponsesReply,
  TurnReply,
  TypedRecord,
  UntriedReply,
  ViewRequest,
  ViewsReply,
  WantedAddressReply,
  WhoAndWhenReply,
  WorkingsReply,
} from "./generated/wire";

/** The server said no; `message` is for people. `code` is "unreachable" where there was no server. */
/** What an address is asked, by name. */
export type Asked = Readonly<Record<string, string>>;

export class ApiError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly problems: ErrorReply["problems"] = [],
  ) {
    super(message);
  }
}

/** What was wrong, without the places in the document: for where these are seen. */
export function reasonOf(error: unknown): string {
  if (error instanceof ApiError && error.problems.length > 0)
    return error.problems.map(({ message }) => `${message}.`).join(" ");
  return error instanceof Error ? error.message : String(error);
}

const unreachable = () =>
  new ApiError("unreachable", "Codexa can't be reached just now. Your work stays here; we try again.");

let csrfToken = "";

/** How an export is written: for programs, with codes and plain numbers, or for people, with labels; and so on. */
export type ExportKind = "csv" | "xlsx" | "json" | "jsonl";

export interface CsvFashion {
  with: "codes" | "labels";
  separator: "comma" | "semicolon" | "tab";
  decimals: "point" | "comma";
  mark: "yes" | "no";
  tries: "yes" | "no";
}

/** Sealed links to be made of a table, its bytes in base64. */
export interface LinksAsked {
  table: string;
  name: string;
  columns: Readonly<Record<string, string>>;
  until: string;
  uses: number | null;
  email: string;
}

const paymentsOf = (form: string | null): string => (form === null ? "/payments" : `/forms/${form}/payments`);

const call = <Reply>(method: string, address: string, body?: unknown): Promise<Reply> =>
  body === undefined
    ? send<Reply>(method, address)
    : send<Reply>(method, address, JSON.stringify(body), "application/json");

async function send<Reply>(method: string, address: string, body?: BodyInit, type?: string): Promise<Reply> {
  let response: Response;
  try {
    response = await fetch(`/api${address}`, {
      method,
      headers: {
        ...(body === undefined ? {} : { "Content-Type": type || "application/octet-stream" }),
        ...(csrfToken ? { "X-CSRF-Token": csrfToken } : {}),
      },
      body,
    });
  } catch {
    throw unreachable();
  }
  if (response.status === 204) return undefined as Reply;
  // What can't be read was broken off on the way, or comes from something in between.
  const reply = (await response.json().catch(() => null)) as Reply | ErrorReply | null;
  if (reply === null) throw unreachable();
  if (response.ok) return reply as Reply;
  const { code, message, problems } = reply as ErrorReply;
  throw new ApiError(code, message, problems);
}

const remember = (who: SignedInReply): SignedInReply => {
  csrfToken = who.csrf_token;
  return who;
};

/** A list of options: its name, and what is in it. */
export interface SharedListDocument {
  name: string;
  options: readonly SharedOption[];
}

/** Answers to a draft: what came with the address, and who gives them. */
export interface Answered {
  answers: unknown;
  link?: Readonly<Record<string, string>>;
  visitor?: TrialVisitor;
}

export const api = {
  team: () => call<TeamReply>("GET", "/team"),
  invite: (email: string, role: TeammateReply["role"]) => call<undefined>("POST", "/team/invitations", { email, role }),
  takeInvitationBack: (invitation: string) => call<undefined>("DELETE", `/team/invitations/${invitation}`),
  setRole: (person: string, role: TeammateReply["role"]) =>
    call<undefined>("PUT", `/team/people/${person}/role`, { role }),
  hanging: (person: string) => call<HangingReply>("GET", `/team/people/${person}/hanging`),
  takeOut: (person: string, successor: string | null, bring: boolean) =>
    call<TakenOutReply>("POST", `/team/people/${person}/out`, { successor, bring }),
  exceptions: () => call<ExceptionsReply>("GET", "/team/exceptions"),
  setException: (exception: { form: string; person: string; role: ExceptionReply["role"] | null }) =>
    call<undefined>("PUT", "/team/exceptions", exception),
  hindrances: (form: string, team: string) => call<HindrancesReply>("GET", `/forms/${form}/moving/${team}`),
  moveForm: (form: string, team: string) => call<undefined>("POST", `/forms/${form}/moving`, { team }),
  goToOwnDesk: async () => remember(await call<SignedInReply>("POST", "/team/mine/desk")),
  lookAtInvitation: (token: string) => call<InvitationLookReply>("POST", "/team/invitation/look", { token }),
  join: async (token: string, name: string, password: string) =>
    remember(await call<SignedInReply>("POST", "/team/invitation/accept", { token, name, password })),
  groups: () => call<GroupsReply>("GET", "/team/groups"),
  makeGroup: (name: string) => call<GroupMadeReply>("POST", "/team/groups", { name }),
  nameGroup: (code: string, name: string) =>
    call<undefined>("PUT", `/team/groups/${encodeURIComponent(code)}`, { name }),
  groupHanging: (code: string) => call<GroupHangingReply>("GET", `/team/groups/${encodeURIComponent(code)}/hanging`),
  takeGroupAway: (code: string) => call<undefined>("DELETE", `/team/groups/${encodeURIComponent(code)}`),
  setInGroup: (code: string, person: string, inside: boolean) =>
    call<undefined>("PUT", `/team/groups/${encodeURIComponent(code)}/people/${person}`, { inside }),
  roll: () => call<RollReply>("GET", "/team/members"),
  beginRoll: () => call<RollBegunReply>("POST", "/team/members"),
  inviteMembers: (numbers: readonly number[]) =>
    call<MembersInvitedReply>("POST", "/team/members/invitations", { numbers }),
  audit: (asked: Record<string, string>) => call<AuditReply>("GET", `/team/audit?${new URLSearchParams(asked)}`),
  teams: () => call<TeamsReply>("GET", "/team/mine"),
  goToTeam: async (team: string) => remember(await call<SignedInReply>("POST", "/team/mine", { team })),
  sessions: () => call<SessionsReply>("GET", "/account/sessions"),
  endSession: (session: string) => call<undefined>("DELETE", `/account/sessions/${session}`),
  /** Null where nobody is. */
  whoIsSignedIn: async () => {
    const who = await call<SignedInReply | undefined>("GET", "/session");
    return who ? remember(who) : null;
  },
  /** Who is signed in then; null where a second factor is still to be shown. */
  signIn: async (email: string, password: string) => {
    const reply = await call<SignedInReply | SecondFactorReply>("POST", "/session", { email, password });
    return "second_factor" in reply ? null : remember(reply);
  },
  signInByCode: async (code: string) => remember(await call<SignedInReply>("POST", "/session/code", { code })),
  askPasskey: () => call<PasskeyOptionsReply>("POST", "/session/passkey/asked"),
  signInByPasskey: async (credential: Record<string, unknown>) =>
    remember(await call<SignedInReply>("POST", "/session/passkey", { credential })),
  setName: (name: string) => call<undefined>("PUT", "/account/name", { name }),
  factors: () => call<FactorsReply>("GET", "/account/factors"),
  beginCodes: (password: string, name: string) =>
    call<BegunCodesReply>("POST", "/account/factors/codes", { password, name }),
  confirmCodes: (factor: string, code: string) =>
    call<RecoveryCodesReply>("POST", `/account/factors/codes/${factor}`, { code }),
  beginPasskey: (password: string) =>
    call<PasskeyOptionsReply>("POST", "/account/factors/passkeys/asked", { password }),
  keepPasskey: (credential: Record<string, unknown>, name: string) =>
    call<RecoveryCodesReply>("POST", "/account/factors/passkeys", { credential, name }),
  takeFactorAway: (factor: string, password: string) =>
    call<undefined>("POST", `/account/factors/${factor}/away`, { password }),
  newRecoveryCodes: (password: string) => call<RecoveryCodesReply>("POST", "/account/factors/recovery", { password }),
  signOut: async () => {
    await call<undefined>("DELETE", "/session");
    csrfToken = "";
  },
  forms: () => call<DeskReply>("GET", "/forms"),
  makeForm: (name: string) => call<MadeReply>("POST", "/forms", { name }),
  makeFromTemplate: (template: string) => call<MadeReply>("POST", "/forms", { template }),
  makeFromOutline: (name: string, outline: string) => call<MadeReply>("POST", "/forms", { name, outline }),
  templates: () => call<TemplatesReply>("GET", "/forms/templates"),
  outline: (text: string) => call<OutlineReply>("POST", "/forms/outline", { text }),
  importForm: (document: unknown) => call<MadeReply>("POST", "/forms", { document }),
  duplicateForm: (form: string) => call<MadeReply>("POST", `/forms/${form}/copies`),
  deleteForm: (form: string) => call<undefined>("DELETE", `/forms/${form}`),
  bin: () => call<BinReply>("GET", "/forms/bin"),
  findParts: (words: string) => call<FoundPartsReply>("GET", `/forms/find?${new URLSearchParams({ words })}`),
  saveDeskView: (name: string, view: DeskView) => call<undefined>("PUT", "/forms/views", { name, view }),
  deleteDeskView: (name: string) => call<undefined>("DELETE", `/forms/views/${encodeURIComponent(name)}`),
  setLabels: (form: string, labels: readonly string[]) => call<undefined>("PUT", `/forms/${form}/labels`, { labels }),
  giveForm: (form: string, person: string) => call<undefined>("PUT", `/forms/${form}/owner`, { person }),
  restoreForm: (form: string) => call<undefined>("POST", `/forms/${form}/restore`),
  form: (form: string) => call<FormReply>("GET", `/forms/${form}`),
  saveDraft: (form: string, revision: number, draft: Form) =>
    call<SavedReply>("PUT", `/forms/${form}/draft`, { revision, draft }),
  rename: (form: string, draft: Form, part: string, setting: string, name: string) =>
    call<DraftReply>("POST", `/forms/${form}/draft/rename`, { draft, part, setting, name }),
  publish: (form: string, asked: { revision: number; live: number | null; note: string; despite_trials: boolean }) =>
    call<PublishedReply>("POST", `/forms/${form}/editions`, asked),
  goLive: (form: string, edition: number, live: number | null) =>
    call<PublishedReply>("POST", `/forms/${form}/editions/${edition}/live`, { live }),
  /** Some of the latest responses put through the draft, after a place that a reply named. */
  replay: (form: string, after: string) =>
    call<ReplayReply>("GET", `/forms/${form}/replay?${new URLSearchParams({ after })}`),
  access: (form: string) => call<WhoAndWhenReply>("GET", `/forms/${form}/access`),
  setAccess: (form: string, access: WhoAndWhenReply["access"]) =>
    call<WhoAndWhenReply>("PUT", `/forms/${form}/access`, { access }),
  setFormPassword: (form: string, password: string) =>
    call<WhoAndWhenReply>("PUT", `/forms/${form}/password`, { password }),
  setSharing: (form: string, sharing: WhoAndWhenReply["sharing"]) =>
    call<WhoAndWhenReply>("PUT", `/forms/${form}/sharing`, { sharing }),
  /** Whether a page of a website shows the form. */
  look: (form: string, page: string) => call<LookReply>("POST", `/forms/${form}/look`, { page }),
  planLinks: (form: string, asked: LinksAsked) => call<LinksPlanReply>("POST", `/forms/${form}/links/plan`, asked),
  makeLinks: (form: string, asked: LinksAsked) => call<MadeLinksReply>("POST", `/forms/${form}/links`, asked),
  linkBatches: (form: string) => call<BatchesReply>("GET", `/forms/${form}/links`),
  sealedLinks: (form: string, batch: number, after: number) =>
    call<SealedLinksReply>("GET", `/forms/${form}/links/${batch}?after=${after}`),
  linksAddress: (form: string, batch: number, kind: "csv" | "xlsx") => `/api/forms/${form}/links/${batch}.${kind}`,
  endLink: (form: string, link: number) => call<undefined>("DELETE", `/forms/${form}/links/one/${link}`),
  mailLinks: (form: string, batch: number, asked: { subject: string; words: string }) =>
    call<LinkMailsReply>("POST", `/forms/${form}/links/${batch}/mails`, asked),
  changeSealKey: (form: string, end_others: boolean) =>
    call<SealKeyReply>("POST", `/forms/${form}/links/key`, { end_others }),
  editions: (form: string) => call<EditionsReply>("GET", `/forms/${form}/editions`),
  /** Where a file of a response is downloaded from. */
  fileAddress: (form: string, file: string) => `/api/forms/${form}/files/${file}`,
  setAddress: (form: string, address: string) => call<PublicAddressReply>("PUT", `/forms/${form}/address`, { address }),
  /** What publishing would change for visitors. */
  changesToCome: (form: string) => call<ChangesReply>("GET", `/forms/${form}/changes`),
  setSites: (form: string, sites: string[]) => call<SitesReply>("PUT", `/forms/${form}/sites`, { sites }),
  /** A page of what is asked for: the first, or what comes after a place that a reply named. */
  responses: (form: string, asked: Asked) =>
    call<ResponsesReply>("GET", `/forms/${form}/responses?${new URLSearchParams(asked)}`),
  asking: (form: string) => call<AskingReply>("GET", `/forms/${form}/responses/asking`),
  totals: (form: string, asked: Asked) =>
    call<TotalsReply>("GET", `/forms/${form}/responses/totals?${new URLSearchParams(asked)}`),
  chart: (form: string, asked: Asked) =>
    call<ChartReply>("GET", `/forms/${form}/responses/chart?${new URLSearchParams(asked)}`),
  funnel: (form: string, asked: Asked) =>
    call<FunnelReply>("GET", `/forms/${form}/responses/funnel?${new URLSearchParams(asked)}`),
  board: (form: string, asked: Asked) =>
    call<BoardReply>("GET", `/forms/${form}/responses/board?${new URLSearchParams(asked)}`),
  turn: (form: string) => call<TurnReply>("GET", `/forms/${form}/responses/turn`),
  neighbours: (form: string, number: number, asked: Asked) =>
    call<NeighboursReply>("GET", `/forms/${form}/responses/${number}/neighbours?${new URLSearchParams(asked)}`),
  views: (form: string) => call<ViewsReply>("GET", `/forms/${form}/responses/views`),
  /** Keeps a view anew, or a new one where none is named. */
  saveView: (form: string, view: string, asked: ViewRequest) =>
    view
      ? call<SavedViewReply>("PUT", `/forms/${form}/responses/views/${view}`, asked)
      : call<SavedViewReply>("POST", `/forms/${form}/responses/views`, asked),
  deleteView: (form: string, view: string) => call<undefined>("DELETE", `/forms/${form}/responses/views/${view}`),
  setStatuses: (form: string, statuses: StatusReply[]) =>
    call<undefined>("PUT", `/forms/${form}/responses/statuses`, { statuses }),
  /** By a status or a choice. */
  moveResponse: (form: string, number: number, asked: MoveRequest) =>
    call<undefined>("POST", `/forms/${form}/responses/${number}/move`, asked),
  correction: (form: string, number: number) =>
    call<CorrectionReply>("GET", `/forms/${form}/responses/${number}/correction`),
  compareCorrection: (form: string, number: number, answers: Record<string, unknown>) =>
    call<CorrectedReply>("POST", `/forms/${form}/responses/${number}/correction/compare`, { answers }),
  saveCorrection: (form: string, number: number, asked: CorrectionRequest) =>
    call<CorrectedReply>("POST", `/forms/${form}/responses/${number}/correction`, asked),
  addNote: (form: string, number: number, note: string) =>
    call<undefined>("POST", `/forms/${form}/responses/${number}/notes`, { note }),
  removeResponses: (form: string, numbers: NumbersRequest["numbers"]) =>
    call<NumbersReply>("POST", `/forms/${form}/responses/remove`, { numbers }),
  bringBackResponses: (form: string, numbers: NumbersRequest["numbers"]) =>
    call<NumbersReply>("POST", `/forms/${form}/responses/bring-back`, { numbers }),
  markResponses: (form: string, asked: MarkRequest) =>
    call<MarkedReply>("POST", `/forms/${form}/responses/mark`, asked),
  /** Has something done to the responses of these numbers, or without them to all that is looked at. */
  beginBulk: (form: string, asked: Asked, does: BulkRequest) =>
    call<BegunReply>("POST", `/forms/${form}/responses/bulk?${new URLSearchParams(asked)}`, does),
  bulks: (form: string) => call<BulksReply>("GET", `/forms/${form}/responses/bulk`),
  stopBulk: (form: string, bulk: string) => call<undefined>("POST", `/forms/${form}/responses/bulk/${bulk}/stop`),
  undoBulk: (form: string, bulk: string) => call<BegunReply>("POST", `/forms/${form}/responses/bulk/${bulk}/undo`),
  retention: (form: string) => call<Retention>("GET", `/forms/${form}/responses/retention`),
  setRetention: (form: string, asked: Retention) => call<undefined>("PUT", `/forms/${form}/responses/retention`, asked),
  /** Has a file made of what is looked at, of any number. */
  makeExportFile: (form: string, kind: ExportKind, asked: Asked) =>
    call<BegunReply>("POST", `/forms/${form}/responses/exports?${new URLSearchParams({ ...asked, kind })}`),
  exportFiles: (form: string) => call<ExportFilesReply>("GET", `/forms/${form}/responses/exports`),
  exportFileAddress: (form: string, file: string) => `/api/forms/${form}/responses/exports/${file}`,
  deleteExportFile: (form: string, file: string) =>
    call<undefined>("DELETE", `/forms/${form}/responses/exports/${file}`),
  planImport: (form: string, asked: PlanImportRequest) =>
    call<PlanImportReply>("POST", `/forms/${form}/responses/import/plan`, asked),
  beginImport: (form: string, asked: ImportRequest) =>
    call<BegunReply>("POST", `/forms/${form}/responses/import`, asked),
  imports: (form: string) => call<ImportsReply>("GET", `/forms/${form}/responses/import`),
  stopImport: (form: string, table: string) => call<undefined>("POST", `/forms/${form}/responses/import/${table}/stop`),
  feeds: (form: string) => call<FeedsReply>("GET", `/forms/${form}/feeds`),
  makeFeed: (form: string, view: string) => call<BegunReply>("POST", `/forms/${form}/feeds`, { view }),
  endFeed: (form: string, feed: string) => call<undefined>("DELETE", `/forms/${form}/feeds/${feed}`),
  lists: () => call<ListsReply>("GET", "/lists"),
  list: (list: string) => call<ListReply>("GET", `/lists/${list}`),
  makeList: (document: Partial<SharedListDocument>) => call<MadeReply>("POST", "/lists", { document }),
  saveList: (list: string, revision: number, document: SharedListDocument) =>
    call<ListReply>("PUT", `/lists/${list}`, { revision, document }),
  deleteList: (list: string) => call<undefined>("DELETE", `/lists/${list}`),
  recordNames: (table: string) => call<RecordNamesReply>("GET", `/tables/${table}/names`),
  tables: () => call<TablesReply>("GET", "/tables"),
  makeTable: (definition: Record<string, unknown>) => call<MadeTableReply>("POST", "/tables", { definition }),
  formOfTable: (table: string) => call<MadeReply>("POST", `/tables/${table}/form`),
  tableOfForm: (form: string) => call<TableOfFormReply>("POST", `/tables/of-form/${form}`),
  table: (table: string) => call<TableReply>("GET", `/tables/${table}`),
  saveTable: (table: string, revision: number, definition: Record<string, unknown>) =>
    call<TableReply>("PUT", `/tables/${table}`, { revision, definition }),
  deleteTable: (table: string) => call<undefined>("DELETE", `/tables/${table}`),
  decisions: () => call<DecisionsReply>("GET", "/decisions"),
  tasks: () => call<TasksReply>("GET", "/decisions/tasks"),
  taskDone: (id: number, remark: string) => call<undefined>("POST", `/decisions/tasks/${id}`, { remark }),
  decision: (id: string) => call<DecisionReply>("GET", `/decisions/${id}`),
  decide: (id: string, said: DecideRequest) => call<DecisionReply>("POST", `/decisions/${id}`, said),
  rehearsal: (form: string) => call<NoRehearsalReply>("GET", `/forms/${form}/rehearsal`),
  beginRehearsal: (form: string) => call<undefined>("POST", `/forms/${form}/rehearsal`),
  endRehearsal: (form: string) => call<undefined>("DELETE", `/forms/${form}/rehearsal`),
  moveRehearsalOn: (form: string, days: number) => call<undefined>("POST", `/forms/${form}/rehearsal/clock`, { days }),
  decideRehearsed: (form: string, approval: string, said: RehearsedDecisionRequest) =>
    call<undefined>("POST", `/forms/${form}/rehearsal/approvals/${approval}`, said),
  rehearseAs: (form: string, known: string) => call<undefined>("PUT", `/forms/${form}/rehearsal/visitor`, { known }),
  rehearsedRun: (form: string, run: number) => call<RunInFullReply>("GET", `/forms/${form}/rehearsal/runs/${run}`),
  calendars: () => call<CalendarsReply>("GET", "/calendars"),
  addCalendar: (asked: NewCalendarRequest) => call<undefined>("POST", "/calendars", asked),
  tryCalendar: (id: string) => call<undefined>("POST", `/calendars/${id}/try`),
  removeCalendar: (id: string) => call<undefined>("DELETE", `/calendars/${id}`),
  giveTo: (form: string, number: number, asked: GiveToRequest) =>
    call<undefined>("POST", `/forms/${form}/responses/${number}/standing`, asked),
  bookingSheet: (form: string, asked: { block: string; day: string }) =>
    call<SheetReply>("GET", `/forms/${form}/bookings?${new URLSearchParams(asked)}`),
  calendarAddress: (form: string) => call<CalendarReply>("GET", `/forms/${form}/bookings/calendar`),
  changeCalendar: (form: string, open: boolean) =>
    call<CalendarReply>("POST", `/forms/${form}/bookings/calendar`, { open }),
  closeSlot: (form: string, name: string, closed: boolean) =>
    call<undefined>("POST", `/forms/${form}/bookings/closed`, { name, closed }),
  booking: (form: string, number: number, asked: { address: string; since: string }) =>
    call<BookingReply>("GET", `/forms/${form}/bookings/${number}?${new URLSearchParams(asked)}`),
  moveBooking: (form: string, number: number, address: string, code: string) =>
    call<BookingReply>("POST", `/forms/${form}/bookings/${number}/move`, { address, code }),
  cancelBooking: (form: string, number: number, because: string) =>
    call<BookingReply>("POST", `/forms/${form}/bookings/${number}/cancel`, { because }),
  shownSlots: (form: string, asked: ShowSlotsRequest) =>
    call<ShownSlotsReply>("POST", `/forms/${form}/slots/shown`, asked),
  slotsOfTable: (form: string, asked: SlotsOfTableRequest) =>
    call<SlotsOfTableReply>("POST", `/forms/${form}/slots/of-table`, asked),
  records: (table: string, asked: Record<string, string>) =>
    call<RecordsReply>("GET", `/tables/${table}/records?${new URLSearchParams(asked)}`),
  changeRecords: (table: string, changes: readonly TypedRecord[]) =>
    call<ChangedRecordsReply>("POST", `/tables/${table}/records`, { changes }),
  removeRecords: (table: string, numbers: readonly number[], way: "ask" | "empty" | "keep") =>
    call<RemovedRecordsReply>("POST", `/tables/${table}/records/remove`, { numbers, way }),
  addRecordFile: (table: string, number: number, column: string, file: File) =>
    send<RecordReply>(
      "POST",
      `/tables/${table}/records/${number}/files/${column}?${new URLSearchParams({ name: file.name })}`,
      file,
      file.type,
    ),
  takeRecordFile: (table: string, number: number, column: string, file: string) =>
    call<RecordReply>("DELETE", `/tables/${table}/records/${number}/files/${column}/${file}`),
  recordFileAddress: (table: string, file: string) => `/api/tables/${table}/files/${file}`,
  grantTable: (table: string, rights: TableRightsRequest) => call<TableReply>("PUT", `/tables/${table}/rights`, rights),
  publishRecords: (table: string, numbers: readonly number[], published: boolean) =>
    call<RecordNumbersReply>("POST", `/tables/${table}/records/publish`, { numbers, published }),
  offerRecords: (table: string, numbers: readonly number[], offered: boolean) =>
    call<RecordNumbersReply>("POST", `/tables/${table}/records/offer`, { numbers, offered }),
  recordNamed: (table: string, number: number) =>
    call<RecordNamedReply>("GET", `/tables/${table}/records/${number}/named`),
  bringBackRecords: (table: string, numbers: readonly number[]) =>
    call<RecordNumbersReply>("POST", `/tables/${table}/records/bring-back`, { numbers }),
  recordHistory: (table: string, number: number) =>
    call<RecordHistoryReply>("GET", `/tables/${table}/records/${number}/history`),
  tableOfFile: (name: string, file: string) => call<MadeTableReply>("POST", "/tables/from-file", { name, file }),
  planRecords: (table: string, asked: PlanRecordsRequest) =>
    call<PlanRecordsReply>("POST", `/tables/${table}/import/plan`, asked),
  importRecords: (table: string, asked: ImportRecordsRequest) =>
    call<BegunReply>("POST", `/tables/${table}/import`, asked),
  tableImports: (table: string) => call<TableImportsReply>("GET", `/tables/${table}/import`),
  stopRecords: (table: string, file: string) => call<undefined>("POST", `/tables/${table}/import/${file}/stop`),
  recordsAddress: (table: string, kind: "csv" | "xlsx", chosen: Readonly<Record<string, string>> = {}) =>
    `/api/tables/${table}/records.${kind}?${new URLSearchParams(chosen)}`,
  findPerson: (email: string) => call<PersonReply>("POST", "/person/find", { email }),
  exportPerson: (email: string) => call<Record<string, unknown>>("POST", "/person/export", { email }),
  forgetPerson: (asked: ForgetPersonRequest) => call<ForgottenReply>("POST", "/person/forget", asked),
  language: () => call<LanguageReply>("GET", "/account/language"),
  setLanguage: (language: string) => call<undefined>("PUT", "/account/language", { language }),
  digest: () => call<Digest>("GET", "/account/digest"),
  setDigest: (every: Digest["every"]) => call<undefined>("PUT", "/account/digest", { every }),
  keys: () => call<KeysReply>("GET", "/keys"),
  makeKey: (asked: NewKeyRequest) => call<NewKeyReply>("POST", "/keys", asked),
  endKey: (key: string) => call<undefined>("DELETE", `/keys/${key}`),
  response: (form: string, number: number) => call<ResponseReply>("GET", `/forms/${form}/responses/${number}`),
  held: (form: string) => call<AllHeldReply>("GET", `/forms/${form}/responses/held`),
  letThrough: (form: string, number: number) =>
    call<undefined>("POST", `/forms/${form}/responses/${number}/let-through`),
  bringBackHeld: (form: string, number: number) => call<undefined>("POST", `/forms/${form}/responses/${number}/held`),
  removeHeld: (form: string, number: number) => call<undefined>("DELETE", `/forms/${form}/responses/${number}/held`),
  explainResponse: (form: string, number: number, part: string) =>
    call<ExplanationsReply>("GET", `/forms/${form}/responses/${number}/why/${part}`),
  explain: (form: string, asked: Answered & { part: string }) =>
    call<ExplanationsReply>("POST", `/forms/${form}/preview/explain`, asked),
  sample: (form: string, seed: number) => call<SampleReply>("POST", `/forms/${form}/preview/sample`, { seed }),
  outcome: (form: string, { answers, link = {}, day = null, visitor }: Answered & { day?: string | null }) =>
    call<OutcomeReply>("POST", `/forms/${form}/preview/outcome`, { answers, link, day, visitor }),
  wouldFollow: (form: string, asked: Answered) =>
    call<FollowUpsReply>("POST", `/forms/${form}/preview/follow-ups`, asked),
  tryFollowUp: (form: string, asked: Answered & { follow_up: string }) =>
    call<undefined>("POST", `/forms/${form}/follow-ups/try`, asked),
  webhookSecret: (form: string) => call<SecretReply>("GET", `/forms/${form}/follow-ups/secret`),
  runs: (form: string, number: number) => call<RunsReply>("GET", `/forms/${form}/responses/${number}/runs`),
  openRuns: (form: string) => call<RunsReply>("GET", `/forms/${form}/runs`),
  runInFull: (form: string, run: number) => call<RunInFullReply>("GET", `/forms/${form}/runs/${run}`),
  runAgain: (form: string, run: number) => call<undefined>("POST", `/forms/${form}/runs/${run}/again`),
  untried: (form: string, seed: number) => call<UntriedReply>("POST", `/forms/${form}/preview/untried`, { seed }),
  whatBroke: (form: string, trial: string) => call<BrokenReply>("GET", `/forms/${form}/preview/trials/${trial}/broken`),
  trials: (form: string) => call<TrialsReply>("GET", `/forms/${form}/preview/trials`),
  triedResponse: (form: string, number: number) =>
    call<TriedResponseReply>("GET", `/forms/${form}/preview/responses/${number}`),
  triedResponses: (form: string) => call<TriedResponsesReply>("GET", `/forms/${form}/preview/responses`),
  rows: (formula: string) => call<RowsReply>("POST", "/conditions/rows", { formula }),
  condition: (rows: ConditionRows) => call<ConditionReply>("POST", "/conditions/formula", { rows }),
  states: (form: string, before: number | null) =>
    call<StatesReply>("GET", `/forms/${form}/states${before === null ? "" : `?before=${before}`}`),
  state: (form: string, revision: number) => call<DraftReply>("GET", `/forms/${form}/states/${revision}`),
  nameState: (form: string, revision: number, name: string) =>
    call<undefined>("PUT", `/forms/${form}/states/${revision}/name`, { name }),
  stateAsText: (form: string, revision: number, against: number | null) =>
    `/api/forms/${form}/states/${revision}/text${against === null ? "" : `?against=${against}`}`,
  changes: (form: string, before: number, after: number) =>
    call<ChangesReply>("GET", `/forms/${form}/states/${before}/changes/${after}`),
  presence: (form: string, here: { tab: string; area: string; part: string | null }) =>
    call<PresenceReply>("POST", `/forms/${form}/presence`, here),
  leave: (form: string, tab: string) => call<undefined>("POST", `/forms/${form}/presence/end`, { tab }),
  accounts: () => call<AccountsReply>("GET", "/accounts"),
  practiceCards: () => call<CardsReply>("GET", "/accounts/practice/cards"),
  addAccount: (secret: string) => call<AccountReply>("POST", "/accounts", { secret }),
  testAccount: (account: string) => call<TestedReply>("POST", `/accounts/${account}/test`),
  removeAccount: (account: string) => call<null>("DELETE", `/accounts/${account}`),
  /** Payments of a form, or of all forms for null. */
  payments: (form: string | null, state: string, find: string) =>
    call<PaymentsReply>("GET", `${paymentsOf(form)}?${new URLSearchParams({ state, find })}`),
  paymentsAddress: (form: string | null) => `/api${paymentsOf(form)}.csv`,
  payment: (form: string, number: number) => call<PaymentInFullReply>("GET", `${paymentsOf(form)}/${number}`),
  refund: (form: string, number: number, turn: number, amount: string) =>
    call<DoneReply>("POST", `${paymentsOf(form)}/${number}/refunds`, { amount, turn }),
  stopPlan: (form: string, number: number) => call<DoneReply>("POST", `${paymentsOf(form)}/${number}/stop`),
  chargeAgain: (form: string, number: number, turn: number) =>
    call<DoneReply>("POST", `${paymentsOf(form)}/${number}/charges/${turn}/again`),
  people: () => call<PeopleReply>("GET", "/people"),
  workings: () => call<WorkingsReply>("GET", "/workings"),
  testMail: () => call<AskedReply>("POST", "/workings/test-mail"),
  askForLink: (email: string) => call<undefined>("POST", "/account/link", { email }),
  setPasswordByLink: (token: string, password: string) =>
    call<undefined>("POST", "/account/password/by-link", { token, password }),
  changePassword: (old: string, next: string) => call<undefined>("POST", "/account/password", { old, new: next }),
  wantedAddress: () => call<WantedAddressReply>("GET", "/account/address"),
  askAddress: (email: string, password: string) => call<undefined>("POST", "/account/address", { email, password }),
  confirmAddress: (token: string) => call<ConfirmedAddressReply>("POST", "/account/address/confirm", { token }),
  /** A draft's languages, and its texts in one of them. */
  translations: (form: string, language: string) =>
    call<TranslationsReply>("GET", `/forms/${form}/translations?language=${language}`),
  readTranslations: (form: string, locale: string, file: string) =>
    call<FoundTranslationsReply>("POST", `/forms/${form}/translations/file`, { locale, file }),
  translationsFile: (form: string, language: string, kind: "xlf" | "csv") =>
    `/api/forms/${form}/translations/texts.${kind}?language=${language}`,
  brands: () => call<BrandsReply>("GET", "/brands"),
  saveBrand: (name: string, look: Brand) => call<MadeReply>("POST", "/brands", { name, look }),
  changeBrand: (brand: string, look: Brand) => call<undefined>("PUT", `/brands/${brand}`, { look }),
  deleteBrand: (brand: string) => call<undefined>("DELETE", `/brands/${brand}`),
  uploadPicture: (file: File) =>
    send<PictureReply>("POST", `/pictures?name=${encodeURIComponent(file.name)}`, file, file.type),
  /** A response as PDF. */
  pdfAddress: (form: string, number: number, plain = false) =>
    `/api/forms/${form}/responses/${number}/pdf${plain ? "?plain=yes" : ""}`,
  sheetAddress: (form: string, number: number) => `/api/forms/${form}/responses/${number}/sheet`,
  exportAddress: (form: string, kind: ExportKind, asked: Asked) =>
    `/api/forms/${form}/responses.${kind}?${new URLSearchParams(asked)}`,
};
