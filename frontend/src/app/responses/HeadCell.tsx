// A heading of the table: a press sorts by it, with Shift beside others; its edge is dragged or moved by arrow keys.
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import type { PointerEvent } from "react";
import type { AskedColumnReply } from "../../api/generated/wire";
import { SERIF } from "../../theme/theme";
import { hasOrder } from "./columns";

interface Props {
  column: AskedColumnReply;
  sorts: readonly string[];
  width: number;
  /** Where it stays in sight; undefined where it passes. */
  left: number | undefined;
  onSort: (id: string, added: boolean) => void;
  onWidth: (id: string, width: number) => void;
}

const STEP = 16;
const [LEAST, MOST] = [56, 800];

export function HeadCell({ column, sorts, width, left, onSort, onWidth }: Props) {
  const at = sorts.findIndex((each) => each.replace(/^-/, "") === column.id);
  const down = sorts[at]?.startsWith("-");
  const sign = at < 0 ? "" : `${down ? "↓" : "↑"}${sorts.length > 1 ? at + 1 : ""}`;
  const set = (to: number) => onWidth(column.id, Math.min(MOST, Math.max(LEAST, Math.round(to))));
  return (
    <Box
      component="th"
      scope="col"
      aria-sort={at < 0 ? undefined : down ? "descending" : "ascending"}
      sx={{
        position: "sticky",
        top: 0,
        left,
        zIndex: left === undefined ? 2 : 3,
        bgcolor: "background.paper",
        fontSize: 12,
      }}
    >
      <ButtonBase
        disabled={!hasOrder(column)}
        title={hasOrder(column) ? "Press to sort, with Shift beside others" : ""}
        onClick={(event) => onSort(column.id, event.shiftKey)}
        sx={{
          width: "100%",
          px: 1,
          py: 0.75,
          gap: 0.5,
          justifyContent: "flex-start",
          font: "inherit",
          fontWeight: 650,
        }}
      >
        {column.number && (
          <Box component="span" sx={{ fontFamily: SERIF, color: "text.secondary" }}>
            {column.number}
          </Box>
        )}
        <Box component="span" sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
          {column.label}
          {column.earlier && " (earlier edition)"}
        </Box>
        {sign && <Box component="span">{sign}</Box>}
      </ButtonBase>
      <Box
        role="separator"
        aria-orientation="vertical"
        aria-label={`Width of ${column.label}`}
        aria-valuenow={width}
        aria-valuemin={LEAST}
        aria-valuemax={MOST}
        tabIndex={0}
        onPointerDown={(event) => drag(event, width, set)}
        onKeyDown={(event) => {
          const step = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
          if (step !== undefined) {
            event.preventDefault();
            set(width + step);
          }
        }}
        sx={{
          position: "absolute",
          insetBlock: 0,
          right: 0,
          width: 6,
          cursor: "col-resize",
          touchAction: "none",
          "&:hover, &:focus-visible": { bgcolor: "primary.main" },
        }}
      />
    </Box>
  );
}

function drag(event: PointerEvent<HTMLElement>, width: number, set: (width: number) => void) {
  const [edge, began] = [event.currentTarget, event.clientX];
  edge.setPointerCapture(event.pointerId);
  const move = (moved: globalThis.PointerEvent) => set(width + moved.clientX - began);
  edge.addEventListener("pointermove", move);
  edge.addEventListener("lostpointercapture", () => edge.removeEventListener("pointermove", move), { once: true });
}
