// One question at a time: what was answered before stands above as quiet lines, each with its way back.
import { useState } from "react";
import { say } from "../text/visitor";
import { labelOf } from "./facts";
import type { FormSession } from "./session";
import type { Snapshot } from "./snapshot";
import { isAsking } from "./asked_blocks";

const MOST_SEEN = 3;

export default function Earlier({ session, snapshot }: { session: FormSession; snapshot: Snapshot }) {
  const [all, setAll] = useState(false);
  const { state, page } = snapshot;
  const before = state.path.slice(0, Math.max(0, state.path.indexOf(page ?? "")));
  const looksOver = session.pages[0]?.blocks.some(({ type }) => type === "all_answers") ?? false;
  const lines = before.flatMap((step, at) => {
    const said = state.said?.find((each) => each.page === step)?.answers ?? [];
    if (said.length === 0) return [];
    const asked = session.face.pages.find(({ id }) => id === step)!.blocks.find(isAsking);
    const label = (asked && labelOf(asked, state.blocks[asked.id])) || said[0]!.label;
    return [{ step, number: at + 1, label, text: said.map(({ text }) => text).join(", ") }];
  });
  // There all answers stand anyway.
  if (lines.length === 0 || looksOver) return null;
  const hidden = all ? 0 : Math.max(0, lines.length - MOST_SEEN);
  return (
    <div className="cx-earlier">
      {hidden > 0 && (
        <button type="button" className="cx-clear" onClick={() => setAll(true)}>
          {say("earlier", { count: hidden })}
        </button>
      )}
      <ol>
        {lines.slice(hidden).map(({ step, number, label, text }) => (
          <li key={step}>
            <span className="cx-earlier-number">{number}</span>
            <span className="cx-earlier-label">{label}</span>
            <strong>{text}</strong>
            <button
              type="button"
              className="cx-clear"
              aria-label={`${say("changeAnswers")}: ${label}`}
              onClick={() => void session.visit(step)}
            >
              {say("changeAnswers")}
            </button>
          </li>
        ))}
      </ol>
    </div>
  );
}
