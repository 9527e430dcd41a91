// A cell of the table: text in one line, pictures small, rows of a repeat as how many, to be opened below.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { AskedColumnReply, RowReply } from "../../api/generated/wire";
import { PICTURES } from "../../fields/file_upload/pictures";
import { smallPicture } from "../../fields/small_picture";
import { counted } from "../../text/words";

interface Props {
  column: AskedColumnReply;
  row: RowReply;
  text: string;
  /** Where it stays in sight; undefined where it passes. */
  left: number | undefined;
  open: boolean;
  onOpenRows: (id: string) => void;
}

export function RowCell({ column, row, text, left, open, onOpenRows }: Props) {
  const numeric = column.numeric || column.id === "response.number";
  return (
    <Box
      component="td"
      className={numeric ? "numeric" : ""}
      title={text.length > 24 ? text : undefined}
      sx={{
        "&&": { px: 1, py: 0.5 },
        ...(left !== undefined && { position: "sticky", left, zIndex: 1, bgcolor: "background.paper" }),
        overflow: "hidden",
        textOverflow: "ellipsis",
        whiteSpace: "nowrap",
      }}
    >
      {column.holds === "rows" && text ? (
        <Button
          color="inherit"
          aria-expanded={open}
          onClick={(event) => {
            event.stopPropagation();
            onOpenRows(column.id);
          }}
          sx={{ py: 0, px: 0.5 }}
        >
          {open ? "▾" : "▸"} {counted(text.split("\n").length, "row")}
        </Button>
      ) : (
        <Content column={column} row={row} text={text} />
      )}
    </Box>
  );
}

function Content({ column, row, text }: Pick<Props, "column" | "row" | "text">) {
  const pictures = (row.files[column.id] ?? []).filter((file) => PICTURES.has(file.type)).slice(0, 4);
  if (pictures.length === 0) return text;
  return (
    <Box component="span" sx={{ display: "inline-flex", gap: 0.5, alignItems: "center" }}>
      {pictures.map((file) => (
        <Box
          key={file.id}
          component="img"
          src={smallPicture(file.id)}
          alt={file.name}
          sx={{ width: 30, height: 24, objectFit: "cover", borderRadius: 0.5 }}
        />
      ))}
      {text}
    </Box>
  );
}
