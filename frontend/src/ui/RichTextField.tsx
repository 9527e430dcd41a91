// Rich text: paragraphs, lists, emphasis and links, written as they will look; {name} stands for a value.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import Typography from "@mui/material/Typography";
import { type Editor, EditorContent, useEditor, useEditorState } from "@tiptap/react";
import StarterKit from "@tiptap/starter-kit";
import { useEffect, useMemo, useState } from "react";
import { styleNonce } from "../app/style_nonce";
import { MONO } from "../theme/theme";
import { LongTextField } from "./LongTextField";
import { takenOut } from "./rich_text_limits";
import { type LineClass, Lines, type WordClass, Words } from "./rich_text_marks";

interface Props {
  label: string;
  value: string;
  onChange: (html: string) => void;
}

/** What only the HTML itself can say: the editor would drop it. */
const isBeyondEditor = (html: string): boolean => /<su[bp]\b/.test(html);

export function RichTextField({ label, value, onChange }: Props) {
  const [raw, setRaw] = useState(false);
  // It may be another text by now: undone, or moved here from another place.
  if (!raw && isBeyondEditor(value)) setRaw(true);
  const taken = useMemo(() => (raw ? takenOut(value) : []), [raw, value]);
  return (
    <Box role="group" aria-label={label}>
      <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "center", mb: 0.5 }}>
        <Typography variant="h3" component="p" color="text.secondary">
          {label}
        </Typography>
        <Button size="small" disabled={raw && isBeyondEditor(value)} onClick={() => setRaw(!raw)} sx={{ py: 0.25 }}>
          {raw ? "As text" : "As HTML"}
        </Button>
      </Box>
      {raw && taken.length > 0 && (
        <Alert severity="warning" sx={{ mb: 1 }}>
          {taken.join(", ")} will be taken out: a text may hold paragraphs, lists, small headings, links and the looks
          of the toolbar, nothing that could run or change the page around it.
        </Alert>
      )}
      {raw ? (
        <LongTextField
          lines={4}
          value={value}
          onChange={(event) => onChange(event.target.value)}
          attributes={{
            "aria-label": `${label} as HTML`,
            "data-values": "",
            spellCheck: false,
            style: { fontFamily: MONO, fontSize: 12 },
          }}
        />
      ) : (
        <Written label={label} value={value} onChange={onChange} />
      )}
      <Typography variant="caption" color="text.secondary">
        {"{ inserts a value; {{ is a brace."}
      </Typography>
    </Box>
  );
}

function Written({ label, value, onChange }: Props) {
  const editor = useEditor({
    extensions: [
      Lines,
      Words,
      StarterKit.configure({
        heading: { levels: [4] },
        codeBlock: false,
        code: false,
        horizontalRule: false,
        link: { openOnClick: false, protocols: ["mailto", "tel"], HTMLAttributes: { rel: null, target: null } },
      }),
    ],
    content: value,
    injectNonce: styleNonce(),
    editorProps: { attributes: { role: "textbox", "aria-multiline": "true", "aria-label": label, "data-values": "" } },
    onUpdate: ({ editor: changed }) => onChange(changed.isEmpty ? "" : changed.getHTML()),
  });
  useEffect(() => {
    // Undone, or changed by somebody else: the text follows, and the place of the cursor with it as far as it can.
    // What React hides while something loads comes back with an editor that is gone, just before it gets a new one.
    if (editor && !editor.isDestroyed && !editor.isFocused && editor.getHTML() !== value)
      editor.commands.setContent(value, { emitUpdate: false });
  }, [editor, value]);
  return (
    <Box
      sx={{
        border: 1,
        borderColor: "divider",
        borderRadius: 1,
        "& .tiptap": { minHeight: 84, maxHeight: 300, overflow: "auto", px: 1.25, py: 0.75, outline: "none" },
        "&:focus-within": { outline: "2px solid", outlineColor: "primary.main" },
        "& .tiptap p": { m: 0, mb: 0.75 },
        "& .tiptap .cx-centre": { textAlign: "center" },
        "& .tiptap .cx-end": { textAlign: "end" },
        "& .tiptap .cx-small": { fontSize: "0.85em" },
        "& .tiptap .cx-large": { fontSize: "1.25em" },
        "& .tiptap .cx-accent": { color: "primary.main" },
        "& .tiptap a": { color: "primary.main" },
        "& .tiptap ul, & .tiptap ol": { pl: 2.5, my: 0.5 },
      }}
    >
      {editor && <Tools editor={editor} />}
      <EditorContent editor={editor} />
    </Box>
  );
}

