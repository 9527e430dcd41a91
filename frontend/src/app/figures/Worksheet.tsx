// The worksheet: a row for each figure, with its value for the answers that are tried.
import Box from "@mui/material/Box";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import type { Entry } from "../../model/parts";
import { MONO, SERIF } from "../../theme/theme";
import { useBench } from "../workbench/bench";
import { useOutcome } from "../workbench/useOutcome";
import { KINDS } from "./kinds";

const FORMATS: Record<string, (decimals: number, currency: string) => string> = {
  number: (decimals) => `0${decimals ? `.${"0".repeat(decimals)}` : ""}`,
  percent: (decimals) => `0${decimals ? `.${"0".repeat(decimals)}` : ""} %`,
  money: (_decimals, currency) => currency,
  text: () => "text",
  date: () => "date",
};

export function Worksheet() {
  const { form, part, parts, analysis, trying, select } = useBench();
  const outcome = useOutcome();
  const usedIn = (id: string) =>
    (analysis.links[id]?.read_by ?? []).map((reader) => shortName(parts.get(reader))).join(", ") || "–";
  const mono = { fontFamily: MONO, fontSize: 12 };
  return (
    <Table
      size="small"
      stickyHeader
      aria-label="Figures"
      sx={{
        tableLayout: "fixed",
        minWidth: 960,
        "& .MuiTableCell-root": { overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" },
      }}
    >
      <TableHead>
        <TableRow>
          <TableCell width="13%">Key</TableCell>
          <TableCell width="17%">Name</TableCell>
          <TableCell width={84}>Kind</TableCell>
          <TableCell>Definition</TableCell>
          <TableCell width={84}>Format</TableCell>
          <TableCell width="11%" align="right" title={trying.name}>
            {trying.name}
          </TableCell>
          <TableCell width="14%">Used in</TableCell>
          <TableCell width={84}>For</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {form.figures.map((figure) => {
          const wrong = analysis.findings.some((each) => each.block === figure.id && each.severity === "error");
          const kind = KINDS[figure.kind];
          return (
            <TableRow
              key={figure.id}
              hover
              selected={part === figure.id}
              onClick={() => select(figure.id)}
              sx={{ cursor: "pointer", "&.Mui-selected, &.Mui-selected:hover": { bgcolor: "noteTint.calculation" } }}
            >
              <TableCell sx={mono} title={figure.key}>
                {figure.key}
              </TableCell>
              <TableCell title={figure.name || figure.key}>
                <Box
                  component="button"
                  type="button"
                  aria-pressed={part === figure.id}
                  onClick={() => select(figure.id)}
                  sx={{
                    display: "block",
                    maxWidth: "100%",
                    overflow: "hidden",
                    textOverflow: "ellipsis",
                    p: 0,
                    font: "inherit",
                    fontWeight: 650,
                    color: "inherit",
                    background: "none",
                    border: 0,
                    cursor: "pointer",
                    textAlign: "left",
                  }}
                >
                  {figure.name || figure.key}
                </Box>
              </TableCell>
              <TableCell sx={{ color: "text.secondary" }}>{kind.title.toLowerCase()}</TableCell>
              <TableCell sx={mono} title={kind.told(figure, parts)}>
                {kind.told(figure, parts)}
              </TableCell>
              <TableCell sx={{ color: "text.secondary" }}>
                {figure.kind === "profile" ? "" : FORMATS[figure.format]?.(figure.decimals, form.currency)}
              </TableCell>
              <TableCell
                align="right"
                title={outcome?.values[figure.id]}
                sx={{ fontFamily: SERIF, fontWeight: 650, fontVariantNumeric: "tabular-nums" }}
              >
                {wrong ? (
                  <Box component="span" sx={{ color: "note.check" }}>
                    error
                  </Box>
                ) : (
                  outcome?.values[figure.id] || "–"
                )}
              </TableCell>
              <TableCell sx={{ color: "text.secondary" }} title={usedIn(figure.id)}>
                {usedIn(figure.id)}
              </TableCell>
              <TableCell sx={{ color: "text.secondary" }}>{figure.shown_to_visitors ? "visitors" : "team"}</TableCell>
            </TableRow>
          );
        })}
      </TableBody>
    </Table>
  );
}

/** A reader in a narrow column: a block by its number, a figure by its key. */
const shortName = (entry: Entry | undefined): string =>
  entry === undefined ? "" : entry.what === "figure" ? entry.part.key : entry.number || entry.title;
