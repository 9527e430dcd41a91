// One response as a sheet: every answer and everything that was worked out.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { ColumnReply, EventReply, FileFace, ResponseReply } from "../../api/generated/wire";
import { api } from "../../api/client";
import { queries } from "../../api/queries";
import { counted, NOTE_KINDS } from "../../text/words";
import { SERIF } from "../../theme/theme";
import { Explained } from "../preview/Explained";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { mayEdit, useSignedIn } from "../signed_in";
import { AddNote } from "./AddNote";
import { Correct } from "./Correct";
import { Files } from "./Files";
import { Followed } from "./Followed";
import { askedOf } from "../filter/asked";
import type { Look } from "./look";
import { Marks } from "./Marks";
import { Standing } from "./Standing";
import { Waiting } from "../Waiting";

interface Props {
  formId: string;
  number: number;
  look: Look;
  onOpen: (number: number) => void;
  onClose: () => void;
}

export function SingleResponse({ formId, number, look, onOpen, onClose }: Props) {
  const dayAndTime = useDayAndTime();
  const found = useQuery(queries.response(formId, number));
  const beside = useQuery(queries.neighbours(formId, number, { ...askedOf(look), sort: look.sorts.join(",") }));
  const { before = null, after = null } = beside.data ?? {};
  const who = useSignedIn();
  const [correcting, setCorrecting] = useState(false);
  const [inItsLook, setInItsLook] = useState(false);
  const title = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    title.current?.focus();
  }, [number]);
  return (
    <Box
      component="aside"
      aria-label={`Response ${number}`}
      onKeyDown={(event) => {
        if (event.key === "Escape") onClose();
        if (event.target !== title.current) return;
        if (event.key === "[" && before !== null) onOpen(before);
        if (event.key === "]" && after !== null) onOpen(after);
      }}
      sx={{ borderLeft: 1, borderColor: "divider", bgcolor: "background.paper", overflow: "auto" }}
    >
      <Box sx={{ display: "flex", alignItems: "center", px: 2.5, pt: 1.75 }}>
        <Typography
          ref={title}
          tabIndex={-1}
          variant="h1"
          component="h2"
          sx={{ flex: 1, fontSize: 20, "&:focus": { outline: "none" } }}
        >
          Response {number}
        </Typography>
        <Step name="Response before it" keys="[" sign="‹" to={before} onOpen={onOpen} />
        <Step name="Response after it" keys="]" sign="›" to={after} onOpen={onOpen} />
        <IconButton aria-label="Close" onClick={onClose} sx={{ width: 30, height: 30, fontSize: 18 }}>
          ×
        </IconButton>
      </Box>
      {found.isPending && <Waiting />}
      {found.isError && <Alert severity="error">{found.error.message}</Alert>}
      {found.data && (
        <Box sx={{ px: 2.5, pb: 3 }}>
          <Typography variant="body2" color="text.secondary" sx={{ mb: 2 }}>
            {found.data.row.test && <b>A try: paid for practice, in no export. </b>}
            Received {dayAndTime(found.data.row.received_at)} · edition {found.data.row.edition} ·{" "}
            <a href={api.pdfAddress(formId, number)}>Keep as PDF</a>,{" "}
            <a href={api.pdfAddress(formId, number, true)}>plain</a>,{" "}
            <a href={api.sheetAddress(formId, number)} target="_blank" rel="noreferrer">
              a page to print
            </a>
            <HowItCame {...found.data} />
          </Typography>
          <Box sx={{ display: "flex", gap: 1, mb: 2 }}>
            {mayEdit(who) && (
              <Button variant="outlined" color="inherit" onClick={() => setCorrecting(true)}>
                Correct an answer …
              </Button>
            )}
            <CopyLink key={number} formId={formId} number={number} />
          </Box>
          {correcting && <Correct formId={formId} number={number} onDone={() => setCorrecting(false)} />}
          <Marks formId={formId} row={found.data.row} />
          <Standing key={`standing ${number}`} formId={formId} reply={found.data} />
          <ToggleButtonGroup
            exclusive
            size="small"
            value={inItsLook}
            onChange={(_event, to: boolean | null) => to !== null && setInItsLook(to)}
            aria-label="How the answers are shown"
            sx={{ mb: 1.5 }}
          >
            <ToggleButton value={false}>Answers and why</ToggleButton>
            <ToggleButton value={true}>In the form’s look</ToggleButton>
          </ToggleButtonGroup>
          {inItsLook ? (
            <Sheet key={number} formId={formId} number={number} />
          ) : (
            <Box component="dl" sx={{ m: 0, display: "grid", gap: 1.5 }}>
              {found.data.columns.map((column) => (
                <Answer
                  key={`${number} ${column.id}`}
                  formId={formId}
                  number={number}
                  column={column}
                  text={found.data.row.cells[column.id]}
                  files={found.data.files[column.id] ?? []}
                />
              ))}
            </Box>
          )}
          <Followed formId={formId} number={number} />
          <Happened events={found.data.events} />
          <AddNote formId={formId} number={number} />
        </Box>
      )}
    </Box>
  );
}

/** The response as its visitor may keep it, as high as it is. */
function Sheet({ formId, number }: { formId: string; number: number }) {
  const [height, setHeight] = useState(400);
  return (
    <Box
      component="iframe"
      title={`Response ${number} in the form’s look`}
      src={api.sheetAddress(formId, number)}
      onLoad={(event) =>
        setHeight(event.currentTarget.contentDocument?.documentElement.scrollHeight ?? SHEET_WITHOUT_HEIGHT)
      }
      sx={{ display: "block", width: "100%", height, border: 1, borderColor: "divider", borderRadius: 1 }}
    />
  );
}

