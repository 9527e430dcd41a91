// What was answered so far, by pages; from each there is a way back to change it.
import type { AllAnswersFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import { type InputProps, shownText, useTools } from "../input";

export function AllAnswersContent({ block, controlId, facts }: InputProps<AllAnswersFace>) {
  const { openPage, byQuestion = false } = useTools();
  const label = shownText(facts, "label", block.label);
  const way = (page: string, of: string) =>
    openPage && (
      <button
        type="button"
        className="cx-clear"
        aria-label={`${say("changeAnswers")}: ${of}`}
        onClick={() => openPage(page)}
      >
        {say("changeAnswers")}
      </button>
    );
  return (
    <section className="cx-answered" aria-labelledby={label ? `${controlId}-title` : undefined}>
      {label && <h3 id={`${controlId}-title`}>{label}</h3>}
      {(facts.answers ?? []).map(({ page, title, answers }) => (
        <div key={page}>
          {(title || (openPage && !byQuestion)) && (
            <div className="cx-answered-page">
              {title && <h4>{title}</h4>}
              {!byQuestion && way(page, title || answers[0]!.label)}
            </div>
          )}
          <dl>
            {answers.map((answer, at) => (
              <div key={at}>
                <dt>{answer.label}</dt>
                <dd>
                  {answer.text}
                  {/* One question at a time, each has a way of its own. */}
                  {byQuestion && at === 0 && way(page, answer.label)}
                </dd>
              </div>
            ))}
          </dl>
        </div>
      ))}
    </section>
  );
}
