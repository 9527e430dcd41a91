// Of which product a quantity says how many: one beside it whose quantity is asked apart.
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { QuantityField } from "../../api/generated/wire";
import { useBench } from "../workbench/bench";
import type { ComposeActions } from "./actions";

export function QuantityProduct({ block, actions }: { block: QuantityField; actions: ComposeActions }) {
  const { parts } = useBench();
  const own = parts.get(block.id)?.kind ?? null;
  const products = [...parts.values()].filter(
    (entry) => entry.what === "block" && entry.part.type === "product" && entry.kind === own,
  );
  const known = products.some(({ id }) => id === block.product);
  return (
    <TextField
      select
      label="Of the product"
      value={known ? block.product : ""}
      helperText="A product beside it that asks how many apart"
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      onChange={(event) => actions.edit(block.id, { product: event.target.value })}
    >
      <MenuItem value="">none yet</MenuItem>
      {products.map(({ id, number, title }) => (
        <MenuItem key={id} value={id}>
          {number} {title}
        </MenuItem>
      ))}
    </TextField>
  );
}
