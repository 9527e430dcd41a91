// What the editor of rich text knows beside the usual: size and accent of words, alignment and size of paragraphs.
import { type CommandProps, Extension, Mark, mergeAttributes } from "@tiptap/core";

declare module "@tiptap/core" {
  interface Commands<ReturnType> {
    setting: {
      /** Sets the paragraphs that are selected so, or as usual where they all are. */
      setLines: (align: LineClass) => ReturnType;
    };
    words: {
      /** Sets the words that are selected so, or as usual where they are. */
      setWords: (look: WordClass) => ReturnType;
    };
  }
}

const LINES = ["cx-centre", "cx-end"] as const;
const WORDS = ["cx-small", "cx-large", "cx-accent"] as const;
export type LineClass = (typeof LINES)[number];
export type WordClass = (typeof WORDS)[number];
const BLOCKS = ["paragraph", "heading", "listItem"];

/** The classes that stand on paragraphs: alignment, and a size that was written on the whole. */
export const Lines = Extension.create({
  name: "setting",
  addGlobalAttributes() {
    const classes = {
      default: null as string | null,
      parseHTML: (element: HTMLElement) =>
        [...element.classList].filter((name) => [...LINES, ...WORDS].some((known) => known === name)).join(" ") || null,
      renderHTML: ({ class: name }: { class?: string | null }) => (name ? { class: name } : {}),
    };
    return [{ types: BLOCKS, attributes: { class: classes } }];
  },
  addCommands() {
    return {
      setLines:
        (align) =>
        ({ state, tr, dispatch }: CommandProps) => {
          const { from, to } = state.selection;
          const found: { at: number; kept: string[]; has: boolean }[] = [];
          state.doc.nodesBetween(from, to, (node, at) => {
            if (!["paragraph", "heading"].includes(node.type.name)) return;
            const classes = String(node.attrs.class ?? "")
              .split(" ")
              .filter(Boolean);
            const kept = classes.filter((name) => !LINES.some((each) => each === name));
            found.push({ at, kept, has: classes.includes(align) });
          });
          const takeAway = found.every(({ has }) => has);
          for (const { at, kept } of found)
            tr.setNodeAttribute(at, "class", (takeAway ? kept : [...kept, align]).join(" ") || null);
          dispatch?.(tr);
          return found.length > 0;
        },
    };
  },
});

/** Words that are smaller, larger or in the accent colour; one of them at a time. */
export const Words = Mark.create({
  name: "words",
  addAttributes() {
    return { class: { default: null as string | null } };
  },
  parseHTML() {
    return WORDS.map((name) => ({ tag: `span.${name}`, attrs: { class: name } }));
  },
  renderHTML({ HTMLAttributes }) {
    return ["span", mergeAttributes(HTMLAttributes), 0];
  },
  addCommands() {
    return {
      setWords:
        (look) =>
        ({ commands, editor }: CommandProps) =>
          editor.isActive(this.name, { class: look })
            ? commands.unsetMark(this.name)
            : commands.setMark(this.name, { class: look }),
    };
  },
});