const SHEET_WITHOUT_HEIGHT = 800;

interface StepProps {
  name: string;
  keys: string;
  sign: string;
  to: number | null;
  onOpen: (number: number) => void;
}

/** To the response beside this one in what is filtered. */
const Step = ({ name, keys, sign, to, onOpen }: StepProps) => (
  <IconButton
    aria-label={name}
    aria-keyshortcuts={keys}
    title={`${name} (${keys})`}
    disabled={to === null}
    onClick={() => to !== null && onOpen(to)}
    sx={{ width: 30, height: 30, fontSize: 18 }}
  >
    {sign}
  </IconButton>
);

/** For a colleague: who opens it signs in first. */
function CopyLink({ formId, number }: { formId: string; number: number }) {
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    await navigator.clipboard.writeText(`${location.origin}/forms/${formId}/responses/${number}`);
    setCopied(true);
  };
  return (
    <Button color="inherit" onClick={() => void copy()}>
      <span aria-live="polite">{copied ? "Copied, for the team" : "Copy its link"}</span>
    </Button>
  );
}

const WAYS: Readonly<Record<string, string>> = {
  link: "by the form’s own page",
  script: "from a website",
  frame: "from a frame on a website",
  "pop-up": "from a pop-up",
  tab: "from a side tab",
  corner: "from a corner window",
  program: "from a program, by a key",
  table: "from a table",
};

type Came = Pick<ResponseReply, "way" | "page" | "seconds" | "link" | "visitor">;

/** By which way it came, and what is known of that. */
function HowItCame({ way, page, seconds, link, visitor }: Came) {
  if (!way) return null;
  const told = [
    `Came ${WAYS[way] ?? way}${page && ` (${page})`}`,
    link && `with a sealed link of ${link}`,
    seconds !== null && `filled in within ${inTime(seconds)}`,
    visitor && `by who was signed in as ${visitor}`,
  ];
  return <Box sx={{ overflowWrap: "anywhere" }}>{told.filter(Boolean).join(", ")}.</Box>;
}

const inTime = (seconds: number): string =>
  seconds < 90 ? counted(seconds, "second") : counted(Math.round(seconds / 60), "minute");

interface AnswerProps {
  formId: string;
  number: number;
  column: ColumnReply;
  text: string | undefined;
  files: readonly FileFace[];
}

/** An answer or a value, and on request why it was so when the response came. */
function Answer({ formId, number, column, text, files }: AnswerProps) {
  const [asked, setAsked] = useState(false);
  const why = useQuery({ ...queries.responseExplained(formId, number, column.id), enabled: asked });
  return (
    <Box>
      <Typography
        component="dt"
        variant="body2"
        color="text.secondary"
        sx={{ display: "flex", alignItems: "baseline" }}
      >
        <Box component="span" sx={{ flex: 1 }}>
          <Box component="span" sx={{ fontFamily: SERIF }}>
            {column.number}
          </Box>{" "}
          {column.label}
          {column.calculated && (
            <Box component="span" role="img" aria-label="Calculated" sx={{ ml: 0.75, color: "note.calculation" }}>
              {NOTE_KINDS.calculation.sign}
            </Box>
          )}
        </Box>
        <Button
          size="small"
          color="inherit"
          aria-expanded={asked}
          aria-label={`Why is ${column.label} so?`}
          onClick={() => setAsked(!asked)}
          sx={{ minWidth: 0, py: 0, px: 0.75, fontSize: 12, fontWeight: 400 }}
        >
          Why?
        </Button>
      </Typography>
      <Typography
        component="dd"
        sx={{
          m: 0,
          overflowWrap: "anywhere",
          whiteSpace: "pre-line",
          fontWeight: text ? 600 : 400,
          color: text ? "text.primary" : "text.secondary",
        }}
      >
        {text ?? "not answered"}
      </Typography>
      {files.length > 0 && (
        <Box component="dd" sx={{ m: 0, mt: 0.5 }}>
          <Files formId={formId} files={files} />
        </Box>
      )}
      {asked && (
        <Box component="dd" aria-live="polite" sx={{ m: 0, mb: 1 }}>
          {why.isError && <Typography color="text.secondary">{why.error.message}</Typography>}
          {why.data && <Explained facts={why.data.facts} />}
        </Box>
      )}
    </Box>
  );
}

/** What happened to the response, first to last. */
function Happened({ events }: { events: readonly EventReply[] }) {
  const dayAndTime = useDayAndTime();
  return (
    <Box component="section" aria-label="What happened" sx={{ mt: 3 }}>
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        What happened
      </Typography>
      <Box component="ol" sx={{ m: 0, p: 0, listStyle: "none" }}>
        {events.map((event) => (
          <Typography component="li" variant="body2" key={`${event.kind} ${event.at}`} sx={{ py: 0.25 }}>
            {asSentence(event.kind)}
            <Box component="span" sx={{ color: "text.secondary" }}>
              {" "}
              · {dayAndTime(event.at)}
              {event.person && ` · ${event.person}`}
            </Box>
            {event.about && (
              <Box
                sx={{ whiteSpace: "pre-line", overflowWrap: "anywhere", pl: 1, borderLeft: 2, borderColor: "divider" }}
              >
                {event.about}
              </Box>
            )}
          </Typography>
        ))}
      </Box>
    </Box>
  );
}

const asSentence = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
