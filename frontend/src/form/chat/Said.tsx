// One thing that was said: by the form, with a line at its side, or by the visitor, with a way to change it.
import type { FormState } from "../../api/generated/wire";
import { shownText, useSurroundings } from "../../fields/input";
import { say } from "../../text/visitor";
import { BlockList } from "../BlockList";
import type { FormSession } from "../session";
import { saidIn } from "./asking";
import { answerIn, type Entry } from "./conversation";

interface Props {
  entry: Entry;
  /** The step that it is about; a sum is about none. */
  page: FormSession["face"]["pages"][number] | null;
  /** The title of the page that begins with it, or "". */
  title: string;
  state: FormState;
  onChange: (step: string) => void;
}

export function Said({ entry, page, title, state, onChange }: Props) {
  if (entry.kind === "sum")
    return (
      <p className="cx-sum">
        <span>{entry.label}</span> <strong>{entry.text}</strong>
      </p>
    );
  if (entry.kind === "tried")
    return (
      <>
        <div className="cx-bubble">{entry.words || say("leftOut")}</div>
        <p className="cx-speech cx-speech-wrong">{entry.reason}</p>
      </>
    );
  if (entry.kind === "asked") return <Question page={page!} title={title} />;
  return <Answered page={page!} state={state} onChange={() => onChange(entry.step)} />;
}

/** What leads to a question, and the question. */
function Question({ page, title }: { page: NonNullable<Props["page"]>; title: string }) {
  const { factsOf } = useSurroundings();
  const { leads, asks } = saidIn(page, factsOf);
  return (
    <div className="cx-speech">
      {title && <h2>{title}</h2>}
      <BlockList blocks={leads} />
      {asks.map((block) => {
        const facts = factsOf(block.id);
        const help = "help" in block ? shownText(facts, "help", block.help) : "";
        return (
          <div key={block.id}>
            {"label" in block && <p className="cx-asks">{shownText(facts, "label", block.label)}</p>}
            {help && <p className="cx-help">{help}</p>}
          </div>
        );
      })}
    </div>
  );
}

function Answered({
  page,
  state,
  onChange,
}: {
  page: NonNullable<Props["page"]>;
  state: FormState;
  onChange: () => void;
}) {
  const { factsOf } = useSurroundings();
  const { asks } = saidIn(page, factsOf);
  if (asks.length === 0) return null;
  const answers = answerIn(state, page.id);
  const [first] = asks;
  const of = first && "label" in first ? shownText(factsOf(first.id), "label", first.label) : "";
  return (
    <div className="cx-bubble">
      {answers.length === 0 && <p className="cx-left-out">{say("leftOut")}</p>}
      {answers.map(({ label, text }, at) => (
        <p key={at}>
          {label && <span className="cx-bubble-label">{label}: </span>}
          {text}
        </p>
      ))}
      <button type="button" className="cx-clear" aria-label={`${say("changeAnswers")}: ${of}`} onClick={onChange}>
        {say("changeAnswers")}
      </button>
    </div>
  );
}
