// How far the visitor has come, in the way that the author chose.
import type { FormFace, FormState } from "../api/generated/wire";
import { say, sayLeft, sayShare } from "../text/visitor";
import { pageTitle, type TitledPage } from "./titles";

/** A form as far as its progress goes. */
type Progressing = Pick<FormFace, "progress"> & { readonly pages: readonly TitledPage[] };

interface Props {
  face: Progressing;
  state: FormState;
  page: string | null;
  done: boolean;
}

export function Progress({ face, state, page, done }: Props) {
  const count = state.path.length;
  const at = done ? count : Math.max(0, state.path.indexOf(page ?? ""));
  const share = count === 0 ? 0 : at / count;
  switch (face.progress) {
    case "steps":
      return <Steps face={face} state={state} at={at} />;
    case "count":
      return done ? null : <p className="cx-progress-words">{say("of", { at: at + 1, count: count })}</p>;
    case "percent":
      return (
        <p className="cx-progress-words" role="status">
          {sayShare("percent", share)}
        </p>
      );
    case "left":
      return done ? null : (
        <p className="cx-progress-words" role="status">
          {sayLeft(state.left ?? 0)}
        </p>
      );
    case "bar":
      return (
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
      );
  }
  return null;
}

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
