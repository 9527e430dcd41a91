// The public form's only way to the server.
import type {
  EvaluateReply,
  FormFace,
  FormState,
  KeepReply,
  KeepRequest,
  MemberSignInReply,
  MemberSignInRequest,
  NewsReply,
  PublicPage,
  ReceivedReply,
  FoundOffersReply,
  RefusedReply,
  SpokenReply,
  TypedReply,
  UploadReply,
} from "../api/generated/wire";
import type { Answer, Sought } from "../fields/input";
import { say } from "../text/visitor";

export type Answers = Readonly<Record<string, Answer>>;

/** The server can't be reached, or is not well just now; trying again may help, `after` so many milliseconds. */
export class AwayError extends Error {
  constructor(
    message = "",
    readonly after = 0,
  ) {
    super(message);
  }
}

/** The server said no, with a sentence for the visitor; trying the same again won't help. */
export class RefusedError extends Error {
  constructor(readonly reply: Omit<RefusedReply, "work"> & Partial<Pick<RefusedReply, "work">>) {
    super(reply.message);
  }
}

const refusalOf = (reply: Partial<RefusedReply>, status: number): RefusedError =>
  new RefusedError({
    code: reply.code ?? `http_${status}`,
    // Something on the way may answer in the server's place, with a page of its own.
    message: reply.message ?? say("refusedOnTheWay", { status }),
    errors: reply.errors ?? {},
    work: reply.work ?? "",
  });

const isObject = (found: unknown): found is Record<string, unknown> => typeof found === "object" && found !== null;

/** Seconds that a reply asks to wait, in milliseconds; bounded, so that nobody waits for hours. */
const waitOf = (response: Response): number =>
  Math.min(Math.max(Number(response.headers.get("Retry-After")) || 0, 0), 60) * 1_000;

async function post<Reply>(
  address: string,
  body: unknown,
  headers: Record<string, string>,
  credentials: RequestCredentials,
): Promise<Reply> {
  let response: Response;
  let reply: unknown;
  try {
    response = await fetch(address, {
      method: "POST",
      headers: { "Content-Type": "application/json", ...headers },
      body: JSON.stringify(body),
      credentials,
      signal: AbortSignal.timeout(30_000),
    });
    reply = await response.json().catch(() => null);
  } catch {
    throw new AwayError();
  }
  if (response.status >= 500 || response.status === 429) throw new AwayError("", waitOf(response));
  if (!response.ok) throw refusalOf(isObject(reply) ? reply : {}, response.status);
  if (response.status === 204) return {} as Reply;
  // A reply that broke off.
  if (!isObject(reply)) throw new AwayError();
  return reply as Reply;
}

/** Has the bank take the payment of a response, or looks how it stands; `page` is the response's own. */
export const askPayment = (page: string): Promise<ReceivedReply> => post(`/api/public${page}/payment`, {}, {}, "omit");

export class Transport {
  /** What was entered where people see nothing: a machine's. */
  trap = "";
  /** What says that a password was typed, and who is signed in. */
  private entry: string;
  private readonly headers: Record<string, string>;
  private readonly credentials: RequestCredentials;

  /** To an edition, without a session; or with the session's token to what the team looks at. */
  constructor(
    private readonly page: Pick<PublicPage, "base" | "link" | "seal" | "entry" | "came" | "opened"> &
      Partial<Pick<PublicPage, "shown">> & { face?: Pick<FormFace, "locale" | "languages"> },
    private readonly visit: string,
    token: string | null = null,
  ) {
    this.headers = token ? { "X-CSRF-Token": token } : {};
    this.entry = page.entry ?? "";
    this.credentials = token ? "same-origin" : "omit";
  }

  /** What is true now; with `changed` only what hangs on these blocks. */
  async state(
    answers: Answers,
    changed: readonly string[] | null,
    checked: readonly string[] = [],
  ): Promise<FormState> {
    const quiz = checked.length > 0 ? { checked } : {};
    const asked = { answers, ...this.surroundings, ...(changed ? { changed } : {}), ...quiz };
    const { shown } = this.page;
    return (await this.ask<EvaluateReply>("state", asked, shown && { "codexa-shown": shown })).state;
  }

  private ask<Reply>(what: string, asked: unknown, values?: Record<string, string> | "", headers = {}): Promise<Reply> {
    return post(this.addressOf(what, values), asked, { ...this.headers, ...headers }, this.credentials);
  }

  /** Where to ask: for what, in the language in which the form is. */
  private addressOf(what: string, values?: Record<string, string> | ""): string {
    const { locale = "", languages = [] } = this.page.face ?? {};
    const query = new URLSearchParams({
      ...(values || {}),
      ...(languages.length > 0 && { "codexa-language": locale }),
    });
    return `${this.page.base}/${what}${query.size > 0 ? `?${query}` : ""}`;
  }

