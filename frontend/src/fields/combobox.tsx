// A box that searches a list by typing: the combobox pattern of WAI-ARIA 1.2.
import { useEffect, useRef, useState } from "react";
import { say } from "../text/visitor";
import type { InputProps } from "./input";
import { onceReleased } from "./press";
import type { ShownOption } from "./shown_options";

type Outside = Pick<InputProps, "controlId" | "required" | "locked" | "invalid" | "describedBy">;

interface Props extends Outside {
  /** What the list is called. */
  name: string;
  placeholder: string;
  /** What is read in the box while nobody types. */
  label: string;
  /** What is typed; null while the list is closed. */
  typed: string | null;
  onTyped: (typed: string | null) => void;
  found: readonly ShownOption[];
  chosen: readonly string[];
  onPick: (id: string) => void;
  /** What is said below the open list. */
  news: string;
}

export function Combobox(props: Props) {
  const { controlId, name, placeholder, label, typed, onTyped, found, chosen, onPick, news } = props;
  const { required, locked, invalid, describedBy } = props;
  const [at, setAt] = useState(0);
  const list = useRef<HTMLUListElement>(null);
  const open = typed !== null;
  useEffect(() => {
    list.current?.children[at]?.scrollIntoView({ block: "nearest" });
  }, [at]);
  const close = () => {
    onTyped(null);
    setAt(0);
  };
  const choose = (option: ShownOption | undefined) => {
    if (option && !option.barred) onPick(option.id);
  };
  const pick = (option: ShownOption | undefined) => {
    choose(option);
    close();
  };
  // Whoever has typed the whole name, and goes on, has chosen: it would be lost.
  const leave = () => {
    const words = typed?.trim().toLocaleLowerCase();
    const isMeant = ({ id, label: each }: ShownOption) =>
      each.trim().toLocaleLowerCase() === words && !chosen.includes(id);
    const meant = words ? found.filter(isMeant) : [];
    if (meant.length === 1) choose(meant[0]);
    onceReleased(close);
  };
  const onKeyDown = (event: React.KeyboardEvent) => {
    const moves: Record<string, number> = { ArrowDown: 1, ArrowUp: -1 };
    const move = moves[event.key];
    if (move !== undefined) {
      event.preventDefault();
      if (!open) onTyped("");
      else setAt(Math.min(Math.max(at + move, 0), found.length - 1));
    } else if (event.key === "Enter" && open) {
      event.preventDefault();
      pick(found[at]);
    } else if (event.key === "Escape" && open) {
      event.preventDefault();
      close();
    }
  };
  return (
    <div className="cx-searched">
      <input
        id={controlId}
        className="cx-input"
        role="combobox"
        autoComplete="off"
        aria-expanded={open}
        aria-controls={`${controlId}-list`}
        aria-autocomplete="list"
        aria-activedescendant={open && found[at] ? `${controlId}-${found[at].id}` : undefined}
        aria-required={required || undefined}
        aria-invalid={invalid || undefined}
        aria-describedby={describedBy}
        readOnly={locked}
        placeholder={placeholder}
        value={typed ?? label}
        onChange={(event) => {
          onTyped(event.target.value);
          setAt(0);
          if (event.target.value === "") onPick("");
        }}
        onClick={() => !locked && !open && onTyped("")}
        onBlur={leave}
        onKeyDown={onKeyDown}
      />
      <ul id={`${controlId}-list`} ref={list} role="listbox" aria-label={name} hidden={!open}>
        {open &&
          found.map((option, index) => (
            <li
              key={option.id}
              id={`${controlId}-${option.id}`}
              role="option"
              aria-selected={chosen.includes(option.id)}
              aria-disabled={option.barred || undefined}
              data-at={index === at || undefined}
              // The list must not take the focus: leaving the box closes it.
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => pick(option)}
            >
              {option.picture && <img src={option.picture} alt="" />}
              {option.label}
            </li>
          ))}
      </ul>
      {open && (found.length === 0 || news) && (
        <p className="cx-help" role="status">
          {news || say("noMatch")}
        </p>
      )}
    </div>
  );
}
