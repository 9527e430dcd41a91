// What a product costs: one price, or a table of options: label · code · price · stock.
import Box from "@mui/material/Box";
import IconButton from "@mui/material/IconButton";
import Typography from "@mui/material/Typography";
import type { ClipboardEvent } from "react";
import type { ProductField } from "../../api/generated/wire";
import { newId } from "../../model/new_block";
import { codeFrom } from "../../model/outline";
import { CellBox } from "../../ui/CellBox";
import { DecimalBox, DecimalField } from "../../ui/DecimalField";
import { PictureField } from "../../ui/PictureField";
import { pastedOptions } from "../options/paste";
import type { SettingsProps } from "../settings_props";
import { byAltArrows, CodeBox, ColumnHeads, moved, NewLine } from "../table_pieces";

type Option = ProductField["options"][number];

const GRID = "minmax(0,1fr) 56px 52px 44px 18px";

export const ProductPicture = ({ block, edit }: SettingsProps<ProductField>) => (
  <PictureField label="Picture" value={block.picture} onChange={(picture) => edit({ picture })} />
);

export function ProductPrices({ block, edit, rename, mayFollow }: SettingsProps<ProductField>) {
  const { options } = block;
  const codes = options.map((option) => option.code);
  const put = (next: Option[]) => edit({ options: next });
  const change = (id: string, changes: Partial<Option>) =>
    put(options.map((option) => (option.id === id ? { ...option, ...changes } : option)));
  const relabel = (option: Option, label: string) => {
    const others = codes.filter((code) => code !== option.code);
    const follows = option.code === codeFrom(option.label, others) && mayFollow(option.code);
    change(option.id, { label, ...(follows ? { code: codeFrom(label, others) } : {}) });
  };
  const add = (label: string) =>
    put([...options, { id: newId(), code: codeFrom(label, codes), label, price: block.price ?? "0", stock: null }]);
  const paste = (event: ClipboardEvent) => {
    const pasted = pastedOptions(event.clipboardData.getData("text/plain"), codes);
    if (pasted.length === 0) return;
    event.preventDefault();
    const made = pasted.map(({ label, code, counts_as, price }) => ({ label, code, price: price ?? counts_as }));
    put([...options, ...made.map((option) => ({ ...option, id: newId(), stock: null }))]);
  };
  return (
    <Box role="group" aria-label="Prices" sx={{ display: "grid", gap: 0.5 }}>
      {options.length === 0 && (
        <DecimalField blank least={0} label="Price of each" value={block.price} onChange={(price) => edit({ price })} />
      )}
      <Typography variant="h3" component="p" color="text.secondary" sx={{ mt: 1 }}>
        {options.length === 0 ? "Or options, each with its own price" : `${options.length} options`}
      </Typography>
      {options.length > 0 && (
        <ColumnHeads columns={GRID} gap={0.5}>
          <span>Label</span>
          <span>Code</span>
          <Box component="span" sx={{ textAlign: "right" }}>
            Price
          </Box>
          <Box component="span" sx={{ textAlign: "right" }}>
            Stock
          </Box>
        </ColumnHeads>
      )}
      {options.map((option, index) => (
        <Box
          key={option.id}
          onKeyDown={byAltArrows((by) => put(moved(options, index, index + by)))}
          sx={{
            display: "grid",
            gridTemplateColumns: GRID,
            gap: 0.5,
            alignItems: "start",
          }}
        >
          <CellBox
            name={`Label of option ${index + 1}`}
            value={option.label}
            onChange={(event) => relabel(option, event.target.value)}
          />
          <CodeBox
            name={`Code of option ${index + 1}`}
            code={option.code}
            onCode={(code) => rename(`options.${index}.code`, code)}
          />
          <DecimalBox
            least={0}
            blank={false}
            label={`Price of option ${index + 1}`}
            value={option.price}
            onChange={(price) => change(option.id, { price: price ?? option.price })}
          />
          <DecimalBox
            whole
            label={`Stock of option ${index + 1}`}
            value={option.stock === null ? null : String(option.stock)}
            onChange={(stock) => change(option.id, { stock: stock === null ? null : Number(stock) })}
          />
          <IconButton
            aria-label={`Remove option ${index + 1}`}
            onClick={() => put(options.filter((each) => each.id !== option.id))}
            sx={{ width: 18, height: 28, fontSize: 14 }}
          >
            ×
          </IconButton>
        </Box>
      ))}
      <NewLine name="New option" onAdd={add} onPaste={paste} />
      {options.length > 0 && (
        <Typography variant="caption" color="text.secondary">
          Paste a spreadsheet’s columns into the last line: label and price. An option without a stock of its own is
          counted down from the product’s.
        </Typography>
      )}
    </Box>
  );
}
