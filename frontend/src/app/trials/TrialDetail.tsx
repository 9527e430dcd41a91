// One trial: how it ended, its answers, and what it expects; each expectation can be left out.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { type ReactNode } from "react";
import { useNavigate } from "react-router";
import type { Expected, OutcomeReply, TrialResult } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { Bars } from "../../form/Bars";
import { brandClasses, brandStyle } from "../../form/brand";
import { newId } from "../../model/new_block";
import { FORM, type Trial } from "../../model/parts";
import { counted } from "../../text/words";
import { KeptTextField } from "../../ui/KeptTextField";
import { useBench } from "../workbench/bench";
import { areaOf } from "../workbench/useOpenPart";
import { useNameOf } from "../workbench/names_seen";
import { WhatBroke } from "./WhatBroke";

interface Props {
  trial: Trial;
  result: TrialResult | undefined;
}

export function TrialDetail({ trial, result }: Props) {
  const { act, mayEdit, form, reply, parts, select } = useBench();
  const navigate = useNavigate();
  const edit = (changes: Partial<Trial>) => act({ do: "edit", parts: [trial.id], changes });
  const duplicate = () =>
    act({
      do: "add",
      parts: [{ ...trial, id: newId(), name: `${trial.name} 2` } as Trial],
      into: { holder: FORM, list: "trials" },
      at: form.trials.findIndex((each) => each.id === trial.id) + 1,
    });
  return (
    <Box component="section" aria-label={trial.name} sx={{ mb: 4 }}>
      <Box
        component="fieldset"
        disabled={!mayEdit}
        sx={{ m: 0, p: 0, border: 0, display: "flex", gap: 1.5, alignItems: "start", mb: 2 }}
      >
        <KeptTextField
          label="Name of the trial"
          value={trial.name}
          onKeep={(name) => edit({ name })}
          sx={{ maxWidth: 340 }}
        />
        <TextField
          type="date"
          label="On the day"
          value={trial.day}
          helperText="What TODAY() is in it"
          onChange={(event) => event.target.value && edit({ day: event.target.value })}
          slotProps={{ inputLabel: { shrink: true } }}
          sx={{ maxWidth: 170 }}
        />
        <Button color="inherit" onClick={() => void navigate(`/forms/${reply.id}/preview?trial=${trial.id}`)}>
          Open in preview
        </Button>
        <Button color="inherit" onClick={duplicate}>
          Duplicate
        </Button>
        <Button color="error" onClick={() => act({ do: "remove", parts: [trial.id] })}>
          Remove
        </Button>
      </Box>
      {result && !result.passed && (
        <Box role="alert" sx={{ mb: 2, p: 2, borderLeft: 3, borderColor: "note.check", bgcolor: "noteTint.check" }}>
          <Typography variant="h2" sx={{ mb: 1 }}>
            Something else came out
          </Typography>
          <Table size="small" aria-label="Differences">
            <TableHead>
              <TableRow>
                <TableCell>Of</TableCell>
                <TableCell>Expected</TableCell>
                <TableCell>Came</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {result.differences.map((difference, at) => (
                <TableRow key={at}>
                  <TableCell>
                    {difference.part && parts.has(difference.part) ? (
                      <Button
                        size="small"
                        color="inherit"
                        sx={{ p: 0, minWidth: 0, textAlign: "left" }}
                        onClick={() => {
                          const what = parts.get(difference.part!)!.what;
                          void navigate(`/forms/${reply.id}/${areaOf(what)}`);
                          select(difference.part);
                        }}
                      >
                        {difference.name}
                      </Button>
                    ) : (
                      difference.name
                    )}
                  </TableCell>
                  <TableCell>{difference.expected}</TableCell>
                  <TableCell sx={{ fontWeight: 600 }}>{difference.came}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
          <WhatBroke trial={trial.id} />
          {mayEdit && (
            <Button sx={{ mt: 1 }} onClick={() => edit({ expected: narrowed(result.outcome, trial.expected) })}>
              Expect what came from now on
            </Button>
          )}
        </Box>
      )}
      <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0,1fr) minmax(0,1fr)", gap: 3, alignItems: "start" }}>
        <Answers trial={trial} />
        <Expectations trial={trial} result={result} onChange={(expected) => edit({ expected })} />
      </Box>
    </Box>
  );
}

/** What came out, of what was looked at. */
function narrowed(came: Expected, looked: Expected): Expected {
  const ids = new Set([...looked.shown, ...looked.hidden]);
  const of = (texts: Record<string, string>, wanted: Record<string, string>) =>
    Object.fromEntries(Object.entries(texts).filter(([id]) => id in wanted));
  return {
    shown: came.shown.filter((id) => ids.has(id)),
    hidden: came.hidden.filter((id) => ids.has(id)),
    figures: of(came.figures, looked.figures),
    exact: of(came.exact, looked.exact),
    wrong: looked.wrong === null ? null : came.wrong,
    path: looked.path === null ? null : came.path,
    confirmation: looked.confirmation === null ? null : came.confirmation,
    follow_ups: looked.follow_ups === null ? null : came.follow_ups,
  };
}

function Answers({ trial }: { trial: Trial }) {
  const { parts, reply, saved } = useBench();
  const outcome = useQuery(queries.outcome(reply.id, saved.revision, trial));
  const given = [...parts.values()].filter(({ id }) => id in trial.answers);
  const links = Object.entries(trial.link);
  return (
    <Box component="section" aria-label="Answers">
      <Typography variant="h2">With these answers</Typography>
      <Table size="small" aria-label="Answers" sx={{ "& td:first-of-type": { pl: 0 } }}>
        <TableBody>
          {given.map((entry) => (
            <TableRow key={entry.id}>
              <TableCell sx={{ color: "text.secondary" }}>
                {entry.number} {entry.title}
              </TableCell>
              <TableCell>{outcome.data?.values[entry.id] || summary(trial.answers[entry.id])}</TableCell>
            </TableRow>
          ))}
          {trial.visitor.email && (
            <TableRow>
              <TableCell sx={{ color: "text.secondary" }}>Who fills in</TableCell>
              <TableCell>
                {trial.visitor.name}, {trial.visitor.email}
                {trial.visitor.groups.length > 0 && `, in ${trial.visitor.groups.join(", ")}`}
              </TableCell>
            </TableRow>
          )}
          {links.map(([name, value]) => (
            <TableRow key={name}>
              <TableCell sx={{ color: "text.secondary" }}>link.{name}</TableCell>
              <TableCell>{value}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {given.length === 0 && <Typography color="text.secondary">Nothing is answered.</Typography>}
      {outcome.data && <ChartsOf outcome={outcome.data} />}
    </Box>
  );
}

/** The charts of the confirmation that follows, as visitors see them. */
function ChartsOf({ outcome }: { outcome: OutcomeReply }) {
  const { form } = useBench();
  const { confirmation } = outcome.outcome;
  const charts = Object.entries(outcome.charts).filter(
    ([place, bars]) => place.startsWith(`${confirmation}.`) && bars.length > 0,
  );
  if (charts.length === 0) return null;
  return (
    <Box
      component="section"
      aria-label="Charts of the confirmation"
      className={brandClasses(form.brand)}
      style={brandStyle(form.brand)}
      sx={{ mt: 2, p: 2, maxWidth: 480 }}
    >
      {charts.map(([place, bars]) => (
        <Bars key={place} bars={bars} />
      ))}
    </Box>
  );
}

const isRows = (answers: readonly unknown[]): boolean =>
  answers.some((each) => typeof each === "object" && each !== null && "values" in each);

const summary = (answer: unknown): string =>
  Array.isArray(answer)
    ? counted(answer.length, isRows(answer) ? "row" : "choice")
    : typeof answer === "string"
      ? answer
      : JSON.stringify(answer);

/** Texts with another one for an id, or without one. */
function withText(texts: Record<string, string>, id: string, text: string | undefined): Record<string, string> {
  const others = Object.entries(texts).filter(([each]) => each !== id);
  return Object.fromEntries(text === undefined ? others : [...others, [id, text]]);
}

interface ExpectationsProps {
  trial: Trial;
  result: TrialResult | undefined;
  onChange: (expected: Expected) => void;
}

/** Everything that came out of the last run can be expected, or left out. */
function Expectations({ trial, result, onChange }: ExpectationsProps) {
  const { parts, mayEdit } = useBench();
  const { expected } = trial;
  const came = result?.outcome;
  const nameOf = useNameOf();
  const name = (id: string) => nameOf(id, "something deleted");
  const without = (list: readonly string[], id: string) => list.filter((each) => each !== id);
  const inOrder = (ids: readonly string[]) => {
    const order = [...parts.keys()];
    return [...new Set(ids)].sort((one, other) => order.indexOf(one) - order.indexOf(other));
  };
  const shownIds = inOrder([...expected.shown, ...expected.hidden, ...(came?.shown ?? []), ...(came?.hidden ?? [])]);
  const figureIds = inOrder([...Object.keys(expected.figures), ...Object.keys(came?.figures ?? {})]);
  const row = (key: string, on: boolean, words: ReactNode, onToggle: (on: boolean) => void) => (
    <Looked key={key} on={on} disabled={!mayEdit || (!on && !came)} onToggle={onToggle}>
      {words}
    </Looked>
  );
  return (
    <Box component="section" aria-label="Expected">
      <Typography variant="h2">This must come out</Typography>
      {row(
        "path",
        expected.path !== null,
        <>
          the pages{" "}
          {(expected.path ?? came?.path ?? []).map((id) => parts.get(id)?.number ?? "?").join(" → ") || "none"}
        </>,
        (on) => onChange({ ...expected, path: on ? (came?.path ?? null) : null }),
      )}
      {row(
        "confirmation",
        expected.confirmation !== null,
        <>
          the confirmation{" "}
          <b>
            {(expected.confirmation ?? came?.confirmation)
              ? name((expected.confirmation ?? came?.confirmation)!)
              : "with the form’s usual words"}
          </b>
        </>,
        (on) => onChange({ ...expected, confirmation: on ? (came?.confirmation ?? null) : null }),
      )}
      {row(
        "wrong",
        expected.wrong !== null,
        (expected.wrong ?? came?.wrong ?? []).length === 0
          ? "nothing wrong with the answers"
          : `errors at ${(expected.wrong ?? came?.wrong ?? []).map((address) => name(address.split("/").at(-1)!)).join(", ")}`,
        (on) => onChange({ ...expected, wrong: on ? (came?.wrong ?? null) : null }),
      )}
      {(Object.keys(expected.follow_ups ?? came?.follow_ups ?? {}).length > 0 || expected.follow_ups !== null) &&
        row(
          "follow-ups",
          expected.follow_ups !== null,
          <>
            the follow-ups <b>{Object.values(expected.follow_ups ?? came?.follow_ups ?? {}).join("; ") || "none"}</b>
          </>,
          (on) => onChange({ ...expected, follow_ups: on ? (came?.follow_ups ?? null) : null }),
        )}
      {figureIds.map((id) => (
        <FigureRow
          key={id}
          name={name(id)}
          looked={expected.figures[id]}
          exactly={expected.exact[id]}
          came={came?.figures[id]}
          cameExactly={came?.exact[id]}
          mayEdit={mayEdit}
          onChange={(text, exactly) =>
            onChange({
              ...expected,
              figures: withText(expected.figures, id, text),
              exact: withText(expected.exact, id, exactly),
            })
          }
        />
      ))}
      {shownIds.map((id) => {
        const on = expected.shown.includes(id) || expected.hidden.includes(id);
        const shown = on ? expected.shown.includes(id) : came?.shown.includes(id);
        return row(
          `${id} shown`,
          on,
          <>
            {name(id)} <b>{shown ? "shown" : "hidden"}</b>
          </>,
          (next) =>
            onChange({
              ...expected,
              shown: next && shown ? [...expected.shown, id] : without(expected.shown, id),
              hidden: next && !shown ? [...expected.hidden, id] : without(expected.hidden, id),
            }),
        );
      })}
    </Box>
  );
}

interface LookedProps {
  on: boolean;
  disabled: boolean;
  onToggle: (on: boolean) => void;
  children: ReactNode;
}

/** Something that is looked at, or left out. */
function Looked({ on, disabled, onToggle, children }: LookedProps) {
  return (
    <Box
      component="label"
      sx={{ display: "flex", fontSize: 14, lineHeight: "24px", color: on ? undefined : "text.secondary" }}
    >
      <Checkbox
        size="small"
        checked={on}
        disabled={disabled}
        onChange={(_event, next) => onToggle(next)}
        sx={{ p: 0.25, mr: 0.5, alignSelf: "start" }}
      />
      <span>{children}</span>
    </Box>
  );
}

interface FigureRowProps {
  name: string;
  /** What is expected, as people read it and to the last digit; undefined where that is not looked at. */
  looked: string | undefined;
  exactly: string | undefined;
  came: string | undefined;
  cameExactly: string | undefined;
  mayEdit: boolean;
  onChange: (text: string | undefined, exactly: string | undefined) => void;
}

/** A figure; a number is compared to the last digit, unless its author wants it as people read it. */
function FigureRow({ name, looked, exactly, came, cameExactly, mayEdit, onChange }: FigureRowProps) {
  const on = looked !== undefined;
  const number = exactly ?? cameExactly;
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "start" }}>
      <Looked
        on={on}
        disabled={!mayEdit || (!on && came === undefined)}
        onToggle={(next) => (next ? onChange(came ?? "", cameExactly) : onChange(undefined, undefined))}
      >
        {name} <b>{(looked ?? came) || "blank"}</b>
      </Looked>
      {on && number !== undefined && (
        <Box
          component="button"
          type="button"
          aria-label={`${exactly === undefined ? "as read" : `exactly ${exactly}`}: ${name}`}
          title={
            exactly === undefined
              ? "Compared as people read it. Press to compare the exact number."
              : `Compared as exactly ${exactly}. Press to compare it as people read it.`
          }
          disabled={!mayEdit || cameExactly === undefined}
          onClick={() => onChange(looked, exactly === undefined ? cameExactly : undefined)}
          sx={{
            font: "inherit",
            fontSize: 12,
            lineHeight: "24px",
            p: 0,
            border: 0,
            background: "none",
            color: "text.secondary",
            textDecoration: "underline dotted",
            cursor: "pointer",
          }}
        >
          {exactly === undefined ? "as read" : `exactly ${exactly}`}
        </Box>
      )}
    </Box>
  );
}
