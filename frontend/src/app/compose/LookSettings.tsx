import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { BlockSettings } from "../../fields/settings";
import type { Block } from "../../model/blocks";

const WIDTHS: Record<Block["width"], string> = {
  full: "The whole line",
  half: "Half of the line",
  third: "A third of the line",
};

interface Props {
  block: Block;
  edit: (changes: Partial<Record<string, unknown>>) => void;
  Special: BlockSettings["look"];
}

export function LookSettings({ block, edit, Special }: Props) {
  return (
    <>
      <TextField select label="Width" value={block.width} onChange={(event) => edit({ width: event.target.value })}>
        {Object.entries(WIDTHS).map(([value, words]) => (
          <MenuItem key={value} value={value}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      {Special && <Special block={block} edit={edit} />}
    </>
  );
}
