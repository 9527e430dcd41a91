// Which table the records are of, which of them are offered, and what is shown of each.
import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import Link from "@mui/material/Link";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { useQuery } from "@tanstack/react-query";
import { Link as RouterLink } from "react-router";
import type { RecordChoiceField } from "../../api/generated/wire";
import { api } from "../../api/client";
import { queries } from "../../api/queries";
import { ChangedTable } from "../tables/ChangedTable";
import { columnsOf, knowing, wordsOf } from "../tables/known";
import { useBench } from "../workbench/bench";
import { FormulaButton } from "./FormulaButton";
import { RecordPlaces } from "./RecordPlaces";
import type { ComposeActions } from "./actions";

interface Props {
  block: RecordChoiceField;
  actions: ComposeActions;
}

/** The id of a table as its address has it; forms know it without the strokes. */
const bare = (id: string): string => id.replaceAll("-", "");

export function RecordChoiceSettings({ block, actions }: Props) {
  const { form, act, mayEdit } = useBench();
  const tables = useQuery(queries.tables());
  const listed = tables.data?.tables ?? [];
  const known = form.tables.find(({ id }) => id === block.table);
  const own = listed.find(({ id }) => bare(id) === block.table);
  const choose = async (id: string) => {
    const { known: chosen } = await api.table(id);
    const changes: Partial<RecordChoiceField> =
      chosen.id === block.table
        ? {}
        : { table: chosen.id, fitting: "", shown_as: "", ordered_by: "", places: "", picture: "" };
    act({ do: "together", actions: [knowing(form.tables, chosen), { do: "edit", parts: [block.id], changes }] });
  };
  const edit = (changes: Partial<RecordChoiceField>) => actions.edit(block.id, changes);
  const columns = columnsOf(known);
  return (
    <Box role="group" aria-label="Records" sx={{ display: "grid", gap: 1.5 }}>
      <TextField
        select
        label="Of the table"
        value={own?.id ?? (known ? "known" : "")}
        disabled={!mayEdit}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        helperText={
          <Link
            component={RouterLink}
            sx={{ display: "inline-block", minHeight: 24 }}
            to={own ? `/tables/${own.id}` : "/tables"}
            target="_blank"
          >
            {own ? "Open the table" : "Make a table"}
          </Link>
        }
        onChange={(event) => void choose(event.target.value)}
      >
        {!own && (
          <MenuItem value={known ? "known" : ""} disabled>
            {known ? `${known.name}, which is not there any more` : "none yet"}
          </MenuItem>
        )}
        {listed.map(({ id, name, records }) => (
          <MenuItem key={id} value={id}>
            {name}, {records.toLocaleString("en")} {records === 1 ? "record" : "records"}
          </MenuItem>
        ))}
      </TextField>
      {own && known && <ChangedTable known={known} tableId={own.id} />}
      {known && (
        <>
          <FormulaButton
            part={block.id}
            title="Offers records of which"
            setting="fitting"
            text={block.fitting}
            absent="All; filter the records"
          />
          <TextField
            label="What is shown of a record"
            value={block.shown_as}
            disabled={!mayEdit}
            placeholder={`{${columns.find(({ id }) => id === known.named_by)?.key ?? "name"}}`}
            slotProps={{ inputLabel: { shrink: true } }}
            helperText={`With columns in braces: ${columns
              .slice(0, 4)
              .map(({ key }) => `{${key}}`)
              .join(" ")}. Empty shows its name.`}
            onChange={(event) => edit({ shown_as: event.target.value })}
          />
          <TextField
            select
            label="In the order of"
            value={block.ordered_by}
            disabled={!mayEdit}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
            onChange={(event) => edit({ ordered_by: event.target.value })}
          >
            <MenuItem value="">its name</MenuItem>
            {columns.map((column) => (
              <MenuItem key={column.id} value={column.id}>
                {wordsOf(column)}
              </MenuItem>
            ))}
          </TextField>
          <FormControlLabel
            sx={{ ml: 0, justifyContent: "space-between" }}
            labelPlacement="start"
            label="The other way round"
            control={
              <Switch
                checked={block.descending}
                disabled={!mayEdit}
                onChange={(_event, descending) => edit({ descending })}
              />
            }
          />
          {columns.some(({ type }) => type === "file_upload") && (
            <TextField
              select
              label="Picture"
              value={block.picture}
              disabled={!mayEdit}
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
              helperText={
                block.look === "dropdown" && !block.several ? "A list that opens shows none; take another look." : ""
              }
              onChange={(event) => edit({ picture: event.target.value })}
            >
              <MenuItem value="">none</MenuItem>
              {columns
                .filter(({ type }) => type === "file_upload")
                .map((column) => (
                  <MenuItem key={column.id} value={column.id}>
                    the first in {wordsOf(column)}
                  </MenuItem>
                ))}
            </TextField>
          )}
          <RecordPlaces block={block} columns={columns} edit={edit} />
        </>
      )}
    </Box>
  );
}
