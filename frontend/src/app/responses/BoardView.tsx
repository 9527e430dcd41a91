// Responses as cards in columns by status or by a choice. A card is dragged, or moved with its own keys and menu; what
// others move is seen within seconds.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type KeyboardEvent, useEffect, useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { AskingReply, LaneReply, RowReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { SERIF } from "../../theme/theme";
import { mayEdit, mayMark, useSignedIn } from "../signed_in";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { cellText } from "./columns";
import { FACET } from "./facets";
import { askedOf, named } from "../filter/asked";
import type { Look } from "./look";
import { inWords } from "./Pager";
import { StatusesEditor } from "./StatusesEditor";

interface Props {
  formId: string;
  asking: AskingReply;
  look: Look;
  onLook: (changes: Partial<Look>) => void;
  onOpen: (number: number) => void;
}

const POLL = 3_000;
const USUAL_FACTS = 3;

export function BoardView({ formId, asking, look, onLook, onOpen }: Props) {
  const [editing, setEditing] = useState(false);
  const who = useSignedIn();
  const choices = asking.columns.filter((each) => each.holds === "choice" && !each.facet && !each.earlier);
  // What is worked out is no answer that could be corrected.
  const isAnswer = choices.some((each) => each.id === look.by && !each.calculated);
  const byStatus = look.by === FACET.status;
  if (byStatus && asking.statuses.length === 0)
    return (
      <Box sx={{ display: "grid", gap: 1.5, pt: 2 }}>
        <Typography variant="h2">No statuses yet</Typography>
        <Typography color="text.secondary">
          Statuses say how far the team is with a response. Begin with these, or name your own.
        </Typography>
        {mayMark(who) && <StatusesEditor formId={formId} statuses={[]} onDone={() => undefined} />}
      </Box>
    );
  return (
    <>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", pb: 1 }}>
        <TextField
          select
          label="Columns by"
          value={look.by}
          onChange={(event) => onLook({ by: event.target.value })}
          sx={{ width: 260 }}
        >
          <MenuItem value={FACET.status}>Status</MenuItem>
          {choices.map((each) => (
            <MenuItem key={each.id} value={each.id}>
              {named(each)}
            </MenuItem>
          ))}
        </TextField>
        {byStatus && mayMark(who) && (
          <Button color="inherit" aria-expanded={editing} onClick={() => setEditing(!editing)}>
            Statuses …
          </Button>
        )}
      </Box>
      {editing && <StatusesEditor formId={formId} statuses={asking.statuses} onDone={() => setEditing(false)} />}
      <Lanes {...{ formId, asking, look, onOpen }} movable={byStatus ? mayMark(who) : isAnswer && mayEdit(who)} />
    </>
  );
}

interface LanesProps extends Omit<Props, "onLook"> {
  movable: boolean;
}

/** A card on its way: where it is taken from. */
interface Taken {
  number: number;
  from: string;
}

function Lanes({ formId, asking, look, movable, onOpen }: LanesProps) {
  const facts = look.cards ?? usualFacts(asking);
  const asked = { ...askedOf(look), sort: look.sorts.join(","), by: look.by, columns: facts.join(",") };
  const queryClient = useQueryClient();
  const found = useQuery({ ...queries.board(formId, asked), placeholderData: keepPreviousData });
  const turn = useQuery({ ...queries.turn(formId), refetchInterval: POLL });
  const [taken, setTaken] = useState<Taken | null>(null);
  const [over, setOver] = useState<string | null>(null);
  const boardKey = queries.board(formId, asked).queryKey;
  useEffect(() => {
    if (found.data && turn.data && turn.data.turn > found.data.turn)
      void queryClient.invalidateQueries({ queryKey: ["responses", formId, "board"] });
  }, [found.data, turn.data, queryClient, formId]);
  const move = useMutation({
    mutationFn: ({ number, from, to }: Taken & { to: string }) =>
      api.moveResponse(formId, number, { by: look.by, was: from, to }),
    onMutate: ({ number, from, to }) =>
      queryClient.setQueryData(
        boardKey,
        (board) => board && { ...board, lanes: withMoved(board.lanes, number, from, to) },
      ),
    onSettled: () => queryClient.invalidateQueries({ queryKey: ["responses", formId] }),
  });
  const lanes = found.data?.lanes ?? [];
  const put = (number: number, from: string, to: string) => from !== to && move.mutate({ number, from, to });
  return (
    <>
      {move.isError && (
        <Alert severity="warning" onClose={() => move.reset()} sx={{ mb: 1 }}>
          {reasonOf(move.error)}
        </Alert>
      )}
      {found.isError && <Alert severity="error">{reasonOf(found.error)}</Alert>}
      <Box sx={{ flex: 1, minHeight: 0, overflow: "auto", display: "flex", gap: 1.5, alignItems: "stretch", pb: 1 }}>
        {lanes.map((lane, at) => (
          <Box
            key={lane.code}
            component="section"
            aria-label={lane.label}
            onDragOver={(event) => {
              if (!taken) return;
              event.preventDefault();
              setOver(lane.code);
            }}
            onDragLeave={() => setOver(null)}
            onDrop={() => {
              if (taken) put(taken.number, taken.from, lane.code);
              setTaken(null);
              setOver(null);
            }}
            sx={{
              width: 260,
              flex: "none",
              display: "flex",
              flexDirection: "column",
              borderRadius: 1,
              border: 1,
              borderColor: over === lane.code ? "primary.main" : "divider",
              bgcolor: over === lane.code ? "noteTint.calculation" : "background.default",
            }}
          >
            <LaneHead
              lane={lane}
              asking={asking}
              colour={asking.statuses.find((each) => each.code === lane.code)?.colour}
            />
            <Box sx={{ overflow: "auto", display: "grid", gap: 1, p: 1, pt: 0, alignContent: "start" }}>
              {lane.rows.map((row) => (
                <Card
                  key={row.number}
                  {...{ row, facts, asking, movable, onOpen }}
                  onTaken={() => setTaken({ number: row.number, from: lane.code })}
                  onStep={(by) => {
                    const to = lanes[at + by];
                    if (to) put(row.number, lane.code, to.code);
                  }}
                />
              ))}
              {lane.rows.length < lane.count && (
                <Typography variant="caption" color="text.secondary">
                  {inWords({ count: lane.count - lane.rows.length, exact: lane.exact })} more: sort or filter to see
                  them.
                </Typography>
              )}
            </Box>
          </Box>
        ))}
      </Box>
    </>
  );
}

