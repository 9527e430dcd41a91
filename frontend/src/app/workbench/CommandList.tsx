// The command list (Ctrl+K): blocks, areas and actions, found by typing.
import Dialog from "@mui/material/Dialog";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { api } from "../../api/client";
import { BLOCK_TYPES } from "../../model/blocks";
import { saveFormFile } from "../desk/form_file";
import { type FoundForm, useFormsFound } from "../desk/useFormsFound";
import { answers, type Topic, TOPICS } from "../help/topics";
import { useSignedIn } from "../signed_in";
import { AREAS, HISTORY } from "./areas";
import { type Listed, FindByTyping } from "../../ui/FindByTyping";
import { useStable } from "../../ui/useStable";
import { useBench } from "./bench";
import { useOpenPart } from "./useOpenPart";

interface Command extends Listed {
  group: "Blocks" | "Areas" | "Actions" | "Help" | FoundForm["group"];
  /** What says whether a search means it, where that is not by its words alone. */
  answers?: (search: string) => boolean;
  run: () => void;
}

const MOST_SHOWN = 60;

interface Props {
  onClose: () => void;
  onKeys: () => void;
  onProblem: (words: string) => void;
  onHelp: (topic: Topic) => void;
}

const WORDS = {
  placeholder: "A block, an area, what to do, how, or another form",
  box: "Find a block, an area or an action",
  list: "Commands",
  nothing: "Nothing is called that.",
};

export function CommandList({ onClose, onKeys, onProblem, onHelp }: Props) {
  const commands = [...useCommands(onKeys, onProblem), ...helpOf(onHelp)];
  const [search, setSearch] = useState("");
  const elsewhere = useFormsFound(search, useBench().reply.id);
  const find = (search: string) => {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    const fits = ({ title, detail, group, answers: meant }: Command) =>
      meant?.(search) ?? words.every((word) => `${title} ${detail} ${group}`.toLowerCase().includes(word));
    return [...commands.filter(fits).slice(0, MOST_SHOWN), ...elsewhere];
  };
  return (
    <Dialog
      open
      onClose={onClose}
      slotProps={{ paper: { "aria-label": "Command list", sx: { width: 520, alignSelf: "start" } } }}
    >
      <FindByTyping
        find={find}
        onSearch={setSearch}
        words={WORDS}
        onPick={(command) => {
          onClose();
          command.run();
        }}
      />
    </Dialog>
  );
}

const helpOf = (onHelp: Props["onHelp"]): Command[] =>
  TOPICS.map((topic) => ({
    id: `help-${topic.id}`,
    group: "Help",
    title: topic.question,
    detail: "",
    answers: (search) => search.trim() === "" || answers(topic, search),
    run: () => onHelp(topic),
  }));

function useCommands(onKeys: Props["onKeys"], onProblem: Props["onProblem"]): Command[] {
  const { parts, reply, mayEdit, undo, redo, form, actions, selected, selectAll } = useBench();
  const navigate = useNavigate();
  const open = useStable(useOpenPart());
  const who = useSignedIn();
  return useMemo(() => {
    const go = (area: string) => {
      selectAll(selected);
      void navigate(`/forms/${reply.id}/${area}`);
    };
    const listed = [...parts.values()].filter(({ what }) => what !== "trial");
    const blocks = listed.map((entry): Command => ({
      id: entry.id,
      group: "Blocks",
      title: `${entry.number} ${entry.title}`.trim(),
      detail: "key" in entry.part ? entry.part.key : entry.what,
      run: () => open(entry.id),
    }));
    const areas = [...AREAS, { name: "preview", title: "Preview" }, HISTORY]
      .filter(({ name }) => name !== "responses" || who.role !== "viewer")
      .map(({ name, title }): Command => ({
        id: `area-${name}`,
        group: "Areas",
        title,
        detail: "",
        run: () => go(name),
      }));
    const does = (title: string, detail: string, run: () => void): Command => ({
      id: `do-${title}`,
      group: "Actions",
      title,
      detail,
      run,
    });
    const composing = (run: () => void) => () => {
      go("compose");
      run();
    };
    const changing = [
      ...BLOCK_TYPES.map(({ type, title, purpose }) =>
        does(
          `Add: ${title}`,
          purpose,
          composing(() => actions.add(type, actions.afterSelection())),
        ),
      ),
      does("Add a page", "", composing(actions.addPage)),
      does("Add a confirmation", "", composing(actions.addConfirmation)),
      does("Duplicate", "Ctrl+D", actions.duplicate),
      does("Group what is selected", "Ctrl+G", actions.group),
      does("Remove what is selected", "Delete", () => actions.remove()),
      does("Undo", "Ctrl+Z", undo),
      does("Redo", "Ctrl+Shift+Z", redo),
    ];
    const looking = [
      does("Save the form as a file", "JSON", () => saveFormFile(form.name, form)),
      does("Show the keyboard shortcuts", "?", onKeys),
      does("To the desk", "", () => void navigate("/")),
    ];
    const duplicate = does("Make a copy of this form", "", () => {
      api.duplicateForm(reply.id).then(
        ({ id }) => navigate(`/forms/${id}/compose`),
        (error: unknown) => onProblem(error instanceof Error ? error.message : String(error)),
      );
    });
    return [...blocks, ...areas, ...(mayEdit ? [...changing, duplicate] : []), ...looking];
  }, [
    parts,
    reply.id,
    mayEdit,
    undo,
    redo,
    form,
    actions,
    navigate,
    open,
    who.role,
    onKeys,
    onProblem,
    selected,
    selectAll,
  ]);
}
