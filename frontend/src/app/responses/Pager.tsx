// Which page it is, and the ones beside it. Pages go on from the last response of the one before, however many there are.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { ResponsesReply } from "../../api/generated/wire";

const SIZES = [25, 50, 100];

interface Props {
  page: number;
  size: number;
  data: ResponsesReply;
  onPage: (page: number) => void;
  onSize: (size: number) => void;
}

export function Pager({ page, size, data, onPage, onSize }: Props) {
  const first = page * size + 1;
  const last = page * size + data.rows.length;
  return (
    <Box sx={{ display: "flex", alignItems: "center", justifyContent: "flex-end", gap: 1, pt: 1 }}>
      <TextField
        select
        value={size}
        onChange={(event) => onSize(Number(event.target.value))}
        slotProps={{ htmlInput: { "aria-label": "Rows of a page" }, select: { sx: { "& > div": { py: 0.25 } } } }}
        sx={{ width: 110 }}
      >
        {SIZES.map((each) => (
          <MenuItem key={each} value={each}>
            {each} a page
          </MenuItem>
        ))}
      </TextField>
      <Box component="span" sx={{ color: "text.secondary" }}>
        {first.toLocaleString("en")} to {last.toLocaleString("en")} of {inWords(data)}
      </Box>
      <Button color="inherit" disabled={page === 0} onClick={() => onPage(0)}>
        First
      </Button>
      <Button color="inherit" disabled={page === 0} onClick={() => onPage(page - 1)}>
        Back
      </Button>
      <Button color="inherit" disabled={!data.next} onClick={() => onPage(page + 1)}>
        On
      </Button>
    </Box>
  );
}

/** How many: exact, or about. */
export const inWords = ({ count, exact }: Pick<ResponsesReply, "count" | "exact">): string =>
  exact ? count.toLocaleString("en") : `about ${roundly(count).toLocaleString("en")}`;

/** Two digits that say something. */
const roundly = (count: number): number => {
  const unit = 10 ** Math.max(0, Math.floor(Math.log10(count)) - 1);
  return Math.round(count / unit) * unit;
};
