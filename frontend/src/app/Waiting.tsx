import Box from "@mui/material/Box";
import CircularProgress from "@mui/material/CircularProgress";

export function Waiting() {
  return (
    <Box sx={{ display: "grid", placeItems: "center", height: "60vh" }} role="status" aria-label="Loading">
      <CircularProgress size={28} />
    </Box>
  );
}
