// The outline: pages and blocks by number, searched, moved by drag or Alt+arrows.
import { closestCenter, DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { arrayMove, SortableContext, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import InputBase from "@mui/material/InputBase";
import { useState } from "react";
import type { Note } from "../../api/generated/wire";
import { type Block, type Page, titleOf } from "../../model/blocks";
import { NOTE_KINDS, REQUIRED_SIGN } from "../../text/words";
import { SERIF } from "../../theme/theme";
import { useBench } from "../workbench/bench";
import type { ComposeActions, Target } from "./useComposeActions";

interface Props {
  actions: ComposeActions;
  onAdd: (anchor: HTMLElement) => void;
}

type Row = { id: string; page: Page; block?: Block; number: string };

const rowsOf = (pages: Page[]): Row[] =>
  pages.flatMap((page, index) => [
    { id: page.id, page, number: String(index + 1) },
    ...page.blocks.map((block, at) => ({ id: block.id, page, block, number: `${index + 1}.${at + 1}` })),
  ]);

export function Outline({ actions, onAdd }: Props) {
  const { form, mayEdit } = useBench();
  const [search, setSearch] = useState("");
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const rows = rowsOf(form.pages);
  const wanted = search.trim().toLowerCase();
  const shown = wanted
    ? rows.filter((row) => !row.block || `${titleOf(row.block)} ${row.block.key}`.toLowerCase().includes(wanted))
    : rows;
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const target = over && dropTarget(rows, String(active.id), String(over.id));
    if (target) actions.move(String(active.id), target);
  };
  return (
    <Box
      component="nav"
      aria-label="Outline"
      sx={{
        display: "flex",
        flexDirection: "column",
        minHeight: 0,
        borderRight: 1,
        borderColor: "divider",
        bgcolor: "background.paper",
      }}
    >
      <Box sx={{ p: 1.25 }}>
        <InputBase
          id="find-block"
          fullWidth
          placeholder="Find a block"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
          onKeyDown={(event) => event.key === "Escape" && setSearch("")}
          inputProps={{ "aria-label": "Find a block" }}
          endAdornment={<Key>/</Key>}
          sx={{ px: 1.25, height: 32, border: 1, borderColor: "divider", borderRadius: 1 }}
        />
      </Box>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <Box component="ol" sx={{ flex: 1, m: 0, p: 0, pb: 2, listStyle: "none", overflow: "auto" }}>
          <SortableContext items={shown.map((row) => row.id)} strategy={verticalListSortingStrategy}>
            {shown.map((row) =>
              row.block ? (
                <BlockRow key={row.id} row={row} block={row.block} movable={mayEdit && !wanted} />
              ) : (
                <PageRow key={row.id} row={row} />
              ),
            )}
          </SortableContext>
          {form.pages.every((page) => page.blocks.length === 0) && (
            <Box component="li" sx={{ px: 2, py: 1, color: "text.secondary" }}>
              Every block you add gets a number here.
            </Box>
          )}
        </Box>
      </DndContext>
      {mayEdit && (
        <Box sx={{ p: 1.25, display: "grid", gap: 0.75 }}>
          <Button
            variant="outlined"
            color="inherit"
            onClick={(event) => onAdd(event.currentTarget)}
            sx={{ justifyContent: "space-between", borderStyle: "dashed", borderColor: "divider" }}
            endIcon={<Key>A</Key>}
          >
            Add a block
          </Button>
          <Button
            color="inherit"
            onClick={actions.addPage}
            sx={{ justifyContent: "flex-start", color: "text.secondary" }}
          >
            Add a page
          </Button>
        </Box>
      )}
    </Box>
  );
}

/** Where a dragged block lands: in the list as it would look, after the nearest page above. */
function dropTarget(rows: Row[], dragged: string, over: string): Target | null {
  const from = rows.findIndex((row) => row.id === dragged);
  const to = rows.findIndex((row) => row.id === over);
  if (from < 0 || to < 0 || from === to) return null;
  const moved = arrayMove(rows, from, Math.max(1, to));
  const index = moved.findIndex((row) => row.id === dragged);
  const above = moved.slice(0, index);
  const start = above.findLastIndex((row) => !row.block);
  const page = above[start]?.page;
  return page ? { page: page.id, at: index - start - 1 } : null;
}

function PageRow({ row }: { row: Row }) {
  const { setNodeRef } = useSortable({ id: row.id, disabled: { draggable: true } });
  return (
    <Box component="li" ref={setNodeRef} sx={{ display: "flex", px: 1.5, pt: 1.25, pb: 0.5, fontWeight: 650 }}>
      <Box component="span" sx={{ width: 24, fontFamily: SERIF }}>
        {row.number}
      </Box>
      {row.page.title || "Untitled page"}
    </Box>
  );
}

function BlockRow({ row, block, movable }: { row: Row; block: Block; movable: boolean }) {
  const { block: selected, select, analysis } = useBench();
  const { listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: row.id,
    disabled: !movable,
  });
  const chosen = selected === block.id;
  return (
    <Box
      component="li"
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      sx={{ position: "relative", zIndex: isDragging ? 1 : undefined }}
    >
      <Box
        component="button"
        type="button"
        aria-keyshortcuts="Alt+ArrowUp Alt+ArrowDown"
        {...listeners}
        aria-current={chosen || undefined}
        onClick={() => select(block.id)}
        sx={{
          display: "flex",
          alignItems: "baseline",
          width: "100%",
          px: 1.5,
          py: 0.375,
          font: "inherit",
          textAlign: "left",
          color: "inherit",
          cursor: "pointer",
          border: 0,
          borderLeft: 3,
          borderColor: chosen ? "primary.main" : "transparent",
          fontWeight: chosen ? 650 : 400,
          bgcolor: chosen ? "noteTint.calculation" : isDragging ? "background.default" : "transparent",
          "&:hover": { bgcolor: chosen ? undefined : "background.default" },
        }}
      >
        <Box component="span" sx={{ width: 34, flex: "none", fontFamily: SERIF, color: "text.secondary" }}>
          {row.number}
        </Box>
        <Box
          component="span"
          sx={{ flex: 1, minWidth: 0, overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}
        >
          {titleOf(block)}
        </Box>
        <Signs notes={analysis.notes[block.id] ?? []} />
      </Box>
    </Box>
  );
}

/** What kinds of notes the block has, at a glance; in words for those who can't see the signs. */
function Signs({ notes }: { notes: Note[] }) {
  const signs = new Map(
    notes.map((note) =>
      note.setting === "required"
        ? [REQUIRED_SIGN, { kind: note.kind, word: "Required" }]
        : [NOTE_KINDS[note.kind].sign, { kind: note.kind, word: NOTE_KINDS[note.kind].word }],
    ),
  );
  return [...signs].map(([sign, { kind, word }]) => (
    <Box
      key={sign}
      component="span"
      title={word}
      role="img"
      aria-label={word}
      sx={{ ml: 0.75, fontSize: 12, fontWeight: 650, color: `note.${kind}` }}
    >
      {sign}
    </Box>
  ));
}

function Key({ children }: { children: string }) {
  return (
    <Box
      component="kbd"
      aria-hidden="true"
      sx={{
        px: 0.75,
        fontFamily: "inherit",
        fontSize: 11,
        lineHeight: "18px",
        color: "text.secondary",
        border: 1,
        borderColor: "divider",
        borderRadius: 0.5,
        bgcolor: "background.default",
      }}
    >
      {children}
    </Box>
  );
}
