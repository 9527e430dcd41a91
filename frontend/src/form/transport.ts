// The public form's only way to the server.
import type { EvaluateReply, FormState, ReceivedReply, RefusedReply, UploadReply } from "../api/generated/wire";
import type { Answer } from "../fields/input";

export type Answers = Readonly<Record<string, Answer>>;

/** The server can't be reached, or is not well just now; trying again may help. */
export class AwayError extends Error {}

/** The server said no, with a sentence for the visitor; trying the same again won't help. */
export class RefusedError extends Error {
  constructor(readonly reply: RefusedReply) {
    super(reply.message);
  }
}

const refusalOf = (reply: Partial<RefusedReply>): RefusedError =>
  new RefusedError({ code: reply.code ?? "", message: reply.message ?? "", errors: reply.errors ?? {} });

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
  if (!response.ok) throw refusalOf(reply as unknown as Partial<RefusedReply>);
  return reply;
}

export class Transport {
  private readonly base: string;

  constructor(
    form: string,
    edition: number,
    private readonly link: Readonly<Record<string, string>>,
  ) {
    this.base = `/api/public/${form}/${edition}`;
  }

  /** What is true now; with `changed` only what hangs on these blocks. */
  async state(answers: Answers, changed: readonly string[] | null): Promise<FormState> {
    const asked = { answers, link: this.link, ...(changed ? { changed } : {}) };
    return (await post<EvaluateReply>(`${this.base}/state`, asked)).state;
  }

  submit(answers: Answers, key: string): Promise<ReceivedReply> {
    return post(`${this.base}/responses`, { answers, link: this.link }, { "Idempotency-Key": key });
  }

  /** Sends a file; fetch tells no progress, so this is the older way. */
  upload(block: string, file: File, onProgress: (share: number) => void): Promise<UploadReply> {
    return new Promise((resolve, reject) => {
      const request = new XMLHttpRequest();
      request.open("POST", `${this.base}/files/${block}?name=${encodeURIComponent(file.name)}`);
      request.setRequestHeader("Content-Type", "application/octet-stream");
      request.responseType = "json";
      request.upload.onprogress = (event) => event.lengthComputable && onProgress(event.loaded / event.total);
      request.onerror = () => reject(new AwayError("This file did not get through. Try again."));
      request.onload = () => {
        const reply = request.response as (UploadReply & Partial<RefusedReply>) | null;
        if (request.status === 200 && reply) resolve(reply);
        else if (request.status < 500 && reply?.message) reject(refusalOf(reply));
        else reject(new AwayError("The server can't take files just now. Try again."));
      };
      request.send(file);
    });
  }
}
