// The workbench's only way to the server: typed, with the CSRF token, and with errors as sentences.
import type {
  DeskReply,
  DraftReply,
  EditionsReply,
  ErrorReply,
  ExplanationReply,
  Form,
  FormReply,
  MadeReply,
  PublishedReply,
  ResponseReply,
  ResponsesReply,
  SampleReply,
  SavedReply,
  SignedInReply,
  SitesReply,
} from "./generated/wire";

/** The server said no; `message` is for people. `code` is "unreachable" where there was no server. */
export class ApiError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly problems: ErrorReply["problems"] = [],
  ) {
    super(message);
  }
}

let csrfToken = "";

async function call<Reply>(method: string, address: string, body?: unknown): Promise<Reply> {
  let response: Response;
  try {
    response = await fetch(`/api${address}`, {
      method,
      headers: {
        ...(body === undefined ? {} : { "Content-Type": "application/json" }),
        ...(csrfToken ? { "X-CSRF-Token": csrfToken } : {}),
      },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  } catch {
    throw new ApiError("unreachable", "Codexa can't be reached just now. Your work stays here; we try again.");
  }
  if (response.status === 204) return undefined as Reply;
  const reply: unknown = await response.json().catch(() => null);
  if (!response.ok) {
    const error = (reply ?? {
      code: "unexpected",
      message: "The server gave no readable reply. Try again.",
    }) as ErrorReply;
    throw new ApiError(error.code, error.message, error.problems);
  }
  return reply as Reply;
}

const remember = (who: SignedInReply): SignedInReply => {
  csrfToken = who.csrf_token;
  return who;
};

export const api = {
  /** Null where nobody is. */
  whoIsSignedIn: async () => {
    const who = await call<SignedInReply | undefined>("GET", "/session");
    return who ? remember(who) : null;
  },
  signIn: async (email: string, password: string) =>
    remember(await call<SignedInReply>("POST", "/session", { email, password })),
  signOut: async () => {
    await call<undefined>("DELETE", "/session");
    csrfToken = "";
  },
  forms: () => call<DeskReply>("GET", "/forms"),
  makeForm: (name: string) => call<MadeReply>("POST", "/forms", { name }),
  importForm: (document: unknown) => call<MadeReply>("POST", "/forms", { document }),
  duplicateForm: (form: string) => call<MadeReply>("POST", `/forms/${form}/copies`),
  deleteForm: (form: string) => call<undefined>("DELETE", `/forms/${form}`),
  restoreForm: (form: string) => call<undefined>("POST", `/forms/${form}/restore`),
  form: (form: string) => call<FormReply>("GET", `/forms/${form}`),
  saveDraft: (form: string, revision: number, draft: Form) =>
    call<SavedReply>("PUT", `/forms/${form}/draft`, { revision, draft }),
  renameKey: (form: string, draft: Form, block: string, key: string) =>
    call<DraftReply>("POST", `/forms/${form}/draft/rename-key`, { draft, block, key }),
  publish: (form: string, revision: number) => call<PublishedReply>("POST", `/forms/${form}/editions`, { revision }),
  editions: (form: string) => call<EditionsReply>("GET", `/forms/${form}/editions`),
  setSites: (form: string, sites: string[]) => call<SitesReply>("PUT", `/forms/${form}/sites`, { sites }),
  responses: (form: string, limit: number, offset: number) =>
    call<ResponsesReply>("GET", `/forms/${form}/responses?limit=${limit}&offset=${offset}`),
  response: (form: string, number: number) => call<ResponseReply>("GET", `/forms/${form}/responses/${number}`),
  explain: (form: string, answers: unknown, fact: string) =>
    call<ExplanationReply>("POST", `/forms/${form}/preview/explain`, { answers, fact }),
  sample: (form: string, seed: number) => call<SampleReply>("POST", `/forms/${form}/preview/sample`, { seed }),
  exportAddress: (form: string) => `/api/forms/${form}/responses.csv`,
};
