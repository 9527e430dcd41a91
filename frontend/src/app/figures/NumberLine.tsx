// The number line of bands: where each begins, what it gives, gaps and overlaps, and where the tried answers lie.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { type Bands, inWords, outside, piecesOf, placeOn } from "./bands";
import { useBench } from "../workbench/bench";
import { useOutcome } from "../workbench/useOutcome";

export function NumberLine({ figure }: { figure: Bands }) {
  const { trying } = useBench();
  const outcome = useOutcome();
  const { pieces, overlaps } = piecesOf(figure);
  const looked = outcome?.looked_at[figure.id];
  const place = looked === undefined ? null : placeOn(pieces, Number(looked));
  if (pieces.length === 0) return null;
  const count = Math.max(1, figure.bands.length);
  const gaps = pieces.filter((piece) => piece.band === null);
  return (
    <Box sx={{ mt: 2 }}>
      <Box
        role="img"
        aria-label={pieces.map(inWords).join("; ")}
        sx={{ position: "relative", display: "flex", gap: "2px" }}
      >
        {pieces.map((piece, at) => (
          <Box key={at} sx={{ flex: 1, minWidth: 0 }}>
            <Typography
              variant="body2"
              noWrap
              sx={{ textAlign: "center", color: piece.band === null ? "note.money" : undefined }}
            >
              {piece.words}
            </Typography>
            <Box
              sx={{
                height: 16,
                border: piece.band === null ? "1px dashed" : 0,
                borderColor: "note.money",
                bgcolor: piece.band === null ? "transparent" : "primary.main",
              }}
              style={piece.band === null ? undefined : { opacity: 0.25 + (0.6 * (piece.band + 1)) / count }}
            />
            <Typography variant="caption" sx={{ fontVariantNumeric: "tabular-nums" }}>
              {piece.from ?? "…"}
            </Typography>
          </Box>
        ))}
        {place !== null && (
          <Box
            sx={{
              position: "absolute",
              top: 18,
              width: 20,
              height: 20,
              borderRadius: "50%",
              border: 3,
              borderColor: "background.paper",
              bgcolor: "note.check",
              transform: "translateX(-50%)",
            }}
            style={{ left: `${100 * place}%` }}
          />
        )}
      </Box>
      {looked !== undefined && (
        <Typography variant="body2" sx={{ color: "note.check", fontVariantNumeric: "tabular-nums" }}>
          {trying.name}: {looked} gives {outcome?.values[figure.id] || "blank"}
        </Typography>
      )}
      {overlaps.map((words) => (
        <Typography key={words} variant="body2" sx={{ color: "note.check" }}>
          {words}
        </Typography>
      ))}
      <Typography
        variant="body2"
        sx={{ fontWeight: 600, color: gaps.length === 0 && overlaps.length === 0 ? "note.calculation" : "note.money" }}
      >
        {gaps.length === 0
          ? overlaps.length === 0
            ? "No gaps, no overlaps"
            : ""
          : `Blank ${gaps.map(outside).join(" and ")}.`}
      </Typography>
    </Box>
  );
}
