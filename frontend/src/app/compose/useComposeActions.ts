// What can be done with blocks, in words of the job; each is one step that can be undone.
import { api } from "../../api/client";
import { type Block, type BlockKind, titleOf, titleSetting } from "../../model/blocks";
import { copyOf, newBlock, newPage } from "../../model/new_block";
import { blocksOf, isKeyRead, keyFrom } from "../../model/outline";
import { useBench } from "../workbench/bench";

/** Where a block is put: `at` counts the blocks of the page before it. */
export interface Target {
  page: string;
  at: number;
}

export interface ComposeActions {
  add: (kind: BlockKind, target: Target) => void;
  addPage: () => void;
  removePage: (page: string) => void;
  edit: (block: string, changes: Partial<Record<string, unknown>>) => void;
  /** Changes a label, and the key with it as long as the key was made of the label and nothing reads it. */
  editLabel: (block: Block, label: string) => void;
  renameKey: (block: Block, key: string) => Promise<void>;
  move: (block: string, target: Target) => void;
  /** Moves the selection up or down, over the edge of its page too. */
  shift: (by: -1 | 1) => void;
  /** Selects the next or previous block. */
  step: (by: -1 | 1) => void;
  duplicate: () => void;
  remove: () => void;
  afterSelection: () => Target;
}

export function useComposeActions(): ComposeActions {
  const { act, block: selected, form, places, reply, select } = useBench();
  const place = selected ? places.get(selected) : undefined;
  const edit: ComposeActions["edit"] = (block, changes) => act({ do: "edit_block", block, changes });

  return {
    add: (kind, { page, at }) => {
      const block = newBlock(form, kind);
      act({ do: "add_block", block, page, at });
      select(block.id, "label");
    },
    addPage: () => act({ do: "add_page", page: newPage("New page"), at: form.pages.length }),
    removePage: (page) => act({ do: "remove_page", page }),
    edit,
    editLabel: (block, label) => {
      const others = blocksOf(form)
        .filter((each) => each.id !== block.id)
        .map((each) => each.key);
      const setting = titleSetting(block);
      if (!setting) return;
      const before = titleOf(block);
      const follows = block.key === keyFrom(before, others) && !isKeyRead(form, block.key);
      edit(block.id, { [setting]: label, ...(follows ? { key: keyFrom(label, others) } : {}) });
    },
    renameKey: async (block, key) => {
      const { draft } = await api.renameKey(reply.id, form, block.id, key);
      act({ do: "replace", form: draft });
    },
    move: (block, { page, at }) => act({ do: "move_block", block, page, at }),
    shift: (by) => {
      if (!place) return;
      const at = place.index + by;
      if (at >= 0 && at < place.page.blocks.length)
        return act({ do: "move_block", block: place.block.id, page: place.page.id, at });
      const page = form.pages[place.pageIndex + by];
      if (page) act({ do: "move_block", block: place.block.id, page: page.id, at: by < 0 ? page.blocks.length : 0 });
    },
    step: (by) => {
      const blocks = blocksOf(form);
      const index = blocks.findIndex((each) => each.id === selected);
      const next = index < 0 ? blocks.at(by > 0 ? 0 : -1) : blocks[index + by];
      if (next) select(next.id);
    },
    duplicate: () => {
      if (!place) return;
      const copy = copyOf(form, place.block);
      act({ do: "add_block", block: copy, page: place.page.id, at: place.index + 1 });
      select(copy.id);
    },
    remove: () => {
      if (!place) return;
      const blocks = blocksOf(form);
      const index = blocks.findIndex((each) => each.id === selected);
      act({ do: "remove_block", block: place.block.id });
      select((blocks[index + 1] ?? blocks[index - 1])?.id ?? null);
    },
    afterSelection: () =>
      place
        ? { page: place.page.id, at: place.index + 1 }
        : { page: form.pages.at(-1)?.id ?? "", at: form.pages.at(-1)?.blocks.length ?? 0 },
  };
}
