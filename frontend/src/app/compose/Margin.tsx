// The margin: one note per fact of a block; click a note and edit it where it stands.
import Box from "@mui/material/Box";
import type { Note, Words } from "../../api/generated/wire";
import type { Block } from "../../model/blocks";
import { NOTE_KINDS } from "../../text/words";
import { MONO, SERIF } from "../../theme/theme";
import { useBench } from "../workbench/bench";
import { FORMULA_SETTINGS, NoteEditor } from "./NoteEditor";
import type { ComposeActions } from "./useComposeActions";

interface Props {
  block: Block;
  actions: ComposeActions;
}

export function Margin({ block, actions }: Props) {
  const { analysis, block: selected, setting, select, mayEdit } = useBench();
  const notes = analysis.notes[block.id] ?? [];
  const chosen = selected === block.id;
  const editing = chosen && setting && FORMULA_SETTINGS[setting] && setting in block ? setting : null;
  const noteAt = notes.findIndex((note) => note.setting === editing);
  const editorAt = noteAt < 0 ? notes.length : noteAt;
  const absent = chosen && mayEdit ? absentSettings(block, notes) : [];
  return (
    <Box sx={{ position: "relative", display: "flex", flexDirection: "column", pl: 1.5, mb: 0.5 }}>
      {chosen && (notes.length > 0 || absent.length > 0) && (
        <Box
          aria-hidden="true"
          sx={{ position: "absolute", left: -2, top: 18, width: 14, borderTop: 1, borderColor: "primary.main" }}
        />
      )}
      {editing && (
        // Always at the same place in the tree, wherever its note stands: typing goes on while the note comes and goes.
        <Box key={editing} sx={{ order: editorAt }}>
          <NoteEditor block={block} setting={editing} actions={actions} />
        </Box>
      )}
      {notes.map(
        (note, index) =>
          note.setting !== editing && (
            <Box key={`${note.setting} ${index}`} sx={{ order: index }}>
              <NoteCard note={note} raised={chosen} onOpen={() => select(block.id, note.setting)} />
            </Box>
          ),
      )}
      {absent
        .filter((each) => each !== editing)
        .map((each) => (
          <Box
            key={each}
            component="button"
            type="button"
            onClick={() => select(block.id, each)}
            sx={{
              order: notes.length + 1,
              display: "block",
              width: "100%",
              px: 1.25,
              py: 0.25,
              font: "inherit",
              fontSize: 13,
              textAlign: "left",
              color: "text.secondary",
              background: "none",
              border: 0,
              borderLeft: 2,
              borderColor: "divider",
              cursor: "pointer",
              "&:hover": { color: "text.primary" },
            }}
          >
            {FORMULA_SETTINGS[each]!.absent}
          </Box>
        ))}
    </Box>
  );
}

function absentSettings(block: Block, notes: Note[]): string[] {
  const wanted = ["shown", ...("required" in block ? ["required"] : []), ...("formula" in block ? ["formula"] : [])];
  return wanted.filter((setting) => !notes.some((note) => note.setting === setting));
}

function NoteCard({ note, raised, onOpen }: { note: Note; raised: boolean; onOpen: () => void }) {
  const { sign, word } = NOTE_KINDS[note.kind];
  return (
    <Box
      component="button"
      type="button"
      onClick={onOpen}
      sx={{
        display: "block",
        width: "100%",
        px: 1.25,
        py: 0.5,
        font: "inherit",
        fontSize: 13,
        lineHeight: "18px",
        textAlign: "left",
        color: "text.primary",
        cursor: "pointer",
        overflowWrap: "anywhere",
        border: 0,
        borderLeft: 2,
        borderColor: `note.${note.kind}`,
        bgcolor: raised ? "background.paper" : "transparent",
        boxShadow: raised ? 1 : 0,
        "&:hover": { bgcolor: "background.paper" },
      }}
    >
      <Box component="span" role="img" aria-label={word} sx={{ mr: 0.5, fontWeight: 650, color: `note.${note.kind}` }}>
        {sign}
      </Box>
      {note.words.map((words, index) => (
        <Piece key={index} words={words} />
      ))}
    </Box>
  );
}

function Piece({ words }: { words: Words }) {
  const { names } = useBench();
  if (words.block) {
    const name = names.get(words.block);
    return (
      <b>
        <Box component="span" sx={{ fontFamily: SERIF }}>
          {name?.number}
        </Box>{" "}
        {name?.title ?? "a deleted block"}
      </b>
    );
  }
  if (words.code) {
    return (
      <Box component="code" sx={{ fontFamily: MONO, fontSize: 12 }}>
        {words.text}
      </Box>
    );
  }
  return words.strong ? <b>{words.text}</b> : words.text;
}
