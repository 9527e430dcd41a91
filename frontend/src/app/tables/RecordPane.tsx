// A record beside the worksheet: all of it, and what was done to it.
import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import IconButton from "@mui/material/IconButton";
import Link from "@mui/material/Link";
import Switch from "@mui/material/Switch";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as RouterLink } from "react-router";
import type { RecordReply, TableReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { asDayAndTime, counted } from "../../text/words";
import { RecordFiles } from "./RecordFiles";

interface Props {
  table: TableReply;
  record: RecordReply | undefined;
  /** Has it offered to be chosen, or no more; null for who may not. */
  /** What shows the record as it is after a change of its files; null where it can't be changed. */
  onChanged: ((record: RecordReply) => void) | null;
  onOffer: ((number: number, offered: boolean) => void) | null;
  onClose: () => void;
}

export const PaneHead = ({ title, onClose }: { title: string; onClose: () => void }) => (
  <Box sx={{ display: "flex", alignItems: "center", mb: 1.5 }}>
    <Typography variant="h2" sx={{ flex: 1, overflowWrap: "anywhere" }}>
      {title}
    </Typography>
    <IconButton aria-label="Close" onClick={onClose} sx={{ width: 30, height: 30, fontSize: 18 }}>
      ×
    </IconButton>
  </Box>
);

export function RecordPane({ table, record, onChanged, onOffer, onClose }: Props) {
  if (!record) return <PaneHead title="No record here yet" onClose={onClose} />;
  return (
    <>
      <PaneHead title={record.name || `Record ${record.number}`} onClose={onClose} />
      <Box component="dl" sx={{ m: 0, display: "grid", gap: 1.25 }}>
        {table.columns.map((column) => (
          <Box key={column.id}>
            <Typography component="dt" variant="body2" color="text.secondary">
              {column.label}
            </Typography>
            <Box component="dd" sx={{ m: 0, overflowWrap: "anywhere", whiteSpace: "pre-line" }}>
              {column.files ? (
                <RecordFiles table={table} column={column} record={record} onChanged={onChanged} />
              ) : (
                (record.cells[column.id] ?? "–")
              )}
            </Box>
          </Box>
        ))}
      </Box>
      <FormControlLabel
        sx={{ mt: 2 }}
        label="Offered to be chosen"
        control={
          <Switch
            checked={record.offered}
            disabled={!onOffer}
            onChange={(_event, offered) => onOffer?.(record.number, offered)}
          />
        }
      />
      {table.published && (
        <Typography variant="body2" sx={{ mt: 1 }}>
          {record.published_at
            ? `Anybody may read it, since ${asDayAndTime(record.published_at)}.`
            : "It waits: only the team reads it."}
        </Typography>
      )}
      <NamedBy table={table} record={record} />
      <Past table={table} record={record} />
    </>
  );
}

/** Which records of other tables name it. */
function NamedBy({ table, record }: { table: TableReply; record: RecordReply }) {
  const found = useQuery({ ...queries.recordNamed(table.id, record.number), staleTime: 0 });
  const { naming = [], responses = [], forms = [] } = found.data ?? {};
  if (naming.length + responses.length + forms.length === 0) return null;
  return (
    <Box component="section" aria-label="What refers to it" sx={{ mt: 2 }}>
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        What refers to it
      </Typography>
      {responses.map((each) => (
        <Typography key={`${each.form} ${each.number}`} variant="body2">
          <Link component={RouterLink} to={`/forms/${each.form}/responses/${each.number}`}>
            {each.name}, response {each.number}
          </Link>{" "}
          {each.kind} it
        </Typography>
      ))}
      {record.offered &&
        forms.map((each) => (
          <Typography key={each.id} variant="body2">
            Offered in{" "}
            <Link component={RouterLink} to={`/forms/${each.id}/compose`}>
              {each.name}
            </Link>
          </Typography>
        ))}
      {naming.map((each) => (
        <Typography key={`${each.table} ${each.column}`} variant="body2">
          <Link component={RouterLink} to={`/tables/${each.table}`}>
            {each.name}
          </Link>
          , {each.column}: {counted(each.count, "record")}
        </Typography>
      ))}
    </Box>
  );
}

const WORDS: Readonly<Record<string, string>> = {
  made: "Made",
  changed: "Changed",
  removed: "Removed",
  "brought back": "Brought back",
  published: "Published",
  "taken back": "Taken back: nobody else reads it",
};

function Past({ table, record }: { table: TableReply; record: RecordReply }) {
  const found = useQuery({ ...queries.recordHistory(table.id, record.number), staleTime: 0 });
  const changes = found.data?.changes ?? [];
  return (
    <Box component="section" aria-label="What happened" sx={{ mt: 3 }}>
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        What happened
      </Typography>
      <Box component="ol" sx={{ m: 0, p: 0, listStyle: "none" }}>
        {changes.map((change, at) => {
          const after = changes.slice(0, at).findLast((each) => each.kind === "changed")?.cells ?? record.cells;
          const columns = table.columns.filter((each) => change.cells[each.id] !== after[each.id]);
          return (
            <Typography component="li" variant="body2" key={`${change.at} ${at}`} sx={{ py: 0.5 }}>
              {WORDS[change.kind]}
              <Box component="span" sx={{ color: "text.secondary" }}>
                {" · "}
                {asDayAndTime(change.at)}
                {change.person && ` · ${change.person}`}
              </Box>
              {change.kind === "changed" &&
                columns.map((each) => (
                  <Box key={each.id} sx={{ pl: 1, borderLeft: 2, borderColor: "divider", overflowWrap: "anywhere" }}>
                    {each.label}: <del>{change.cells[each.id] ?? "–"}</del> → {after[each.id] ?? "–"}
                  </Box>
                ))}
            </Typography>
          );
        })}
      </Box>
    </Box>
  );
}
