// What was answered so far, by pages; from each there is a way back to change it.
import type { AllAnswersFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import { type InputProps, shownText, useTools } from "../input";

export function AllAnswersContent({ block, controlId, facts }: InputProps<AllAnswersFace>) {
  const { openPage } = useTools();
  const label = shownText(facts, "label", block.label);
  return (
    <section className="cx-answered" aria-labelledby={label ? `${controlId}-title` : undefined}>
      {label && <h3 id={`${controlId}-title`}>{label}</h3>}
      {(facts.answers ?? []).map(({ page, title, answers }) => (
        <div key={page}>
          {(title || openPage) && (
            <div className="cx-answered-page">
              <h4>{title}</h4>
              {openPage && (
                <button
                  type="button"
                  className="cx-clear"
                  aria-label={`${say("changeAnswers")}: ${title || answers[0]!.label}`}
                  onClick={() => openPage(page)}
                >
                  {say("changeAnswers")}
                </button>
              )}
            </div>
          )}
          <dl>
            {answers.map((answer, at) => (
              <div key={at}>
                <dt>{answer.label}</dt>
                <dd>{answer.text}</dd>
              </div>
            ))}
          </dl>
        </div>
      ))}
    </section>
  );
}
