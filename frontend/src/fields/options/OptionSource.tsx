// Where a choice has its options from: its own, a list that forms share, or the records of a table.
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import ListSubheader from "@mui/material/ListSubheader";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useMutation, useQuery } from "@tanstack/react-query";
import { api, reasonOf } from "../../api/client";
import type { Option } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { newId } from "../../model/new_block";
import { codeFrom } from "../../model/outline";
import { PLAIN_OPTION } from "./paste";

interface Props {
  takenFrom: string;
  options: readonly Option[];
  onTake: (takenFrom: string, options: readonly Option[]) => void;
}

type Found = Pick<Option, "label"> & Partial<Pick<Option, "code" | "counts_as" | "belongs_to">>;

const bare = (id: string): string => id.replaceAll("-", "");

export function OptionSource({ takenFrom, options, onTake }: Props) {
  const lists = useQuery(queries.lists()).data?.lists ?? [];
  const tables = useQuery(queries.tables()).data?.tables ?? [];
  const isList = lists.some(({ id }) => bare(id) === takenFrom);
  const isThere = isList || tables.some(({ id }) => bare(id) === takenFrom);
  const take = useMutation({
    mutationFn: async (source: string): Promise<readonly Found[]> => {
      const list = lists.find(({ id }) => bare(id) === source);
      if (list) return (await api.list(list.id)).options;
      const table = tables.find(({ id }) => bare(id) === source);
      return (await api.recordNames(table!.id)).names.map((label) => ({ label }));
    },
    onSuccess: (found, source) => onTake(source, asOptions(found, options)),
  });
  const choose = (source: string) => (source ? take.mutate(source) : onTake("", options));
  return (
    <>
      <TextField
        select
        label="Options of"
        value={takenFrom}
        disabled={take.isPending}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        helperText={isList ? "Labels, codes and numbers follow the list; prices and rules are this form’s own." : ""}
        onChange={(event) => choose(event.target.value)}
      >
        <MenuItem value="">this form alone</MenuItem>
        {takenFrom && !isThere && (
          <MenuItem value={takenFrom} disabled>
            a list that is not there any more
          </MenuItem>
        )}
        {lists.length > 0 && <ListSubheader>Lists</ListSubheader>}
        {lists.map(({ id, name }) => (
          <MenuItem key={id} value={bare(id)}>
            {name}
          </MenuItem>
        ))}
        {tables.length > 0 && <ListSubheader>The records of</ListSubheader>}
        {tables.map(({ id, name }) => (
          <MenuItem key={id} value={bare(id)}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      {takenFrom && isThere && (
        <Button
          size="small"
          color="inherit"
          loading={take.isPending}
          onClick={() => take.mutate(takenFrom)}
          sx={{ justifySelf: "start" }}
        >
          Take them again as they are now
        </Button>
      )}
      {take.isError && <Alert severity="error">{reasonOf(take.error)}</Alert>}
    </>
  );
}

/** Options as a list or a table has them; one that was there, by its code, else by its label, keeps what a form has set. */
export function asOptions(found: readonly Found[], before: readonly Option[]): Option[] {
  const byCode = new Map(before.map((each) => [each.code, each]));
  const byLabel = new Map(before.map((each) => [each.label, each]));
  const codes = found.flatMap(({ code }) => code ?? []);
  return found.map((each) => {
    const known = each.code ? byCode.get(each.code) : byLabel.get(each.label);
    const code = each.code ?? (known && !codes.includes(known.code) ? known.code : codeFrom(each.label, codes));
    if (!each.code) codes.push(code);
    const made = known ?? { id: newId(), counts_as: "0", ...PLAIN_OPTION };
    return { ...made, ...each, code };
  });
}
