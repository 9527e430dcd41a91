// One chart: its field, what it comes to in words, the picture, and on request its table; saved as a file.
import Box from "@mui/material/Box";
import IconButton from "@mui/material/IconButton";
import ListSubheader from "@mui/material/ListSubheader";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useTheme } from "@mui/material/styles";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { reasonOf } from "../../api/client";
import type { AskedColumnReply, ChartReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { SERIF } from "../../theme/theme";
import { Waiting } from "../Waiting";
import { canGroup, cellsOf, type Drawing, DRAWING_WORDS, DRAWINGS, rowsOf } from "./chart_kinds";
import { ChartPicture } from "./ChartPicture";
import { askedOf, named } from "../filter/asked";
import type { Look } from "./look";
import { saveCsv, savePng, saveSvg } from "./save_chart";

interface Props {
  formId: string;
  column: AskedColumnReply;
  by: AskedColumnReply | undefined;
  look: Look;
  columns: readonly AskedColumnReply[];
  onBy: (by: string) => void;
  onRemove: () => void;
}

// A number may have thousands of digits: they stay within the card.
const HEADLINE = {
  fontFamily: SERIF,
  fontSize: 18,
  lineHeight: "24px",
  mb: 1,
  overflowWrap: "anywhere",
  display: "-webkit-box",
  WebkitLineClamp: 6,
  WebkitBoxOrient: "vertical",
  overflow: "hidden",
} as const;

export function ChartCard({ formId, column, by, look, columns, onBy, onRemove }: Props) {
  const asked = { ...askedOf(look), column: column.id, by: by?.id ?? "" };
  const found = useQuery({ ...queries.chart(formId, asked), placeholderData: keepPreviousData });
  const [drawing, setDrawing] = useState<Drawing | null>(null);
  const [asTable, setAsTable] = useState(false);
  const picture = useRef<SVGSVGElement>(null);
  const rows = rowsOf(column, columns);
  const name = rows ? `${named(column)}, in ${named(rows)}` : named(column);
  const title = by ? `${name}, by ${named(by)}` : name;
  const chart = found.data;
  const drawn = chart && (drawing && DRAWINGS[chart.kind].includes(drawing) ? drawing : DRAWINGS[chart.kind][0]!);
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{ bgcolor: "background.paper", border: 1, borderColor: "divider", borderRadius: 1, p: 2, minWidth: 0 }}
    >
      <Box sx={{ display: "flex", alignItems: "start" }}>
        <Typography variant="h3" component="h2" color="text.secondary" sx={{ flex: 1 }}>
          {title}
        </Typography>
        <CardMenu
          {...{ chart, drawn, asTable, picture, column, columns, onBy, onRemove }}
          name={title}
          by={by?.id ?? ""}
          onDrawing={setDrawing}
          onTable={() => setAsTable(!asTable)}
        />
      </Box>
      {found.isPending && <Waiting />}
      {found.isError && <Typography role="alert">{reasonOf(found.error)}</Typography>}
      {chart && (
        <>
          <Typography sx={HEADLINE}>
            {chart.headline}{" "}
            <Typography component="span" variant="body2" color="text.secondary">
              {chart.aside}
              {!rows &&
                chart.answered < chart.all &&
                `, ${(chart.all - chart.answered).toLocaleString("en")} left it blank`}
            </Typography>
          </Typography>
          {chart.answered > 0 && drawn && (
            <Box hidden={asTable}>
              <ChartPicture chart={chart} drawing={drawn} title={title} ref={picture} />
            </Box>
          )}
          {asTable && <ChartTable chart={chart} title={title} />}
          {chart.more && (
            <Typography variant="caption" color="text.secondary">
              The largest are shown; filter to see others.
            </Typography>
          )}
        </>
      )}
    </Box>
  );
}

function ChartTable({ chart, title }: { chart: ChartReply; title: string }) {
  const [heads, ...rows] = cellsOf(chart);
  return (
    <Box sx={{ overflow: "auto", maxHeight: 360 }}>
      <Box
        component="table"
        aria-label={title}
        sx={{ borderCollapse: "collapse", width: "100%", fontSize: 13, "& td, & th": { p: 0.5, textAlign: "right" } }}
      >
        <thead>
          <tr>
            {heads!.map((head, at) => (
              <th key={`${at} ${head}`} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([label, ...cells], at) => (
            <tr key={`${at} ${label}`}>
              <Box component="th" scope="row" sx={{ "&&": { textAlign: "left" } }}>
                {label}
              </Box>
              {cells.map((cell, place) => (
                <td key={heads![place + 1]}>{cell}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

interface MenuProps {
  chart: ChartReply | undefined;
  drawn: Drawing | undefined;
  asTable: boolean;
  picture: React.RefObject<SVGSVGElement | null>;
  name: string;
  by: string;
  column: AskedColumnReply;
  columns: readonly AskedColumnReply[];
  onDrawing: (drawing: Drawing) => void;
  onTable: () => void;
  onBy: (by: string) => void;
  onRemove: () => void;
}

function CardMenu({
  chart,
  drawn,
  asTable,
  picture,
  name,
  by,
  column,
  columns,
  onDrawing,
  onTable,
  onBy,
  onRemove,
}: MenuProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const paper = useTheme().palette.background.paper;
  const then = (act: () => void) => () => {
    setAnchor(null);
    act();
  };
  const groups =
    column.holds === "grid"
      ? []
      : [...(rowsOf(column, columns)?.parts ?? []), ...columns].filter(
          (each) => each.id !== column.id && canGroup(each),
        );
  return (
    <>
      <IconButton
        aria-label={`More for ${name}`}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ width: 26, height: 26, fontSize: 16, mt: -0.5 }}
      >
        ⋯
      </IconButton>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)}>
        {chart && <MenuItem onClick={then(onTable)}>{asTable ? "As a picture" : "As a table"}</MenuItem>}
        {chart &&
          DRAWINGS[chart.kind]
            .filter((each) => each !== drawn)
            .map((each) => (
              <MenuItem key={each} onClick={then(() => onDrawing(each))}>
                {DRAWING_WORDS[each]}
              </MenuItem>
            ))}
        {chart &&
          chart.answered > 0 &&
          !asTable && [
            <MenuItem key="png" onClick={then(() => void savePng(picture.current!, paper, name))}>
              Save as PNG
            </MenuItem>,
            <MenuItem key="svg" onClick={then(() => saveSvg(picture.current!, paper, name))}>
              Save as SVG
            </MenuItem>,
          ]}
        {chart && <MenuItem onClick={then(() => saveCsv(chart, name))}>Save its numbers as CSV</MenuItem>}
        {groups.length > 0 && <ListSubheader sx={{ lineHeight: "32px" }}>Compare by</ListSubheader>}
        {groups.length > 0 && by !== "" && <MenuItem onClick={then(() => onBy(""))}>Nothing</MenuItem>}
        {groups.map((each) => (
          <MenuItem key={each.id} selected={each.id === by} onClick={then(() => onBy(each.id))}>
            {named(each)}
          </MenuItem>
        ))}
        <MenuItem onClick={then(onRemove)}>Remove this chart</MenuItem>
      </Menu>
    </>
  );
}
