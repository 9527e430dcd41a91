// The team's statuses of a form: names, colours, order. A colour is never the only sign: the name stands beside it.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import TextField from "@mui/material/TextField";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { StatusReply } from "../../api/generated/wire";
import { plainWords } from "../../text/plain_words";
import { moved } from "./ColumnsMenu";

interface Props {
  formId: string;
  statuses: readonly StatusReply[];
  onDone: () => void;
}

const COLOURS = ["#3D4FB0", "#0F6B6B", "#8A5D00", "#7A3E8E", "#B83218", "#55636F"];
const FIRST: readonly StatusReply[] = [
  { code: "to-do", label: "To do", colour: COLOURS[0]! },
  { code: "in-hand", label: "In hand", colour: COLOURS[2]! },
  { code: "done", label: "Done", colour: COLOURS[1]! },
];

/** A code for a new status: its name without signs, told apart from the others. */
export function codeFor(label: string, taken: readonly string[]): string {
  const base = plainWords(label, "-", 50) || "status";
  for (let at = 1; ; at += 1) {
    const code = at === 1 ? base : `${base}-${at}`;
    if (!taken.includes(code)) return code;
  }
}

export function StatusesEditor({ formId, statuses, onDone }: Props) {
  const queryClient = useQueryClient();
  const [list, setList] = useState<readonly StatusReply[]>(statuses.length > 0 ? statuses : FIRST);
  const save = useMutation({
    mutationFn: () => api.setStatuses(formId, coded(list)),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: ["asking", formId] });
      await queryClient.invalidateQueries({ queryKey: ["responses", formId] });
      onDone();
    },
  });
  const put = (at: number, changes: Partial<StatusReply>) =>
    setList(list.map((each, place) => (place === at ? { ...each, ...changes } : each)));
  return (
    <Box
      component="form"
      aria-label="Statuses"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
      sx={{ display: "grid", gap: 1, maxWidth: 460, p: 2, border: 1, borderColor: "divider", borderRadius: 1 }}
    >
      {list.map((each, at) => (
        <Box key={each.code || at} sx={{ display: "flex", gap: 1, alignItems: "center" }}>
          <input
            type="color"
            aria-label={`Colour of ${each.label || "the new status"}`}
            value={each.colour}
            onChange={(event) => put(at, { colour: event.target.value })}
          />
          <TextField
            label={`Status ${at + 1}`}
            value={each.label}
            onChange={(event) => put(at, { label: event.target.value })}
            slotProps={{ htmlInput: { maxLength: 60 } }}
          />
          <IconButton
            aria-label={`Move ${each.label} up`}
            disabled={at === 0}
            onClick={() => setList(moved(list, at, -1))}
          >
            ↑
          </IconButton>
          <IconButton
            aria-label={`Move ${each.label} down`}
            disabled={at === list.length - 1}
            onClick={() => setList(moved(list, at, 1))}
          >
            ↓
          </IconButton>
          <IconButton
            aria-label={`Remove ${each.label}`}
            onClick={() => setList(list.filter((_, place) => place !== at))}
          >
            ×
          </IconButton>
        </Box>
      ))}
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button
          color="inherit"
          disabled={list.length >= 20}
          onClick={() => setList([...list, { code: "", label: "", colour: COLOURS[list.length % COLOURS.length]! }])}
        >
          Add a status
        </Button>
        <Box sx={{ flex: 1 }} />
        <Button color="inherit" onClick={onDone}>
          Leave it
        </Button>
        <Button type="submit" variant="contained" disabled={list.some((each) => !each.label.trim())}>
          Save
        </Button>
      </Box>
      {save.isError && (
        <Box role="alert" sx={{ color: "error.main" }}>
          {reasonOf(save.error)}
        </Box>
      )}
    </Box>
  );
}

/** The statuses with a code for each that has none yet. */
function coded(list: readonly StatusReply[]): StatusReply[] {
  const codes = list.map((each) => each.code).filter(Boolean);
  return list.map((each) => {
    const code = each.code || codeFor(each.label, codes);
    codes.push(code);
    return { ...each, label: each.label.trim(), code };
  });
}
