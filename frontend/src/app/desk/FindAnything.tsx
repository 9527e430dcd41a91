// Ctrl+K outside of a form: forms, what stands in them, places, and answers to questions.
import Dialog from "@mui/material/Dialog";
import { useEffect, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { FindByTyping, type Listed } from "../../ui/FindByTyping";
import { HelpTopic } from "../help/HelpTopic";
import { answers, type Topic, TOPICS } from "../help/topics";
import { PLACES } from "../Places";
import { useFormsFound } from "./useFormsFound";

const WORDS = {
  placeholder: "A form, a field in any form, a place, or how",
  box: "Find a form, a field or a place",
  list: "What was found",
  nothing: "Nothing is called that.",
};

interface Found extends Listed {
  run: () => void;
}

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
      {open && !inForm && <FindDialog onClose={() => setOpen(false)} onHelp={setTopic} />}
      {topic && <HelpTopic topic={topic} onClose={() => setTopic(null)} />}
    </>
  );
}

function FindDialog({ onClose, onHelp }: { onClose: () => void; onHelp: (topic: Topic) => void }) {
  const navigate = useNavigate();
  const [search, setSearch] = useState("");
  const forms = useFormsFound(search);
  const find = (typed: string): Found[] => {
    const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
    const places = PLACES.filter(([, name]) => words.every((word) => name.toLowerCase().includes(word))).map(
      ([to, name]): Found => ({ id: to, group: "Places", title: name, detail: "", run: () => void navigate(to) }),
    );
    const helps = TOPICS.filter((topic) => words.length > 0 && answers(topic, typed)).map((topic): Found => ({
      id: `help-${topic.id}`,
      group: "Help",
      title: topic.question,
      detail: "",
      run: () => onHelp(topic),
    }));
    return [...forms, ...places, ...helps];
  };
  return (
    <Dialog
      open
      onClose={onClose}
      slotProps={{ paper: { "aria-label": "Find anything", sx: { width: 520, alignSelf: "start" } } }}
    >
      <FindByTyping
        find={find}
        onSearch={setSearch}
        words={WORDS}
        onPick={(found) => {
          onClose();
          found.run();
        }}
      />
    </Dialog>
  );
}
