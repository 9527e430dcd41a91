// Sealed links of a table: pasted rows or a CSV, columns picked, lines that are wrong told, then made all at once.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, type LinksAsked, reasonOf } from "../../api/client";
import { counted } from "../../text/words";
import { DecimalField } from "../../ui/DecimalField";
import { LongTextField } from "../../ui/LongTextField";
import { OneOfField } from "../../ui/OneOfField";
import { useBench } from "../workbench/bench";
import { Panel } from "./Layout";
import { inBase64, likelyColumns, likelyEmail, textInBase64 } from "./link_tables";

const MOST_BYTES = 20 * 1024 * 1024;

interface Source {
  /** Tells it from what was read before; the table itself is too large to be compared. */
  id: string;
  name: string;
  table: string;
}

/** `show` puts the first line's values where the form is seen. */
export function FromTable({ show }: { show: (values: Readonly<Record<string, string>>) => void }) {
  const { reply, form, parts } = useBench();
  const queryClient = useQueryClient();
  const chooser = useRef<HTMLInputElement>(null);
  const [source, setSource] = useState<Source | null>(null);
  const [pasted, setPasted] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [picked, setPicked] = useState<Partial<Pick<LinksAsked, "columns" | "email">>>({});
  const [until, setUntil] = useState("");
  const [uses, setUses] = useState<number | null>(null);
  const [name, setName] = useState("");
  const nothing = { columns: {}, until: "", uses: null, email: "" };
  const heads = useQuery({
    queryKey: ["links' heads", reply.id, source?.id],
    queryFn: () => api.planLinks(reply.id, { table: source!.table, name: "Links", ...nothing }),
    enabled: source !== null,
    retry: false,
    gcTime: 0,
  });
  const headers = heads.data?.headers ?? [];
  const labels = new Map(
    [...parts.values()].flatMap((entry) => (entry.what === "block" ? [[entry.id, entry.title]] : [])) as [
      string,
      string,
    ][],
  );
  const columns = picked.columns ?? likelyColumns(form.links, labels, headers);
  const email = picked.email ?? likelyEmail(headers);
  const asked: LinksAsked = {
    table: source?.table ?? "",
    name: name || source?.name || "Links",
    columns,
    until,
    uses,
    email,
  };
  const plan = useQuery({
    queryKey: ["links' plan", reply.id, source?.id, columns, email],
    queryFn: () => api.planLinks(reply.id, asked),
    enabled: source !== null && heads.isSuccess && Object.keys(columns).length > 0,
    retry: false,
    gcTime: 0,
    placeholderData: (before) => before,
  });
  const choices = headers.map((each) => ({ value: each, label: each }));
  const make = useMutation({
    mutationFn: () => api.makeLinks(reply.id, asked),
    onSuccess: () => {
      setSource(null);
      setPasted("");
      setPicked({});
      setName("");
      return queryClient.invalidateQueries({ queryKey: ["links", reply.id] });
    },
  });
  const begin = (next: Omit<Source, "id">) => {
    make.reset();
    setPicked({});
    setProblem(null);
    setSource({ id: crypto.randomUUID(), ...next });
  };
  const take = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > MOST_BYTES) return setProblem("This file is larger than 20 MB. Split it.");
    begin({ name: file.name, table: inBase64(new Uint8Array(await file.arrayBuffer())) });
  };
  return (
    <Panel title="Many links of a table" lead="A line each; the first line names the columns.">
      {source === null && (
        <>
          <LongTextField
            lines={3}
            label="Rows from a spreadsheet"
            value={pasted}
            placeholder={"Title\tNo.\tSpeaker\nThe quiet Sun\t0007\tM. Adeyemi"}
            onChange={(event) => setPasted(event.target.value)}
          />
          <Box sx={{ display: "flex", gap: 1 }}>
            <Button
              variant="outlined"
              disabled={!pasted.trim()}
              onClick={() => begin({ name: "Pasted rows", table: textInBase64(pasted) })}
            >
              Read the rows
            </Button>
            <Button variant="outlined" color="inherit" onClick={() => chooser.current?.click()}>
              Choose a CSV
            </Button>
            <input
              ref={chooser}
              hidden
              type="file"
              accept=".csv,.tsv,.txt,text/csv"
              aria-label="CSV file"
              onChange={(event) => {
                void take(event.target.files?.[0]);
                event.target.value = "";
              }}
            />
          </Box>
          {make.data && <Alert severity="success">{counted(make.data.links, "link")} made; they stand below.</Alert>}
        </>
      )}
      {problem && <Alert severity="error">{problem}</Alert>}
      {heads.isError && <Alert severity="error">{reasonOf(heads.error)}</Alert>}
      {source && heads.data && (
        <>
          <Typography>
            <b>{source.name}</b>: {counted(heads.data.lines, "line")}
            {heads.data.empty > 0 && `, ${counted(heads.data.empty, "empty one")} passed over`}.
          </Typography>
          <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(200px, 1fr))", gap: 1.5 }}>
            {form.links.map((link) => (
              <OneOfField
                key={link.name}
                label={`Column for ${link.name}`}
                none="none"
                choices={choices}
                value={columns[link.name] ?? ""}
                onPick={(header) => {
                  const rest = Object.entries(columns).filter(([name]) => name !== link.name);
                  setPicked({
                    ...picked,
                    columns: Object.fromEntries(header ? [...rest, [link.name, header]] : rest),
                  });
                }}
              />
            ))}
            <OneOfField
              label="Column of e-mail addresses"
              none="none"
              choices={choices}
              value={email}
              onPick={(header) => setPicked({ ...picked, email: header })}
            />
            <TextField
              type="datetime-local"
              label="Valid until"
              value={until}
              onChange={(event) => setUntil(event.target.value)}
              slotProps={{ inputLabel: { shrink: true } }}
            />
            <DecimalField
              whole
              blank
              least={1}
              most={1_000_000}
              label="How often each may be used"
              help="Blank: any number of times"
              value={uses === null ? null : String(uses)}
              onChange={(next) => setUses(next === null ? null : Number(next))}
            />
            <TextField
              label="Called"
              value={name}
              placeholder={source.name}
              onChange={(event) => setName(event.target.value)}
              slotProps={{ inputLabel: { shrink: true } }}
            />
          </Box>
          {plan.isError && <Alert severity="error">{reasonOf(plan.error)}</Alert>}
          {plan.data && plan.data.wrong_count > 0 && (
            <Alert severity="warning">
              {counted(plan.data.wrong_count, "line")} left out:
              <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
                {plan.data.wrong.slice(0, 20).map(({ number, message }) => (
                  <li key={number}>
                    line {number} {message}
                  </li>
                ))}
              </Box>
              {plan.data.wrong_count > 20 && `and ${plan.data.wrong_count - 20} more.`}
            </Alert>
          )}
          {make.isError && <Alert severity="error">{reasonOf(make.error)}</Alert>}
          <Box sx={{ display: "flex", gap: 1 }}>
            <Button
              variant="contained"
              disabled={!plan.data || plan.data.links === 0}
              loading={make.isPending}
              onClick={() => make.mutate()}
            >
              Make {counted(plan.data?.links ?? 0, "link")}
            </Button>
            <Button color="inherit" disabled={!plan.data?.first[0]} onClick={() => show(plan.data!.first[0]!)}>
              See the first
            </Button>
            <Button color="inherit" onClick={() => setSource(null)}>
              Leave it
            </Button>
          </Box>
        </>
      )}
    </Panel>
  );
}
