// How far the visitor has come, in the ways that the author chose.
import type { FormFace, FormState } from "../api/generated/wire";
import { say, sayLeft, sayShare } from "../text/visitor";
import { isByQuestion } from "./facts";
import { pageTitle, type TitledPage } from "./titles";

/** A form as far as its progress goes. */
type Progressing = Pick<FormFace, "progress" | "presentation" | "locale"> & {
  readonly pages: readonly (TitledPage & { readonly blocks?: readonly { type: string }[] })[];
};

interface Props {
  face: Progressing;
  state: FormState;
  page: string | null;
  done: boolean;
}

export function Progress({ face, state, page, done }: Props) {
  const count = state.path.length;
  const byQuestion = isByQuestion(face);
  const at = done ? count : Math.max(0, state.path.indexOf(page ?? ""));
  const share = done ? 1 : count === 0 ? 0 : at / count;
  const tells = (way: FormFace["progress"][number]) => face.progress.includes(way);
  const words = [
    tells("count") && (done ? say("done") : say(byQuestion ? "stepOf" : "of", { at: at + 1, count })),
    tells("percent") && sayShare("percent", share),
    tells("left") &&
      sayLeft(done ? 0 : byQuestion ? questionsAhead(face, state.path.slice(at)) : (state.left ?? 0), face.locale),
  ].filter(Boolean);
  return (
    <div className="cx-progress">
      {tells("bar") && (
        <div
          className="cx-bar"
          role="progressbar"
          aria-label={say("progress")}
          aria-valuenow={Math.round(share * 100)}
          aria-valuemin={0}
          aria-valuemax={100}
        >
          <progress value={share} max={1} aria-hidden="true" />
        </div>
      )}
      {/* One question at a time there are too many to name them all. */}
      {tells("steps") && !byQuestion && <Steps face={face} state={state} at={at} />}
      {words.length > 0 && (
        <p className="cx-progress-words" role="status">
          {words.join(" · ")}
        </p>
      )}
    </div>
  );
}

/** One question at a time: how many come yet, this one counted; looking over what was answered is none. */
const questionsAhead = (face: Progressing, path: readonly string[]): number => {
  const looksOver = face.pages.filter((page) => page.blocks?.some(({ type }) => type === "all_answers"));
  return path.filter((id) => !looksOver.some((page) => page.id === id)).length;
};

function Steps({ face, state, at }: { face: Progressing; state: FormState; at: number }) {
  const pages = state.path.map((id) => face.pages.find((page) => page.id === id)!);
  const steps = [...pages.map((page, index) => pageTitle(page, state) || String(index + 1)), say("done")];
  return (
    <ol className="cx-steps" aria-label={say("progress")}>
      {steps.map((title, index) => (
        <li key={index} data-past={index < at || undefined} aria-current={index === at ? "step" : undefined}>
          <span className="cx-step-mark" aria-hidden="true">
            {index < at ? "✓" : index + 1}
          </span>
          <span className="cx-step-title">{title}</span>
        </li>
      ))}
    </ol>
  );
}
