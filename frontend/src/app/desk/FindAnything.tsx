// Ctrl+K outside of a form: forms, what stands in them, places, and answers to questions.
import { useEffect, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { type Doable, FindDialog } from "../../ui/FindDialog";
import { HelpTopic } from "../help/HelpTopic";
import { helpFound } from "../help/help_found";
import type { Topic } from "../help/topics";
import { PLACES } from "../Places";
import { useFormsFound } from "./useFormsFound";

const WORDS = {
  placeholder: "A form, a field in any form, a place, or how",
  box: "Find a form, a field or a place",
  list: "What was found",
  nothing: "Nothing is called that.",
};

export function FindAnything() {
  const [open, setOpen] = useState(false);
  const [topic, setTopic] = useState<Topic | null>(null);
  // A form's workbench has its own list, with its blocks and actions.
  const inForm = useLocation().pathname.startsWith("/forms/");
  useEffect(() => {
    if (inForm) return;
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "k") return;
      event.preventDefault();
      setOpen(true);
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, [inForm]);
  return (
    <>
      {open && !inForm && <Finding onClose={() => setOpen(false)} onHelp={setTopic} />}
      {topic && <HelpTopic topic={topic} onClose={() => setTopic(null)} />}
    </>
  );
}

function Finding({ onClose, onHelp }: { onClose: () => void; onHelp: (topic: Topic) => void }) {
  const navigate = useNavigate();
  const [search, setSearch] = useState("");
  const forms = useFormsFound(search);
  const find = (typed: string): Doable[] => {
    const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
    const places = PLACES.filter(([, name]) => words.every((word) => name.toLowerCase().includes(word)));
    return [
      ...forms,
      ...places.map(([to, title]) => ({ id: to, group: "Places", title, detail: "", run: () => void navigate(to) })),
      ...(words.length > 0 ? helpFound(typed, onHelp) : []),
    ];
  };
  return <FindDialog name="Find anything" find={find} onSearch={setSearch} words={WORDS} onClose={onClose} />;
}
