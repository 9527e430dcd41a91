// A cell while it is typed into: kept by Enter, Tab or by leaving it, left as it was by Escape.
import Box from "@mui/material/Box";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useRef } from "react";
import { api } from "../../api/client";
import type { TableColumnReply } from "../../api/generated/wire";

interface Props {
  column: TableColumnReply;
  text: string;
  onText: (text: string) => void;
  onKeep: (text: string, next: readonly [number, number]) => void;
  onStop: () => void;
}

/** Whether a cell is one of some options. */
export const isPicked = (column: TableColumnReply): boolean =>
  column.options.length > 0 && column.type !== "several_choices";

export function CellEditor({ column, text, onText, onKeep, onStop }: Props) {
  const field = useRef<HTMLInputElement & HTMLTextAreaElement & HTMLSelectElement>(null);
  const left = useRef(false);
  useEffect(() => {
    field.current?.focus();
  }, []);
  const end = (act: () => void) => {
    left.current = true;
    act();
  };
  const shared = {
    ref: field,
    "aria-label": column.label,
    value: text,
    onChange: (event: { target: { value: string } }) => onText(event.target.value),
    onBlur: () => {
      if (!left.current) end(() => onKeep(text, [0, 0]));
    },
    onKeyDown: (event: React.KeyboardEvent) => {
      event.stopPropagation();
      if (event.key === "Escape") end(onStop);
      else if (event.key === "Enter" && !event.shiftKey) end(() => onKeep(text, [1, 0]));
      else if (event.key === "Tab") end(() => onKeep(text, [0, event.shiftKey ? -1 : 1]));
      else return;
      event.preventDefault();
    },
  };
  if (isPicked(column))
    return (
      <Box component="select" {...shared} sx={FIELD}>
        <option value="" />
        {[...new Set([...column.options, ...(text && !column.options.includes(text) ? [text] : [])])].map((each) => (
          <option key={each}>{each}</option>
        ))}
      </Box>
    );
  if (column.type === "long_text")
    return (
      <Box component="textarea" rows={5} {...shared} sx={{ ...FIELD, height: 112, alignSelf: "start", zIndex: 3 }} />
    );
  if (column.table) return <NamedRecord table={column.table} text={text} shared={shared} />;
  return (
    <Box
      component="input"
      {...shared}
      placeholder={column.options.join(", ")}
      sx={{ ...FIELD, textAlign: column.numeric ? "right" : "left" }}
    />
  );
}

/** A record that is named: by its name or its number; what is there is offered while somebody types. */
function NamedRecord({ table, text, shared }: { table: string; text: string; shared: object }) {
  const words = useDeferredValue(text.split(",").at(-1)!.trim());
  const found = useQuery({
    queryKey: ["records named", table, words],
    queryFn: () => api.records(table, { words, limit: "20" }),
    placeholderData: keepPreviousData,
  });
  const before = text.includes(",") ? `${text.slice(0, text.lastIndexOf(","))}, ` : "";
  return (
    <>
      <Box component="input" {...shared} list="records-named" placeholder="A name or a number" sx={FIELD} />
      <datalist id="records-named">
        {(found.data?.records ?? []).map(({ number, name }) => (
          <option key={number} value={before + name} />
        ))}
      </datalist>
    </>
  );
}

const FIELD = {
  width: "calc(100% + 16px)",
  mx: -1,
  px: 1,
  height: "100%",
  border: 0,
  outline: "2px solid",
  outlineColor: "primary.main",
  outlineOffset: -2,
  font: "inherit",
  color: "text.primary",
  bgcolor: "background.paper",
  position: "relative",
  boxSizing: "border-box",
  resize: "none",
} as const;
