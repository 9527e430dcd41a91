// Who of the team sees a table, and who changes its records.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import FormLabel from "@mui/material/FormLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, reasonOf } from "../../api/client";
import type { TableReply, TableRightsRequest } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { GroupsChoice } from "../follow_ups/AccountEditor";
import type { Role } from "../team/roles";

const WORDS = {
  viewer: "Everybody of the team",
  reviewer: "Reviewers, editors, owners",
  editor: "Editors and owners",
  owner: "Owners only",
} satisfies Record<Role, string>;
const ROLES = Object.keys(WORDS) as Role[];

export function TableRights({ table }: { table: TableReply }) {
  const queryClient = useQueryClient();
  const grant = useMutation({
    mutationFn: (rights: TableRightsRequest) => api.grantTable(table.id, rights),
    onSuccess: (granted) => queryClient.setQueryData(queries.table(table.id).queryKey, granted),
  });
  const { seen_by, changed_by, seen_groups, changed_groups } = table;
  const rights = { seen_by, changed_by, seen_groups, changed_groups };
  const choice = (label: string, value: Role, roles: readonly Role[], onChoose: (role: Role) => void) => (
    <TextField
      select
      fullWidth
      label={label}
      value={value}
      disabled={grant.isPending}
      onChange={(event) => onChoose(event.target.value as Role)}
    >
      {roles.map((role) => (
        <MenuItem key={role} value={role}>
          {WORDS[role]}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <Box
      role="group"
      aria-label="Who may"
      sx={{ display: "grid", gap: 1.5, width: "100%", pt: 1, borderTop: 1, borderColor: "divider" }}
    >
      <FormLabel>Who of the team may do what</FormLabel>
      {choice("Sees it", seen_by, ROLES, (role) =>
        // Whoever changes it sees it.
        grant.mutate({
          ...rights,
          seen_by: role,
          changed_by: later(changed_by, role) as TableRightsRequest["changed_by"],
        }),
      )}
      {choice("Changes its records", changed_by, ROLES.slice(Math.max(1, ROLES.indexOf(seen_by))), (role) =>
        grant.mutate({ ...rights, changed_by: role as TableRightsRequest["changed_by"] }),
      )}
      <GroupsChoice
        label="Groups who see it besides"
        codes={seen_groups}
        onChange={(groups) => grant.mutate({ ...rights, seen_groups: groups })}
      />
      <GroupsChoice
        label="Groups who change its records besides"
        codes={changed_groups}
        onChange={(groups) => grant.mutate({ ...rights, changed_groups: groups })}
      />
      {grant.isError && <Alert severity="error">{reasonOf(grant.error)}</Alert>}
    </Box>
  );
}

const later = (one: Role, other: Role): Role => (ROLES.indexOf(one) > ROLES.indexOf(other) ? one : other);
