// A long list searched by typing: the combobox pattern of WAI-ARIA 1.2.
import { useEffect, useRef, useState } from "react";
import type { DropdownFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import type { InputProps } from "../input";
import type { ShownOption } from "../shown_options";

interface Props extends InputProps<DropdownFace> {
  options: readonly ShownOption[];
  chosen: string;
  onChoose: (id: string) => void;
}

export default function SearchedList(props: Props) {
  const { block, controlId, options, chosen, required, locked, invalid, describedBy, onChoose } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const [at, setAt] = useState(0);
  const list = useRef<HTMLUListElement>(null);
  const open = typed !== null;
  const wanted = (typed ?? "").trim().toLocaleLowerCase();
  const found = options.filter((option) => option.label.toLocaleLowerCase().includes(wanted));
  const label = options.find((option) => option.id === chosen)?.label ?? "";
  useEffect(() => {
    list.current?.children[at]?.scrollIntoView({ block: "nearest" });
  }, [at]);

  const close = () => {
    setTyped(null);
    setAt(0);
  };
  const pick = (option: ShownOption | undefined) => {
    if (option && !option.barred) onChoose(option.id);
    close();
  };
  const onKeyDown = (event: React.KeyboardEvent) => {
    const moves: Record<string, number> = { ArrowDown: 1, ArrowUp: -1 };
    const move = moves[event.key];
    if (move !== undefined) {
      event.preventDefault();
      if (!open) setTyped("");
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
        placeholder={block.placeholder || say("typeToSearch")}
        value={typed ?? label}
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(0);
          if (event.target.value === "") onChoose("");
        }}
        onClick={() => !locked && setTyped((before) => before ?? "")}
        onBlur={close}
        onKeyDown={onKeyDown}
      />
      <ul id={`${controlId}-list`} ref={list} role="listbox" aria-label={block.label} hidden={!open}>
        {found.map((option, index) => (
          <li
            key={option.id}
            id={`${controlId}-${option.id}`}
            role="option"
            aria-selected={option.id === chosen}
            aria-disabled={option.barred || undefined}
            data-at={index === at || undefined}
            // The list must not take the focus: leaving the box closes it.
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => pick(option)}
          >
            {option.label}
          </li>
        ))}
      </ul>
      {open && found.length === 0 && (
        <p className="cx-help" role="status">
          {say("noMatch")}
        </p>
      )}
    </div>
  );
}
