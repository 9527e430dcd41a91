// What the team marks one response with: its status, who has it in hand, tags.
import Box from "@mui/material/Box";
import Chip from "@mui/material/Chip";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useQuery } from "@tanstack/react-query";
import { reasonOf } from "../../api/client";
import type { RowReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { mayMark, useSignedIn } from "../signed_in";
import { FACET } from "./facets";
import { NewTag } from "./NewTag";
import { useMarking } from "./useMarking";

export function Marks({ formId, row }: { formId: string; row: RowReply }) {
  const asking = useQuery(queries.asking(formId));
  const who = useSignedIn();
  const mark = useMarking(formId, [row.number]);
  const options = (facet: string) => asking.data?.columns.find((each) => each.id === facet)?.options ?? [];
  if (!asking.data || !mayMark(who)) return null;
  return (
    <Box role="group" aria-label="Marks" sx={{ display: "grid", gap: 1, mb: 2 }}>
      <Box sx={{ display: "flex", gap: 1 }}>
        {asking.data.statuses.length > 0 && (
          <OneOf
            label="Status"
            none="No status"
            value={row.status}
            options={options(FACET.status)}
            onGive={(value) => mark.mutate({ kind: "status", value })}
          />
        )}
        <OneOf
          label="In hand of"
          none="Nobody"
          value={row.person}
          options={options(FACET.person)}
          onGive={(value) => mark.mutate({ kind: "person", value })}
        />
      </Box>
      <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap", alignItems: "center" }}>
        {row.tags.map((tag) => (
          <Chip key={tag} size="small" label={tag} onDelete={() => mark.mutate({ kind: "untag", value: tag })} />
        ))}
        <NewTag onGive={(value) => mark.mutate({ kind: "tag", value })} />
      </Box>
      {mark.isError && (
        <Box role="alert" sx={{ color: "error.main" }}>
          {reasonOf(mark.error)}
        </Box>
      )}
    </Box>
  );
}

interface OneOfProps {
  label: string;
  none: string;
  value: string;
  options: readonly { code: string; label: string }[];
  onGive: (value: string) => void;
}

function OneOf({ label, none, value, options, onGive }: OneOfProps) {
  // A status that the team has taken away is still what this response has.
  const known = value === "" || options.some((each) => each.code === value);
  return (
    <TextField
      select
      label={label}
      value={value}
      onChange={(event) => onGive(event.target.value)}
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
    >
      <MenuItem value="">{none}</MenuItem>
      {(known ? options : [...options, { code: value, label: value }]).map((each) => (
        <MenuItem key={each.code} value={each.code}>
          {each.label}
        </MenuItem>
      ))}
    </TextField>
  );
}
