// Server state as query hooks; nothing of it is copied into the draft.
import { queryOptions } from "@tanstack/react-query";
import { type Answered, api, type Asked } from "./client";

export const queries = {
  session: () => queryOptions({ queryKey: ["session"], queryFn: api.whoIsSignedIn, retry: false, staleTime: Infinity }),
  forms: () => queryOptions({ queryKey: ["forms"], queryFn: api.forms }),
  bin: () => queryOptions({ queryKey: ["forms", "bin"], queryFn: api.bin }),
  form: (form: string) =>
    queryOptions({ queryKey: ["form", form], queryFn: () => api.form(form), gcTime: 0, staleTime: Infinity }),
  editions: (form: string) => queryOptions({ queryKey: ["editions", form], queryFn: () => api.editions(form) }),
  access: (form: string) => queryOptions({ queryKey: ["access", form], queryFn: () => api.access(form) }),
  linkBatches: (form: string) =>
    queryOptions({
      queryKey: ["links", form],
      queryFn: () => api.linkBatches(form),
      // While some are being sent, it is looked at again.
      refetchInterval: 10_000,
    }),
  translations: (form: string, language: string, revision: number) =>
    queryOptions({
      queryKey: ["translations", form, language, revision],
      queryFn: () => api.translations(form, language),
      // What another language reads stands in no row of this one.
      placeholderData: (previous, query) => (query?.queryKey[2] === language ? previous : undefined),
    }),
  templates: () => queryOptions({ queryKey: ["templates"], queryFn: api.templates, staleTime: Infinity }),
  brands: () => queryOptions({ queryKey: ["brands"], queryFn: api.brands }),
  trials: (form: string, revision: number) =>
    queryOptions({
      queryKey: ["trials", form, revision],
      queryFn: () => api.trials(form),
      placeholderData: (previous) => previous,
    }),
  /** What comes out of answers to the saved draft, on a day or now. */
  outcome: (
    form: string,
    revision: number,
    { answers, link, day = null, visitor }: Answered & { day?: string | null },
  ) =>
    queryOptions({
      queryKey: ["outcome", form, revision, answers, link, day, visitor],
      queryFn: () => api.outcome(form, { answers, link, day, visitor }),
      // What was asked for by pressing the tab of an area is not asked for again by the area.
      staleTime: 1_000,
      retry: false,
    }),
  /** What sample answers to the saved draft give. */
  sampleOutcome: (form: string, revision: number) =>
    queryOptions({
      queryKey: ["sample", form, revision],
      queryFn: async () => api.outcome(form, { answers: (await api.sample(form, 1)).answers }),
      placeholderData: (previous) => previous,
      retry: false,
    }),
  triedResponses: (form: string, revision: number) =>
    queryOptions({ queryKey: ["tried", form, revision], queryFn: () => api.triedResponses(form) }),
  responses: (form: string, asked: Asked) =>
    queryOptions({
      queryKey: ["responses", form, "page", asked],
      queryFn: () => api.responses(form, asked),
      // While responses are still being read in, it is looked at again.
      refetchInterval: ({ state }) => (state.data && state.data.behind > 0 ? 3_000 : false),
    }),
  asking: (form: string) => queryOptions({ queryKey: ["asking", form], queryFn: () => api.asking(form) }),
  totals: (form: string, asked: Asked) =>
    queryOptions({
      queryKey: ["responses", form, "totals", asked],
      queryFn: () => api.totals(form, asked),
      retry: false,
    }),
  chart: (form: string, asked: Asked) =>
    queryOptions({
      queryKey: ["responses", form, "chart", asked],
      queryFn: () => api.chart(form, asked),
      retry: false,
    }),
  funnel: (form: string, asked: Asked) =>
    queryOptions({
      queryKey: ["funnel", form, asked],
      queryFn: () => api.funnel(form, asked),
      retry: false,
    }),
  board: (form: string, asked: Asked) =>
    queryOptions({
      queryKey: ["responses", form, "board", asked],
      queryFn: () => api.board(form, asked),
      retry: false,
    }),
  turn: (form: string) => queryOptions({ queryKey: ["turn", form], queryFn: () => api.turn(form) }),
  neighbours: (form: string, number: number, asked: Asked) =>
    queryOptions({
      queryKey: ["responses", form, "neighbours", number, asked],
      queryFn: () => api.neighbours(form, number, asked),
      retry: false,
    }),
  views: (form: string) => queryOptions({ queryKey: ["views", form], queryFn: () => api.views(form) }),
  held: (form: string) => queryOptions({ queryKey: ["held", form], queryFn: () => api.held(form) }),
  response: (form: string, number: number) =>
    queryOptions({ queryKey: ["response", form, number], queryFn: () => api.response(form, number) }),
  /** Looked at again as long as anything is being done. */
  bulks: (form: string) =>
    queryOptions({
      queryKey: ["bulks", form],
      queryFn: () => api.bulks(form),
      refetchInterval: ({ state }) => (state.data?.bulks.some((each) => each.state === "waiting") ? 1_000 : false),
    }),
  /** Looked at again as long as a file is being made. */
  exportFiles: (form: string) =>
    queryOptions({
      queryKey: ["export files", form],
      queryFn: () => api.exportFiles(form),
      refetchInterval: ({ state }) => (state.data?.files.some((each) => each.state === "waiting") ? 1_000 : false),
    }),
  /** Looked at again as long as a table is being taken in. */
  imports: (form: string) =>
    queryOptions({
      queryKey: ["imports", form],
      queryFn: () => api.imports(form),
      refetchInterval: ({ state }) => (state.data?.imports.some((each) => each.state === "waiting") ? 1_000 : false),
    }),
  feeds: (form: string) => queryOptions({ queryKey: ["feeds", form], queryFn: () => api.feeds(form) }),
  language: () => queryOptions({ queryKey: ["language"], queryFn: () => api.language() }),
  digest: () => queryOptions({ queryKey: ["digest"], queryFn: () => api.digest() }),
  team: () => queryOptions({ queryKey: ["team"], queryFn: () => api.team() }),
  exceptions: () => queryOptions({ queryKey: ["exceptions"], queryFn: () => api.exceptions() }),
  hindrances: (form: string, team: string) =>
    queryOptions({ queryKey: ["hindrances", form, team], queryFn: () => api.hindrances(form, team) }),
  hanging: (person: string) => queryOptions({ queryKey: ["hanging", person], queryFn: () => api.hanging(person) }),
  rehearsal: (form: string) => queryOptions({ queryKey: ["rehearsal", form], queryFn: () => api.rehearsal(form) }),
  rehearsedRun: (form: string, run: number) =>
    queryOptions({ queryKey: ["rehearsal", form, "run", run], queryFn: () => api.rehearsedRun(form, run) }),
  calendars: () => queryOptions({ queryKey: ["calendars"], queryFn: () => api.calendars() }),
  groups: () => queryOptions({ queryKey: ["groups"], queryFn: () => api.groups() }),
  groupHanging: (code: string) =>
    queryOptions({ queryKey: ["group hanging", code], queryFn: () => api.groupHanging(code) }),
  roll: () => queryOptions({ queryKey: ["roll"], queryFn: () => api.roll() }),
  audit: (asked: Record<string, string>) =>
    queryOptions({ queryKey: ["audit", asked], queryFn: () => api.audit(asked) }),
  teams: () => queryOptions({ queryKey: ["teams"], queryFn: () => api.teams() }),
  factors: () => queryOptions({ queryKey: ["factors"], queryFn: () => api.factors() }),
  sessions: () => queryOptions({ queryKey: ["sessions"], queryFn: () => api.sessions() }),
  lists: () => queryOptions({ queryKey: ["lists"], queryFn: () => api.lists() }),
  list: (list: string) => queryOptions({ queryKey: ["list", list], queryFn: () => api.list(list) }),
  decisions: () => queryOptions({ queryKey: ["decisions"], queryFn: () => api.decisions() }),
  tasks: () => queryOptions({ queryKey: ["tasks"], queryFn: () => api.tasks() }),
  decision: (id: string) => queryOptions({ queryKey: ["decision", id], queryFn: () => api.decision(id) }),
  tables: () => queryOptions({ queryKey: ["tables"], queryFn: () => api.tables() }),
  table: (table: string) => queryOptions({ queryKey: ["table", table], queryFn: () => api.table(table) }),
  records: (table: string, asked: Record<string, string>) =>
    queryOptions({ queryKey: ["records", table, asked], queryFn: () => api.records(table, asked) }),
  tableImports: (table: string) =>
    queryOptions({
      queryKey: ["table's imports", table],
      queryFn: () => api.tableImports(table),
      refetchInterval: ({ state }) => (state.data?.imports.some((each) => each.state === "waiting") ? 1_000 : false),
    }),
  recordHistory: (table: string, number: number) =>
    queryOptions({ queryKey: ["record history", table, number], queryFn: () => api.recordHistory(table, number) }),
  recordNamed: (table: string, number: number) =>
    queryOptions({ queryKey: ["record named", table, number], queryFn: () => api.recordNamed(table, number) }),
  keys: () => queryOptions({ queryKey: ["keys"], queryFn: () => api.keys() }),
  retention: (form: string) => queryOptions({ queryKey: ["retention", form], queryFn: () => api.retention(form) }),
  correction: (form: string, number: number) =>
    queryOptions({ queryKey: ["correction", form, number], queryFn: () => api.correction(form, number) }),
  runs: (form: string, number: number) =>
    queryOptions({
      queryKey: ["runs", form, number],
      queryFn: () => api.runs(form, number),
      // Until all of it has ended, it is looked at again.
      refetchInterval: ({ state }) => (state.data?.runs.some((run) => run.state === "waiting") ? 2_000 : false),
    }),
  runInFull: (form: string, run: number) =>
    queryOptions({ queryKey: ["run", form, run], queryFn: () => api.runInFull(form, run) }),
  accounts: () => queryOptions({ queryKey: ["accounts"], queryFn: api.accounts }),
  practiceCards: () => queryOptions({ queryKey: ["practice cards"], queryFn: api.practiceCards, staleTime: Infinity }),
  payments: (form: string | null, state: string, find: string) =>
    queryOptions({
      queryKey: ["payments", form, state, find],
      queryFn: () => api.payments(form, state, find),
      placeholderData: (previous) => previous,
    }),
  payment: (form: string, number: number) =>
    queryOptions({
      queryKey: ["payments", form, "in full", number],
      queryFn: () => api.payment(form, number),
      refetchInterval: 15_000,
    }),
  people: () => queryOptions({ queryKey: ["people"], queryFn: api.people }),
  wantedAddress: () => queryOptions({ queryKey: ["wanted address"], queryFn: api.wantedAddress }),
  workings: () => queryOptions({ queryKey: ["workings"], queryFn: api.workings, refetchInterval: 2_000 }),
  openRuns: (form: string) =>
    queryOptions({ queryKey: ["open runs", form], queryFn: () => api.openRuns(form), refetchInterval: 10_000 }),
  responseExplained: (form: string, number: number, part: string) =>
    queryOptions({
      queryKey: ["why of response", form, number, part],
      queryFn: () => api.explainResponse(form, number, part),
      retry: false,
    }),
};