function usualFacts(asking: AskingReply): string[] {
  return asking.columns
    .filter((each) => !each.facet && !each.earlier && !each.id.startsWith("link.") && each.holds !== "rows")
    .slice(0, USUAL_FACTS)
    .map((each) => each.id);
}

/** The lanes as they will be, until the server has said so. */
export function withMoved(lanes: readonly LaneReply[], number: number, from: string, to: string): LaneReply[] {
  const card = lanes.find((lane) => lane.code === from)?.rows.find((row) => row.number === number);
  return lanes.map((lane) => {
    if (card && lane.code === from)
      return { ...lane, count: lane.count - 1, rows: lane.rows.filter((row) => row.number !== number) };
    if (card && lane.code === to) return { ...lane, count: lane.count + 1, rows: [card, ...lane.rows] };
    return lane;
  });
}

function LaneHead({ lane, asking, colour }: { lane: LaneReply; asking: AskingReply; colour: string | undefined }) {
  const sums = Object.entries(lane.sums).flatMap(([id, sum]) => {
    const column = asking.columns.find((each) => each.id === id);
    return column ? [`${column.label}: ${sum}`] : [];
  });
  return (
    <Box sx={{ p: 1 }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
        {colour && (
          <Box component="svg" viewBox="0 0 10 10" aria-hidden sx={{ width: 10 }}>
            <circle cx="5" cy="5" r="5" fill={colour} />
          </Box>
        )}
        <Typography variant="h3" component="h2" sx={{ flex: 1 }}>
          {lane.label}
        </Typography>
        <Box component="span" sx={{ fontFamily: SERIF }}>
          {inWords(lane)}
        </Box>
      </Box>
      {sums.length > 0 && (
        <Typography variant="caption" color="text.secondary">
          {sums.join(" · ")}
        </Typography>
      )}
    </Box>
  );
}

interface CardProps {
  row: RowReply;
  facts: readonly string[];
  asking: AskingReply;
  movable: boolean;
  onOpen: (number: number) => void;
  onTaken: () => void;
  onStep: (by: number) => void;
}

function Card({ row, facts, asking, movable, onOpen, onTaken, onStep }: CardProps) {
  const dayAndTime = useDayAndTime();
  const columns = facts.flatMap((id) => asking.columns.find((each) => each.id === id) ?? []);
  const step = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by === undefined || !event.shiftKey || !movable) return;
    event.preventDefault();
    onStep(by);
  };
  return (
    <Box
      component="article"
      draggable={movable}
      onDragStart={(event) => {
        event.dataTransfer.setData("text/plain", String(row.number));
        onTaken();
      }}
      sx={{
        bgcolor: "background.paper",
        border: 1,
        borderColor: "divider",
        borderRadius: 1,
        cursor: movable ? "grab" : undefined,
      }}
    >
      <Box
        component="button"
        type="button"
        onClick={() => onOpen(row.number)}
        onKeyDown={step}
        title={movable ? "Shift and arrows move it" : ""}
        sx={{
          all: "unset",
          display: "block",
          width: "100%",
          boxSizing: "border-box",
          p: 1,
          cursor: "inherit",
          "&:focus-visible": { outline: "2px solid", outlineColor: "primary.main", borderRadius: 1 },
        }}
      >
        <Typography variant="caption" color="text.secondary" component="div" sx={{ display: "flex", gap: 1 }}>
          <Box component="span" sx={{ fontFamily: SERIF }}>
            {row.number}
          </Box>
          {dayAndTime(row.received_at)}
          {row.tags.length > 0 && <span>{row.tags.join(", ")}</span>}
        </Typography>
        {columns.map((column, at) => (
          <Typography key={column.id} variant="body2" noWrap sx={{ fontWeight: at === 0 ? 600 : 400 }}>
            {column.numeric && `${column.label}: `}
            {cellText(column, row, dayAndTime) || "–"}
          </Typography>
        ))}
      </Box>
    </Box>
  );
}
