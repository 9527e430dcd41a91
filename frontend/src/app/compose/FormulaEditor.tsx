// The formula editor: names and functions completed, errors underlined at their place.
import {
  acceptCompletion,
  autocompletion,
  closeBrackets,
  closeBracketsKeymap,
  type Completion,
  type CompletionContext,
  type CompletionResult,
  completionKeymap,
} from "@codemirror/autocomplete";
import { defaultKeymap } from "@codemirror/commands";
import { HighlightStyle, StreamLanguage, syntaxHighlighting } from "@codemirror/language";
import { type Diagnostic, setDiagnostics } from "@codemirror/lint";
import { EditorState, Prec } from "@codemirror/state";
import { EditorView, keymap, placeholder } from "@codemirror/view";
import { tags } from "@lezer/highlight";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import type { FindingReply, RecordChoiceField } from "../../api/generated/wire";
import { columnsOfRecord, type Named, namedIn } from "../../model/outline";
import { MONO } from "../../theme/theme";
import { styleNonce } from "../style_nonce";
import { useBench } from "../workbench/bench";
import { type Suggestion, suggestionsAfter } from "./formula_completion";
import { type FormulaHelp, helpAt } from "./formula_help";

interface Props {
  label: string;
  text: string;
  findings: FindingReply[];
  readOnly: boolean;
  /** The row kind in whose rows it is worked out, or null. */
  rowKind: string | null;
  /** The record choice whose records are filtered. */
  offering?: RecordChoiceField | null;
  /** What stands in it while it is empty. */
  hint?: string;
  /** Whether it takes the focus when it appears. */
  focused?: boolean;
  onChange: (text: string) => void;
  onDone: () => void;
}

