// The public form's only way to the server.
import type { EvaluateReply, FormState, ReceivedReply, RefusedReply } from "../api/generated/wire";
import type { Answer } from "../fields/input";

export type Answers = Record<string, Answer>;

/** The server can't be reached, or is not well just now; trying again may help. */
export class AwayError extends Error {}

/** The server said no, with a sentence for the visitor; trying the same again won't help. */
export class RefusedError extends Error {
  constructor(readonly reply: RefusedReply) {
    super(reply.message);
  }
}

async function post<Reply>(address: string, body: unknown, headers: Record<string, string> = {}): Promise<Reply> {
  let response: Response;
  try {
    response = await fetch(address, {
      method: "POST",
      headers: { "Content-Type": "application/json", ...headers },
      body: JSON.stringify(body),
      credentials: "omit",
      signal: AbortSignal.timeout(20_000),
    });
  } catch {
    throw new AwayError();
  }
  if (response.status >= 500 || response.status === 429) throw new AwayError();
  const reply = (await response.json()) as Reply;
  if (!response.ok) {
    const refused = reply as unknown as Partial<RefusedReply>;
    throw new RefusedError({ code: refused.code ?? "", message: refused.message ?? "", errors: refused.errors ?? {} });
  }
  return reply;
}

export class Transport {
  private readonly base: string;

  constructor(form: string, edition: number) {
    this.base = `/api/public/${form}/${edition}`;
  }

  async state(answers: Answers): Promise<FormState> {
    return (await post<EvaluateReply>(`${this.base}/state`, { answers })).state;
  }

  submit(answers: Answers, key: string): Promise<ReceivedReply> {
    return post(`${this.base}/responses`, { answers }, { "Idempotency-Key": key });
  }
}
