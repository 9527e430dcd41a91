// Pieces of the form that are fetched when they are needed: drawn when they have come, asked for again when they have not.
import { type ComponentType, type ReactNode, useEffect, useState } from "react";
import { say } from "../text/visitor";

/** A component that is fetched; `prefetch` fetches it before it is needed, and may fail without harm. */
interface Late<Props> {
  /** `meanwhile` stands in its place until it has come, and where it can't come. */
  (props: Props & { meanwhile?: ReactNode }): ReactNode;
  prefetch: () => Promise<void>;
}

/** What asks again for each piece that stands on the page and has not come. */
const missing = new Set<() => void>();

export function late<Props extends object>(load: () => Promise<{ default: ComponentType<Props> }>): Late<Props> {
  let ready: ComponentType<Props> | null = null;
  let coming: Promise<void> | null = null;
  const prefetch = (): Promise<void> =>
    (coming ??= load().then(
      (module) => {
        ready = module.default;
      },
      (error: unknown) => {
        coming = null;
        throw error;
      },
    ));
  function Piece(props: Props & { meanwhile?: ReactNode }) {
    const [tried, setTried] = useState(false);
    const [state, setState] = useState<"coming" | "here" | "failed">(ready ? "here" : "coming");
    useEffect(() => {
      let gone = false;
      if (state === "coming")
        prefetch().then(
          () => gone || setState("here"),
          // Browsers remember that a script did not come, until the page is loaded again; what was typed is kept.
          () => gone || (tried ? location.reload() : setState("failed")),
        );
      return () => {
        gone = true;
      };
    }, [state, tried]);
    useEffect(() => {
      if (state !== "failed") return;
      const ask = () => {
        setTried(true);
        setState("coming");
      };
      missing.add(ask);
      return () => void missing.delete(ask);
    }, [state]);
    const Ready = ready;
    if (Ready) return <Ready {...props} />;
    if (props.meanwhile) return props.meanwhile;
    if (state !== "failed") return <div className="cx-drop">{say("waiting")}</div>;
    return (
      <div className="cx-drop" role="alert">
        {say("pieceMissing")}{" "}
        <button type="button" className="cx-clear" onClick={() => missing.forEach((ask) => ask())}>
          {say("tryAgain")}
        </button>
      </div>
    );
  }
  return Object.assign(Piece, { prefetch });
}
