// A list of what a text can insert, wherever a text takes values: typed {, or the button beside the box, opens it.
//
// One for the whole workbench: a box says by data-values that it takes values, and of which row kind (or "").
import Autocomplete from "@mui/material/Autocomplete";
import Button from "@mui/material/Button";
import Paper from "@mui/material/Paper";
import Popper from "@mui/material/Popper";
import TextField from "@mui/material/TextField";
import { useEffect, useMemo, useRef, useState } from "react";
import { withParts } from "../compose/formula_completion";
import { namedIn } from "../../model/outline";
import { useSells } from "./useSells";
import { useBench } from "./bench";

/** The box that takes values in which something happens, or null. */
const boxOf = (target: EventTarget | null): HTMLElement | null =>
  target instanceof HTMLElement ? target.closest<HTMLElement>("[data-values]") : null;

/** What stands before the cursor in a box. */
function before(box: HTMLElement): string {
  if (box instanceof HTMLInputElement || box instanceof HTMLTextAreaElement)
    return box.value.slice(0, box.selectionStart ?? 0);
  const { anchorNode, anchorOffset } = getSelection()!;
  return anchorNode?.textContent?.slice(0, anchorOffset) ?? "";
}

/** Whether a name is begun where the cursor stands: after {, but not after {{, which is a brace. */
export const beginsName = (text: string): boolean => /(^|[^{])(\{\{)*\{$/.test(text);

/** Where the cursor of a box stands, so that it can be put back there. */
function cursorOf(box: HTMLElement): () => void {
  if (box instanceof HTMLInputElement || box instanceof HTMLTextAreaElement) {
    const { selectionStart, selectionEnd } = box;
    return () => box.setSelectionRange(selectionStart, selectionEnd);
  }
  const range = getSelection()!.rangeCount > 0 ? getSelection()!.getRangeAt(0).cloneRange() : null;
  return () => {
    if (!range) return;
    getSelection()!.removeAllRanges();
    getSelection()!.addRange(range);
  };
}

interface Open {
  box: HTMLElement;
  restore: () => void;
  /** What is inserted around a name: a { that was typed is there already. */
  begun: boolean;
}

export function ValueInserter() {
  const { mayEdit } = useBench();
  const [box, setBox] = useState<HTMLElement | null>(null);
  const [open, setOpen] = useState<Open | null>(null);
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const onFocus = (event: FocusEvent) => {
      if (list.current?.contains(event.target as Node)) return;
      setBox(boxOf(event.target));
      setOpen(null);
    };
    const onInput = (event: Event) => {
      const typed = boxOf(event.target);
      if (typed && beginsName(before(typed))) setOpen({ box: typed, restore: cursorOf(typed), begun: true });
    };
    addEventListener("focusin", onFocus);
    addEventListener("input", onInput);
    return () => {
      removeEventListener("focusin", onFocus);
      removeEventListener("input", onInput);
    };
  }, []);
  if (!mayEdit || !box?.isConnected) return null;
  const close = (text: string) => {
    const { box: into, restore } = open!;
    setOpen(null);
    into.focus();
    restore();
    // The one way in which an inserted text is a step of the box's own: React, the editor and undo hear of it.
    if (text) document.execCommand("insertText", false, text);
  };
  return (
    <Popper
      open
      disablePortal
      anchorEl={box}
      placement="bottom-end"
      popperOptions={{ strategy: "fixed" }}
      sx={{ zIndex: "modal" }}
    >
      <div ref={list} data-inserter>
        {open ? (
          <NameList
            rowKind={open.box.dataset.values || null}
            onPick={(name) => close(open.begun ? `${name}}` : `{${name}}`)}
            onTyped={close}
            onLeave={() => close("")}
          />
        ) : (
          <Button
            size="small"
            variant="outlined"
            tabIndex={-1}
            title="Or type {"
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => setOpen({ box, restore: cursorOf(box), begun: false })}
            sx={{ py: 0, bgcolor: "background.paper", fontSize: 12 }}
          >
            {"{ } Insert a value"}
          </Button>
        )}
      </div>
    </Popper>
  );
}

interface ListProps {
  rowKind: string | null;
  onPick: (name: string) => void;
  /** It was typed out after all, or a brace was meant: what belongs into the box. */
  onTyped: (text: string) => void;
  onLeave: () => void;
}

const OF_RESPONSE = { name: "response.number", number: "", title: "Number of the response", kind: "Response" };
const OF_ORDER = {
  lines: "Order: what was ordered",
  count: "Order: how many pieces",
  weight: "Order: what it weighs",
  subtotal: "Order: subtotal",
  discount: "Order: taken off",
  shipping: "Order: shipping",
  tax: "Order: tax",
  total: "Order: total",
};
const OF_PAYMENT = {
  amount: "Payment: amount",
  number: "Payment: the bank’s number",
  status: "Payment: how it stands",
  refunded: "Payment: given back",
  receipt: "Payment: number of the receipt",
  plan: "Payment: what is paid now and later",
  charge: "Payment: amount of a later charge",
  next: "Payment: day of the next charge",
};

/** The names of an order or a payment, as they are offered. */
const namesOf = (what: "order" | "payment", titles: Readonly<Record<string, string>>) =>
  Object.entries(titles).map(([name, title]) => ({ ...OF_RESPONSE, name: `${what}.${name}`, title }));

function NameList({ rowKind, onPick, onTyped, onLeave }: ListProps) {
  const { form } = useBench();
  const sells = useSells();
  const names = useMemo(
    () => [
      ...withParts(namedIn(form, rowKind)),
      ...(sells ? namesOf("order", OF_ORDER) : []),
      ...(form.payment.on ? namesOf("payment", OF_PAYMENT) : []),
      OF_RESPONSE,
      { ...OF_RESPONSE, name: "response.page", title: "The visitor’s own page: address to change or cancel" },
    ],
    [form, rowKind, sells],
  );
  return (
    <Paper elevation={4} sx={{ p: 1, width: 340 }}>
      <Autocomplete
        open
        autoHighlight
        disablePortal
        options={names}
        getOptionKey={({ name }) => name}
        getOptionLabel={({ number, title }) => `${number} ${title}`.trim()}
        groupBy={({ kind }) => (kind === "Figure" ? "Figures" : kind === "Response" ? "Response" : "Answers")}
        filterOptions={(options, { inputValue }) => {
          const wanted = inputValue.trim().toLowerCase();
          return options.filter(({ name, number, title }) =>
            `${number} ${title} ${name}`.toLowerCase().includes(wanted),
          );
        }}
        onInputChange={(_event, typed, why) => {
          if (why === "input" && (typed.endsWith("}") || typed === "{" || typed === " ")) onTyped(typed);
        }}
        onChange={(_event, chosen) => chosen && onPick(chosen.name)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "Escape") onLeave();
        }}
        slotProps={{
          listbox: { sx: { maxHeight: 220, "& .MuiAutocomplete-option": { py: 0.25, fontSize: 14 } } },
          popper: { sx: { position: "static !important", transform: "none !important" } },
        }}
        renderInput={(params) => (
          <TextField
            {...params}
            autoFocus
            placeholder="What is inserted?"
            slotProps={{
              ...params.slotProps,
              htmlInput: { ...params.slotProps?.htmlInput, "aria-label": "Value to insert" },
            }}
          />
        )}
      />
    </Paper>
  );
}
