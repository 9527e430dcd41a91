// The draft as state: actions are data, the reducer is pure. No React, no fetch.
import type { Form } from "../api/generated/wire";
import type { Block, Page } from "./blocks";

export type Action =
  | { do: "edit_form"; changes: Partial<Form> }
  | { do: "edit_page"; page: string; changes: Partial<Pick<Page, "title">> }
  | { do: "add_page"; page: Page; at: number }
  | { do: "remove_page"; page: string }
  | { do: "add_block"; block: Block; page: string; at: number }
  | { do: "edit_block"; block: string; changes: Partial<Record<string, unknown>> }
  | { do: "move_block"; block: string; page: string; at: number }
  | { do: "remove_block"; block: string }
  | { do: "replace"; form: Form };

const inPages = (form: Form, change: (page: Page) => Page): Form => ({ ...form, pages: form.pages.map(change) });

const inserted = <Item>(items: Item[], item: Item, at: number): Item[] => [
  ...items.slice(0, at),
  item,
  ...items.slice(at),
];

/** The draft after an action; the very same object where the action changes nothing. */
export function apply(form: Form, action: Action): Form {
  switch (action.do) {
    case "replace":
      return action.form;
    case "edit_form":
      return { ...form, ...action.changes };
    case "edit_page":
      return inPages(form, (page) => (page.id === action.page ? { ...page, ...action.changes } : page));
    case "add_page":
      return { ...form, pages: inserted(form.pages, action.page, action.at) };
    case "remove_page":
      return { ...form, pages: form.pages.filter((page) => page.id !== action.page) };
    case "add_block":
      return inPages(form, (page) =>
        page.id === action.page ? { ...page, blocks: inserted(page.blocks, action.block, action.at) } : page,
      );
    case "edit_block":
      return inPages(form, (page) =>
        page.blocks.some((block) => block.id === action.block)
          ? {
              ...page,
              blocks: page.blocks.map((block) =>
                block.id === action.block ? ({ ...block, ...action.changes } as Block) : block,
              ),
            }
          : page,
      );
    case "remove_block":
      return inPages(form, (page) =>
        page.blocks.some((block) => block.id === action.block)
          ? { ...page, blocks: page.blocks.filter((block) => block.id !== action.block) }
          : page,
      );
    case "move_block":
      return moved(form, action.block, action.page, action.at);
  }
}

/** `at` counts among the blocks of the page without the moved one. */
function moved(form: Form, id: string, target: string, at: number): Form {
  const block = form.pages.flatMap((page) => page.blocks).find((each) => each.id === id);
  if (!block || !form.pages.some((page) => page.id === target)) return form;
  return inPages(form, (page) => {
    const rest = page.blocks.filter((each) => each.id !== id);
    if (page.id === target) return { ...page, blocks: inserted(rest, block, at) };
    return rest.length === page.blocks.length ? page : { ...page, blocks: rest };
  });
}
