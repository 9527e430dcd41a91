// Records found by typing: what the server finds, newest question first; several stand above the box, each with a button.
import { useEffect, useRef, useState } from "react";
import type { RecordChoiceFace, RecordsState } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import { Combobox } from "../combobox";
import type { InputProps } from "../input";
import { smallPicture } from "../small_picture";
import type { ShownOption } from "../shown_options";

const PAUSE_MS = 150; // in typing, before it is asked

interface Props extends InputProps<RecordChoiceFace> {
  /** What is listed and what is chosen, by id. */
  known: ReadonlyMap<string, ShownOption>;
  chosen: readonly string[];
  onPick: (id: string) => void;
  onRemove: (id: string) => void;
  onSearch: ((words: string) => Promise<RecordsState>) | null;
}

export default function RecordSearch({ known, chosen, onPick, onRemove, onSearch, ...props }: Props) {
  const { block, locked } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const [found, setFound] = useState<RecordsState | null>(null);
  const [news, setNews] = useState("");
  // What was picked is called so until the state says it, too.
  const [picked, setPicked] = useState<ReadonlyMap<string, string>>(new Map());
  const search = useRef(onSearch);
  useEffect(() => {
    search.current = onSearch;
  });
  const words = typed?.trim() ?? null;
  useEffect(() => {
    if (words === null || !search.current) return;
    let late = false;
    const ask = search.current;
    const timer = setTimeout(() => {
      ask(words).then(
        (reply) => {
          if (late) return;
          setFound(reply);
          setNews(reply.none ?? "");
        },
        () => late || setNews(say("lost")),
      );
    }, PAUSE_MS);
    setNews(say("waiting"));
    return () => {
      late = true;
      clearTimeout(timer);
    };
  }, [words]);
  const labelOf = (id: string) => known.get(id)?.label ?? picked.get(id) ?? "";
  const pick = (id: string) => {
    const label = found?.listed.find((each) => each.id === id)?.label;
    if (label) setPicked((before) => new Map(before).set(id, label));
    onPick(id);
  };
  const listed = typed === null ? [] : (found?.listed ?? []);
  return (
    <>
      {block.several && chosen.length > 0 && (
        <ul className="cx-picked">
          {chosen.map((id) => (
            <li key={id}>
              {labelOf(id)}
              {!locked && (
                <button type="button" className="cx-clear" onClick={() => onRemove(id)}>
                  {say("remove")}
                  <span className="cx-unseen"> {labelOf(id)}</span>
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      <Combobox
        {...props}
        name={block.label}
        placeholder={block.placeholder || say("typeToSearch")}
        label={block.several ? "" : labelOf(chosen[0] ?? "")}
        typed={typed}
        onTyped={setTyped}
        found={listed.map(({ id, label, picture }) => ({
          id,
          label,
          barred: false,
          ...(picture && { picture: smallPicture(picture) }),
        }))}
        chosen={chosen}
        onPick={pick}
        news={news}
      />
    </>
  );
}