const language = StreamLanguage.define({
  token(stream) {
    if (stream.match(/"(?:[^"]|"")*"?/)) return "string";
    if (stream.match(/\d+(\.\d+)?/)) return "number";
    if (stream.match(/[^\W\d]\w*(?=\s*\()/u)) return "keyword";
    if (stream.match(/(TRUE|FALSE)\b/i)) return "atom";
    if (stream.match(/[^\W\d][\w.]*/u)) return "variableName";
    stream.next();
    return null;
  },
});

const colour = (name: string) => `var(--mui-palette-${name})`;

const highlighting = HighlightStyle.define([
  { tag: tags.string, color: colour("note-data") },
  { tag: [tags.number, tags.atom], color: colour("note-money") },
  { tag: tags.keyword, color: colour("note-calculation"), fontWeight: "600" },
  { tag: tags.variableName, color: colour("note-rule") },
]);

const look = EditorView.theme({
  "&": {
    fontSize: "12.500px",
    border: `1px solid ${colour("divider")}`,
    borderRadius: "6px",
    backgroundColor: colour("background-default"),
  },
  "&.cm-focused": { outline: `2px solid ${colour("primary-main")}` },
  ".cm-content": { fontFamily: MONO, padding: "6px 4px", caretColor: colour("text-primary") },
  ".cm-tooltip": {
    color: colour("text-primary"),
    backgroundColor: colour("background-paper"),
    border: `1px solid ${colour("divider")}`,
  },
  ".cm-tooltip-autocomplete > ul": { fontFamily: "inherit", maxHeight: "240px" },
  ".cm-tooltip-autocomplete > ul > li[aria-selected]": {
    color: colour("text-primary"),
    backgroundColor: colour("noteTint-rule"),
  },
  ".cm-completionInfo": { padding: "6px 10px", maxWidth: "300px" },
});

/** What can be written here: keys by key or label with their parts, codes in quotation marks, then functions. */
function useCompletions(rowKind: string | null, offering: RecordChoiceField | null) {
  const { form } = useBench();
  const names = useRef<Named[]>([]);
  names.current = [...(offering ? columnsOfRecord(form, offering) : []), ...namedIn(form, rowKind)];
  return (context: CompletionContext): CompletionResult | null => {
    const before = context.state.sliceDoc(0, context.pos);
    const found = suggestionsAfter(before, names.current, context.explicit);
    return found && { from: found.from, options: found.options.map(completionOf), filter: false };
  };
}

const completionOf = ({ text, shown, beside, info, kind }: Suggestion): Completion => ({
  label: text,
  displayLabel: shown,
  detail: ` ${beside}`,
  info,
  apply: (view, _completion, from, to) => {
    // A code brings its quotation mark; one that was closed already is taken over.
    const end = kind === "code" && view.state.sliceDoc(to, to + 1) === '"' ? to + 1 : to;
    const anchor = from + text.length - (kind === "function" ? 1 : 0);
    view.dispatch({ changes: { from, to: end, insert: text }, selection: { anchor } });
  },
});

export function FormulaEditor({
  label,
  text,
  findings,
  readOnly,
  rowKind,
  offering = null,
  hint = "Type a name, a label or a function",
  focused = true,
  onChange,
  onDone,
}: Props) {
  const place = useRef<HTMLDivElement>(null);
  const [help, setHelp] = useState<FormulaHelp | null>(null);
  const view = useRef<EditorView | null>(null);
  const completions = useCompletions(rowKind, offering);
  const latest = useRef({ onChange, onDone, completions });
  useLayoutEffect(() => {
    latest.current = { onChange, onDone, completions };
  });

  useEffect(() => {
    const done = () => {
      latest.current.onDone();
      return true;
    };
    const editor = new EditorView({
      parent: place.current!,
      state: EditorState.create({
        doc: text,
        selection: { anchor: text.length },
        extensions: [
          EditorView.cspNonce.of(styleNonce()),
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({ "aria-label": label }),
          EditorState.readOnly.of(readOnly),
          language,
          syntaxHighlighting(highlighting),
          look,
          closeBrackets(),
          autocompletion({ override: [(context) => latest.current.completions(context)], icons: false }),
          placeholder(hint),
          Prec.highest(keymap.of([...completionKeymap, { key: "Tab", run: acceptCompletion }])),
          keymap.of([
            { key: "Enter", run: done },
            { key: "Escape", run: done },
            ...closeBracketsKeymap,
            ...defaultKeymap,
          ]),
          EditorView.updateListener.of((update) => {
            if (update.docChanged || update.selectionSet || update.focusChanged) {
              const { state, view: shown } = update;
              setHelp(shown.hasFocus ? helpAt(state.doc.toString(), state.selection.main.head) : null);
            }
            if (update.docChanged) latest.current.onChange(update.state.doc.toString().replaceAll("\n", " "));
          }),
        ],
      }),
    });
    view.current = editor;
    if (focused) editor.focus();
    return () => editor.destroy();
    // The editor is made once; what comes later from outside is put in below.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);

  useEffect(() => {
    const editor = view.current;
    const shown = editor?.state.doc.toString();
    if (editor && shown !== text) editor.dispatch({ changes: { from: 0, to: shown!.length, insert: text } });
  }, [text]);

  useEffect(() => {
    const editor = view.current;
    if (!editor) return;
    const end = editor.state.doc.length;
    const diagnostics = findings.flatMap((finding): Diagnostic[] => {
      if (finding.start === null || finding.end === null) return [];
      const from = Math.min(finding.start, end);
      return [
        {
          from,
          to: Math.max(from, Math.min(finding.end, end)),
          message: finding.message,
          severity: finding.severity === "error" ? "error" : "warning",
        },
      ];
    });
    editor.dispatch(setDiagnostics(editor.state, diagnostics));
  }, [findings]);

  return (
    <>
      <Box ref={place} />
      {help && <Help help={help} />}
    </>
  );
}

function Help({ help }: { help: FormulaHelp }) {
  return (
    <Typography variant="caption" component="p" color="textSecondary" sx={{ mt: 0.5 }}>
      <Box component="code" sx={{ fontFamily: MONO, color: "text.primary" }}>
        {help.title}
      </Box>{" "}
      {help.purpose} {help.differs && <Differs text={help.differs} />}
    </Typography>
  );
}

function Differs({ text }: { text: string }) {
  return (
    <>
      <Box component="span" sx={{ fontWeight: 600 }}>
        Other than in a spreadsheet:
      </Box>{" "}
      {text.replaceAll("`", "")}
    </>
  );
}
