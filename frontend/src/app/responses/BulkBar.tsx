// What is done with the responses that are marked: a status, a tag, a person.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import MenuList from "@mui/material/MenuList";
import Popover from "@mui/material/Popover";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { AskingReply, BulkRequest, MarkRequest, ResponsesReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { AskFirst } from "../../ui/AskFirst";
import { PopoverButton } from "../../ui/PopoverButton";
import { mayEdit, useSignedIn } from "../signed_in";
import { begunHere } from "./begun";
import { FACET } from "./facets";
import { useBench } from "../workbench/bench";
import { NewTag } from "./NewTag";
import { inWords } from "./Pager";
import { RemoveButton } from "./Removing";
import { useMarking } from "./useMarking";

interface Props {
  formId: string;
  asking: AskingReply;
  numbers: number[];
  /** What is looked at, where all of it is marked, beyond this page too. */
  whole: Readonly<Record<string, string>> | null;
  /** How many that is, where all of this page is marked and there are more. */
  all: Pick<ResponsesReply, "count" | "exact"> | null;
  onWhole: () => void;
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

export function BulkBar({ formId, asking, numbers, whole, all, onWhole, removed, onRemoved, onDone }: Props) {
  const who = useSignedIn();
  const { form } = useBench();
  const queryClient = useQueryClient();
  const begin = useMutation({
    mutationFn: (asked: Pick<BulkRequest, "does" | "value">) =>
      api.beginBulk(formId, whole ?? {}, {
        ...asked,
        numbers: whole ? null : (numbers as NonNullable<BulkRequest["numbers"]>),
      }),
    onSuccess: async ({ id }) => {
      begunHere.add(id);
      setChoosing(null);
      await queryClient.invalidateQueries({ queryKey: queries.bulks(formId).queryKey });
      onDone();
    },
  });
  const [choosing, setChoosing] = useState<{ kind: Kind; anchor: HTMLElement } | null>(null);
  const mark = useMarking(formId, numbers, () => {
    setChoosing(null);
    onDone();
  });
  const give = (kind: Kind, value: string) =>
    whole ? begin.mutate({ does: kind, value }) : mark.mutate({ kind, value });
  const mails = form.follow_ups.filter((each) => each.kind === "email");
  const how = whole && all ? inWords(all) : String(numbers.length);
  const kinds = (["status", "tag", "untag", "person"] as const).filter(
    (kind) =>
      (kind !== "status" || asking.statuses.length > 0) && (kind !== "untag" || optionsOf(asking, kind).length > 0),
  );
  return (
    <Box
      role="group"
      aria-label="Marked responses"
      sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 1, pb: 1 }}
    >
      <b>{whole && all ? `All ${inWords(all)} responses marked` : `${counted(numbers.length, "response")} marked`}</b>
      {!whole && all && <Button onClick={onWhole}>Mark all {inWords(all)}</Button>}
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
      {mayEdit(who) && !whole && (
        <RemoveButton formId={formId} numbers={numbers} removed={removed} onDone={onRemoved} />
      )}
      {mayEdit(who) && whole && (
        <AskFirst
          label={removed ? "Bring back" : "Remove …"}
          color="inherit"
          warning={
            removed
              ? null
              : `All ${how} responses will be gone from all views, and what was ordered is free again. Each can be brought back for 30 days.`
          }
          onDone={() => begin.mutate({ does: removed ? "bring back" : "remove", value: "" })}
        />
      )}
      {mayEdit(who) && (
        <PopoverButton variant="outlined" color="inherit" label="More …" name="More to be done" width={360} room={1.5}>
          {() => (
            <Box sx={{ display: "grid", gap: 0.5, justifyItems: "start" }}>
              {mails.map((each) => (
                <AskFirst
                  key={each.id}
                  label={`Send “${each.name}” again`}
                  color="inherit"
                  warning={`To whoever had this mail for the ${how} marked, with the same words. Others get nothing.`}
                  onDone={() => begin.mutate({ does: "mail again", value: each.id })}
                />
              ))}
              <AskFirst
                label="Anonymise …"
                color="error"
                warning={`For ever: of the ${how} marked, answers that tell of a person are emptied, with files, mails, notes and corrections. What was chosen, numbers and figures stay. Payments keep their payer. Nobody can undo this.`}
                onDone={() => begin.mutate({ does: "anonymise", value: "" })}
              />
            </Box>
          )}
        </PopoverButton>
      )}
      <Button color="inherit" onClick={onDone}>
        Mark none
      </Button>
      {(mark.error ?? begin.error) && (
        <Box role="alert" sx={{ color: "error.main" }}>
          {reasonOf(mark.error ?? begin.error)}
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
          {choosing.kind === "tag" && <NewTag autoFocus onGive={(value) => give("tag", value)} />}
          <MenuList aria-label={LABELS[choosing.kind]}>
            {optionsOf(asking, choosing.kind).map(({ code, label }) => (
              <MenuItem key={code} onClick={() => give(choosing.kind, code)}>
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
