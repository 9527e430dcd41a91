// Signing in while a form is being filled in: with a password, or by the code of a mail. What was entered stays.
import { useEffect, useId, useRef, useState } from "react";
import { say } from "../text/visitor";
import { useSnapshot } from "./held";
import type { FormSession } from "./session";
import { RefusedError } from "./transport";

export default function SignIn({ session }: { session: FormSession }) {
  const id = useId();
  const { answers, state } = useSnapshot(session);
  const known = Object.entries(state.blocks).find(([, { error }]) => error?.code === "known_member")?.[0];
  const [email, setEmail] = useState(known ? String(answers[known] ?? "") : "");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const [asked, setAsked] = useState("");
  const [news, setNews] = useState({ words: "", wrong: false });
  const box = useRef<HTMLFormElement>(null);
  useEffect(() => {
    box.current?.querySelector<HTMLElement>("input")?.focus();
    box.current?.scrollIntoView({ block: "nearest" });
  }, [asked]);
  const go = async (way: "password" | "code" | "mail") => {
    try {
      const reply = await session.signIn({ way, email, password, asked, code });
      setAsked(reply.asked);
      setNews({ words: reply.words, wrong: false });
    } catch (error) {
      setNews({ words: error instanceof RefusedError ? error.message : say("awayFilling"), wrong: true });
    }
  };
  return (
    <form
      ref={box}
      className="cx-sign-in"
      onSubmit={(event) => {
        event.preventDefault();
        void go(asked ? "code" : "password");
      }}
    >
      <div role="status">{news.words && <p className={news.wrong ? "cx-error" : ""}>{news.words}</p>}</div>
      {asked ? (
        <Line
          id={`${id}-code`}
          label={say("signInCode")}
          type="text"
          complete="one-time-code"
          value={code}
          set={setCode}
        />
      ) : (
        <>
          <Line id={id} label={say("signInEmail")} type="email" complete="username" value={email} set={setEmail} />
          <Line
            id={`${id}-password`}
            label={say("signInPassword")}
            type="password"
            complete="current-password"
            value={password}
            set={setPassword}
          />
        </>
      )}
      <div className="cx-buttons">
        <button type="submit" className="cx-submit">
          {say("signInNow")}
        </button>
        {!asked && (
          <button type="button" className="cx-back" onClick={() => void go("mail")}>
            {say("signInMail")}
          </button>
        )}
      </div>
    </form>
  );
}

interface LineProps {
  id: string;
  label: string;
  type: "text" | "email" | "password";
  complete: string;
  value: string;
  set: (value: string) => void;
}

const Line = ({ id, label, type, complete, value, set }: LineProps) => (
  <div className="cx-block">
    <label className="cx-label" htmlFor={id}>
      {label}
    </label>
    <input
      id={id}
      className="cx-input"
      type={type}
      autoComplete={complete}
      maxLength={300}
      value={value}
      onChange={({ target }) => set(target.value)}
    />
  </div>
);