interface Tool {
  title: string;
  isOn: (editor: Editor) => boolean;
  run: (editor: Editor) => boolean;
}
const chain = (editor: Editor) => editor.chain().focus();
const words = (title: string, look: WordClass): Tool => ({
  title,
  isOn: (editor) => editor.isActive("words", { class: look }),
  run: (editor) => chain(editor).setWords(look).run(),
});
const lines = (title: string, align: LineClass): Tool => ({
  title,
  isOn: (editor) =>
    ["paragraph", "heading"].some((name) => String(editor.getAttributes(name).class ?? "").includes(align)),
  run: (editor) => chain(editor).setLines(align).run(),
});

const TOOLS: readonly Tool[] = [
  { title: "Bold", isOn: (editor) => editor.isActive("bold"), run: (editor) => chain(editor).toggleBold().run() },
  { title: "Italic", isOn: (editor) => editor.isActive("italic"), run: (editor) => chain(editor).toggleItalic().run() },
  {
    title: "Underlined",
    isOn: (editor) => editor.isActive("underline"),
    run: (editor) => chain(editor).toggleUnderline().run(),
  },
  words("Accent", "cx-accent"),
  words("Small", "cx-small"),
  words("Large", "cx-large"),
  lines("Centred", "cx-centre"),
  lines("At the end", "cx-end"),
  {
    title: "Heading",
    isOn: (editor) => editor.isActive("heading"),
    run: (editor) => chain(editor).toggleHeading({ level: 4 }).run(),
  },
  {
    title: "List",
    isOn: (editor) => editor.isActive("bulletList"),
    run: (editor) => chain(editor).toggleBulletList().run(),
  },
  {
    title: "Numbered",
    isOn: (editor) => editor.isActive("orderedList"),
    run: (editor) => chain(editor).toggleOrderedList().run(),
  },
];
const LINK = "Link";

function Tools({ editor }: { editor: Editor }) {
  const active = useEditorState({
    editor,
    selector: ({ editor: now }) =>
      [
        ...TOOLS.filter(({ isOn }) => isOn(now)).map(({ title }) => title),
        ...(now.isActive("link") ? [LINK] : []),
      ].join(),
  }).split(",");
  const [address, setAddress] = useState<string | null>(null);
  const link = (href: string) => {
    const marked = chain(editor).extendMarkRange("link");
    (href.trim() ? marked.setLink({ href: href.trim() }) : marked.unsetLink()).run();
    setAddress(null);
  };
  const button = {
    minWidth: 24,
    minHeight: 24,
    px: 0.75,
    py: 0.25,
    border: 0,
    fontSize: 12,
    textTransform: "none",
    color: "text.primary",
  } as const;
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", borderBottom: 1, borderColor: "divider" }}>
      {TOOLS.map(({ title, run }) => (
        <ToggleButton
          key={title}
          value={title}
          selected={active.includes(title)}
          onClick={() => run(editor)}
          sx={button}
        >
          {title}
        </ToggleButton>
      ))}
      <ToggleButton
        value={LINK}
        selected={active.includes(LINK)}
        onClick={() => setAddress(String(editor.getAttributes("link").href ?? ""))}
        sx={button}
      >
        {LINK}
      </ToggleButton>
      {address !== null && (
        <TextField
          autoFocus
          value={address}
          placeholder="https://…, empty for no link"
          onChange={(event) => setAddress(event.target.value)}
          onBlur={() => setAddress(null)}
          onKeyDown={(event) => {
            if (event.key === "Enter") {
              event.preventDefault();
              link(address);
            }
            if (event.key === "Escape") setAddress(null);
          }}
          slotProps={{ htmlInput: { "aria-label": "Address of the link" } }}
          sx={{ p: 0.5 }}
        />
      )}
    </Box>
  );
}
