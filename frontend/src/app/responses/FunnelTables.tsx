// The tables beside a funnel: fields with how many left there or were told of an error, and visits told apart.
import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import type { FieldCountReply, FunnelReply } from "../../api/generated/wire";
import { share } from "../../text/visits";

const TABLE = {
  borderCollapse: "collapse",
  width: "100%",
  fontSize: 13,
  tableLayout: "fixed",
  "& td, & th": { p: 0.5, textAlign: "right", fontWeight: 400, fontVariantNumeric: "tabular-nums" },
  "& thead th": { color: "text.secondary", fontSize: 12, verticalAlign: "bottom" },
  "& th:first-of-type": { textAlign: "left", overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" },
} as const;

interface FieldsProps {
  fields: readonly FieldCountReply[];
  all: number;
  nothing: string;
}

export function FieldsTable({ fields, all, nothing }: FieldsProps) {
  if (fields.length === 0)
    return (
      <Typography variant="body2" color="text.secondary">
        {nothing}
      </Typography>
    );
  return (
    <Box component="table" sx={TABLE}>
      <thead>
        <tr>
          <th scope="col">Field</th>
          <Box component="th" scope="col" sx={{ width: 64 }}>
            Visitors
          </Box>
          <Box component="th" scope="col" sx={{ width: 48 }}>
            Share
          </Box>
        </tr>
      </thead>
      <tbody>
        {fields.map(({ id, number, label, count }) => (
          <tr key={id}>
            <th scope="row" title={label}>
              <Box component="span" sx={{ color: "text.secondary" }}>
                {number}
              </Box>{" "}
              {label}
            </th>
            <td>{count.toLocaleString("en")}</td>
            <td>{share(count, all)}</td>
          </tr>
        ))}
      </tbody>
    </Box>
  );
}

interface GroupsProps {
  funnel: FunnelReply;
  name: string;
  onChoose: (value: string) => void;
}

export function GroupsTable({ funnel, name, onChoose }: GroupsProps) {
  return (
    <Box component="table" aria-label={`Visits told apart by ${name}`} sx={TABLE}>
      <thead>
        <tr>
          <th scope="col">{name[0]!.toUpperCase() + name.slice(1)}</th>
          {["Saw it", "Answered", "Sent it"].map((head) => (
            <Box component="th" key={head} scope="col" sx={{ width: 110 }}>
              {head}
            </Box>
          ))}
        </tr>
      </thead>
      <tbody>
        {funnel.groups.map(({ value, label, choosable, seen, started, sent }) => (
          <tr key={value}>
            <th scope="row" title={label}>
              {choosable ? (
                <Link component="button" title={`Only ${label}`} onClick={() => onChoose(value)} sx={{ fontSize: 13 }}>
                  {label}
                </Link>
              ) : (
                label
              )}
            </th>
            <td>{seen.toLocaleString("en")}</td>
            <td>
              {started.toLocaleString("en")} · {share(started, seen)}
            </td>
            <td>
              {sent.toLocaleString("en")} · {share(sent, seen)}
            </td>
          </tr>
        ))}
      </tbody>
    </Box>
  );
}
