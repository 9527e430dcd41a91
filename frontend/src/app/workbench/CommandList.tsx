// The command list (Ctrl+K): blocks, areas and actions, found by typing.
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { api } from "../../api/client";
import { BLOCK_TYPES } from "../../model/blocks";
import { saveFormFile } from "../desk/form_file";
import { useFormsFound } from "../desk/useFormsFound";
import { helpFound } from "../help/help_found";
import type { Topic } from "../help/topics";
import { useSignedIn } from "../signed_in";
import { AREAS, HISTORY } from "./areas";
import { type Doable, FindDialog } from "../../ui/FindDialog";
import { useStable } from "../../ui/useStable";
import { useBench } from "./bench";
import { useOpenPart } from "./useOpenPart";

interface Command extends Doable {
  group: "Blocks" | "Areas" | "Actions";
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
  const commands = useCommands(onKeys, onProblem);
  const [search, setSearch] = useState("");
  const elsewhere = useFormsFound(search, useBench().reply.id);
  const find = (typed: string): Doable[] => {
    const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
    const fits = ({ title, detail, group }: Command) =>
      words.every((word) => `${title} ${detail} ${group}`.toLowerCase().includes(word));
    const here = [...commands.filter(fits), ...helpFound(typed, onHelp)];
    return [...here.slice(0, MOST_SHOWN), ...elsewhere];
  };
  return <FindDialog name="Command list" find={find} onSearch={setSearch} words={WORDS} onClose={onClose} />;
}

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
