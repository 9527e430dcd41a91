// Pieces of the form that are fetched when they are needed: drawn when they have come, asked for again when they have not.
import {
  type ComponentType,
  type ReactNode,
  type SyntheticEvent,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
} from "react";
import { say } from "../text/visitor";
import { onceReleased } from "./press";

/** A component that is fetched; `prefetch` fetches it before it is needed, and may fail without harm. */
interface Late<Props> {
  /**
   * `meanwhile` stands in its place until it has come, and where it can't come. Who uses a list of it keeps that until they
   * leave it, as it would close under their hand; otherwise the focus goes on to what has come, by its id.
   */
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
    const stood = useRef<HTMLDivElement>(null);
    const focused = useRef<string | null>(null);
    const used = useRef<HTMLSelectElement | null>(null);
    const use = ({ target }: SyntheticEvent) => {
      used.current = target instanceof HTMLSelectElement ? target : null;
    };
    useLayoutEffect(() => {
      if (focused.current) document.getElementById(focused.current)?.focus();
      focused.current = null;
    }, [state]);
    useEffect(() => {
      let gone = false;
      const arrive = () => {
        if (gone) return;
        const { activeElement } = document;
        if (activeElement && stood.current?.contains(activeElement)) focused.current = activeElement.id;
        setState("here");
      };
      const onceLeft = () => {
        if (used.current) used.current.addEventListener("blur", () => onceReleased(arrive), { once: true });
        else onceReleased(arrive);
      };
      if (state === "coming")
        prefetch().then(
          () => gone || onceLeft(),
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
    if (Ready && state === "here") return <Ready {...props} />;
    if (props.meanwhile)
      return (
        <div
          ref={stood}
          className="cx-meanwhile"
          onPointerDown={use}
          onKeyDown={use}
          onBlur={() => (used.current = null)}
        >
          {props.meanwhile}
        </div>
      );
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