  /** Answers that were typed in another of the form's languages, as they are typed in this one. */
  async typed(answers: Answers, language: string): Promise<Answers> {
    return (await this.ask<TypedReply>("typed", { answers, language, entry: this.entry })).answers as Answers;
  }

  /** What the core makes of words that were said to a question. */
  spoken(block: string, words: string): Promise<SpokenReply> {
    const { entry } = this;
    const asked = { block, words, ...(entry ? { entry } : {}) };
    return this.ask("spoken", asked);
  }

  /** What the question at an address offers: records that words find, or slots from a day on. */
  offers(answers: Answers, address: string, sought: Sought): Promise<FoundOffersReply> {
    return this.ask("offers", { answers, address, ...sought, ...this.surroundings });
  }

  /** `seconds` is how long it took to fill in, `kept` the token of answers that were kept for later, `seen` the
   *  stamps of the records that were chosen. */
  async submit(answers: Answers, key: string, seconds: number, kept = "", seen = {}): Promise<ReceivedReply> {
    const { way, page } = this.page.came;
    const came = { way, page, seconds: Math.max(0, seconds) };
    const asked = { answers, ...this.surroundings, came, seen, opened: this.page.opened, trap: this.trap, kept };
    const send = (work = "") =>
      this.ask<ReceivedReply>("responses", { ...asked, work }, "", { "Idempotency-Key": key });
    try {
      return await send();
    } catch (error) {
      if (!(error instanceof RefusedError && error.reply.work)) throw error;
      const { workOut } = await import("./work");
      return send(await workOut(error.reply.work, key));
    }
  }

  /** Keeps answers to go on with later. */
  keep(asked: Omit<KeepRequest, "came" | "visit" | "link" | "seal" | "entry">): Promise<KeepReply> {
    const { way, page } = this.page.came;
    return this.ask("kept", { ...asked, ...this.surroundings, came: { way, page } });
  }

  /** Signs a member in, or has a mail sent by which they can. */
  async signIn(typed: Omit<MemberSignInRequest, "entry">): Promise<MemberSignInReply> {
    const asked = { ...typed, entry: this.entry };
    // The browser may remember it, where it keeps cookies of this page.
    const reply = await post<MemberSignInReply>(this.addressOf("sign-in"), asked, this.headers, "same-origin");
    this.entry = reply.entry || this.entry;
    return reply;
  }

  /** Has the private link to them sent by mail. */
  mailLink(token: string, email: string): Promise<unknown> {
    return this.ask("kept/mail", { token, email });
  }

  /** What is new since an earlier edition, in words; nothing where that is not known just now. */
  async news(since: number): Promise<string[]> {
    const reply = await fetch(this.addressOf(`news/${since}`, this.entry ? { entry: this.entry } : ""), {
      credentials: this.credentials,
    }).catch(() => null);
    if (!reply?.ok) return [];
    return ((await reply.json().catch(() => null)) as NewsReply | null)?.news ?? [];
  }

  /** What came with the address, and what names the visit. */
  private get surroundings(): object {
    const { entry } = this;
    const { link, seal } = this.page;
    return { link, visit: this.visit, ...(seal ? { seal } : {}), ...(entry ? { entry } : {}) };
  }

  /** Sends a file; fetch tells no progress, so this is the older way. */
  upload(block: string, file: File, onProgress: (share: number) => void, stop: AbortSignal): Promise<UploadReply> {
    return new Promise((resolve, reject) => {
      const request = new XMLHttpRequest();
      const { entry } = this;
      const query = { name: file.name, visit: this.visit, ...(entry && { entry }) };
      request.open("POST", this.addressOf(`files/${block}`, query));
      for (const each of Object.entries(this.headers)) request.setRequestHeader(...each);
      request.setRequestHeader("Content-Type", "application/octet-stream");
      request.responseType = "json";
      request.upload.onprogress = (event) => event.lengthComputable && onProgress(event.loaded / event.total);
      stop.addEventListener("abort", () => request.abort());
      request.onerror = () => reject(new AwayError("This file did not get through. Try again."));
      request.onload = () => {
        const reply = request.response as (UploadReply & Partial<RefusedReply>) | null;
        if (request.status === 200 && reply) resolve(reply);
        else if (request.status < 500 && reply?.message) reject(refusalOf(reply, request.status));
        else reject(new AwayError("The server can't take files just now. Try again."));
      };
      request.send(file);
    });
  }
}
