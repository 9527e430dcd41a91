// What is done with the responses that are marked: a status, a tag, a person.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import MenuList from "@mui/material/MenuList";
import Popover from "@mui/material/Popover";
import { useState } from "react";
import { reasonOf } from "../../api/client";
import type { AskingReply, MarkRequest } from "../../api/generated/wire";
import { counted } from "../../text/words";
import { mayEdit, useSignedIn } from "../signed_in";
import { FACET } from "./facets";
import { NewTag } from "./NewTag";
import { RemoveButton } from "./Removing";
import { useMarking } from "./useMarking";

interface Props {
  formId: string;
  asking: AskingReply;
  numbers: number[];
  /** Whether they were removed before. */
  removed: boolean;
  onRemoved: (gone: Gone) => void;
  onDone: () => void;
}

/** What was removed, and how many stayed. */
export interface Gone {
  numbers: readonly number[];
  stayed: number;
}

type Kind = MarkRequest["kind"];
const LABELS: Readonly<Record<Kind, string>> = {
  status: "Status …",
  tag: "Tag …",
  untag: "Take a tag away …",
  person: "Give to …",
};

export function BulkBar({ formId, asking, numbers, removed, onRemoved, onDone }: Props) {
  const who = useSignedIn();
  const [choosing, setChoosing] = useState<{ kind: Kind; anchor: HTMLElement } | null>(null);
  const mark = useMarking(formId, numbers, () => {
    setChoosing(null);
    onDone();
  });
  const kinds = (["status", "tag", "untag", "person"] as const).filter(
    (kind) =>
      (kind !== "status" || asking.statuses.length > 0) && (kind !== "untag" || optionsOf(asking, kind).length > 0),
  );
  return (
    <Box role="group" aria-label="Marked responses" sx={{ display: "flex", alignItems: "center", gap: 1, pb: 1 }}>
      <b>{counted(numbers.length, "response")} marked</b>
      {kinds.map((kind) => (
        <Button
          key={kind}
          variant="outlined"
          color="inherit"
          aria-haspopup="dialog"
          onClick={(event) => setChoosing({ kind, anchor: event.currentTarget })}
        >
          {LABELS[kind]}
        </Button>
      ))}
      {mayEdit(who) && <RemoveButton formId={formId} numbers={numbers} removed={removed} onDone={onRemoved} />}
      <Button color="inherit" onClick={onDone}>
        Mark none
      </Button>
      {mark.isError && (
        <Box role="alert" sx={{ color: "error.main" }}>
          {reasonOf(mark.error)}
        </Box>
      )}
      {choosing && (
        <Popover
          open
          anchorEl={choosing.anchor}
          onClose={() => setChoosing(null)}
          anchorOrigin={{ vertical: "bottom", horizontal: "left" }}
          slotProps={{ paper: { role: "dialog", "aria-label": LABELS[choosing.kind], sx: { p: 1, width: 260 } } }}
        >
          {choosing.kind === "tag" && <NewTag autoFocus onGive={(value) => mark.mutate({ kind: "tag", value })} />}
          <MenuList aria-label={LABELS[choosing.kind]}>
            {optionsOf(asking, choosing.kind).map(({ code, label }) => (
              <MenuItem key={code} onClick={() => mark.mutate({ kind: choosing.kind, value: code })}>
                {label}
              </MenuItem>
            ))}
          </MenuList>
        </Popover>
      )}
    </Box>
  );
}

function optionsOf(asking: AskingReply, kind: Kind): { code: string; label: string }[] {
  const options = (facet: string) => asking.columns.find((each) => each.id === facet)?.options ?? [];
  if (kind === "status") return [{ code: "", label: "No status" }, ...options(FACET.status)];
  if (kind === "person") return [{ code: "", label: "Nobody" }, ...options(FACET.person)];
  return options(FACET.tags);
}
