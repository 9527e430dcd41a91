// Going on later: a press keeps the answers so far, and gives a private link to copy or to be sent by mail.
import { useId, useState } from "react";
import { say } from "../text/visitor";
import { useSnapshot } from "./held";
import type { FormSession } from "./session";
import { RefusedError } from "./transport";

type Told =
  | { now: "nothing" | "waits" }
  | { now: "kept"; number: number; address: string; until: string }
  | { now: "refused"; message: string; elsewhere: boolean };

export default function GoOnLater({ session }: { session: FormSession }) {
  const { later } = useSnapshot(session);
  const [told, tell] = useState<Told>({ now: "nothing" });
  const keep = async (over = false) => {
    tell({ now: "waits" });
    try {
      tell({ now: "kept", ...(await session.keepForLater(over)) });
    } catch (error) {
      const reply = error instanceof RefusedError ? error.reply : null;
      tell({
        now: "refused",
        message: reply?.message ?? say("awayFilling"),
        elsewhere: reply?.code === "kept_elsewhere",
      });
    }
  };
  return (
    <div className="cx-later">
      <button type="button" className="cx-clear" onClick={() => void keep()}>
        {say("later")}
      </button>
      <div role="status">
        {told.now === "waits" && <p>{say("laterWaits")}</p>}
        {told.now === "kept" && (
          <p>
            {say("laterKept", { moment: told.until })} {say("laterNumber", { number: String(told.number) })}
          </p>
        )}
        {told.now === "kept" && later?.unkept && <p>{say("laterChanged")}</p>}
        {told.now === "refused" && <p className="cx-error">{told.message}</p>}
      </div>
      {told.now === "refused" && told.elsewhere && (
        <button type="button" className="cx-clear" onClick={() => void keep(true)}>
          {say("laterMine")}
        </button>
      )}
      {told.now === "kept" && <PrivateLink address={told.address} session={session} />}
    </div>
  );
}

function PrivateLink({ address, session }: { address: string; session: FormSession }) {
  const id = useId();
  const [email, setEmail] = useState("");
  const [news, setNews] = useState({ words: "", wrong: false });
  const copy = () =>
    navigator.clipboard.writeText(address).then(() => setNews({ words: say("linkCopied"), wrong: false }));
  const send = async () => {
    if (!email.trim()) return;
    try {
      await session.mailLater(email);
      setNews({ words: say("laterSent", { email }), wrong: false });
    } catch (error) {
      setNews({ words: error instanceof RefusedError ? error.message : say("awayFilling"), wrong: true });
    }
  };
  return (
    <>
      <p className="cx-later-link">
        <a href={address} target="_blank" rel="noopener">
          {address}
        </a>
      </p>
      <button type="button" className="cx-clear" onClick={() => void copy()}>
        {say("copyLink")}
      </button>
      <label className="cx-label" htmlFor={id}>
        {say("laterTo")}
      </label>
      <div className="cx-later-mail">
        <input
          id={id}
          className="cx-input"
          type="email"
          autoComplete="email"
          maxLength={254}
          value={email}
          onChange={({ target }) => setEmail(target.value)}
          onKeyDown={(event) => {
            if (event.key !== "Enter") return;
            // The form around is not sent by it.
            event.preventDefault();
            void send();
          }}
        />
        <button type="button" className="cx-back" onClick={() => void send()}>
          {say("laterSend")}
        </button>
      </div>
      <p role="status" className={news.wrong ? "cx-error" : undefined}>
        {news.words}
      </p>
    </>
  );
}
