// What changed, in words, each part named once.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ChangesReply } from "../../api/generated/wire";

export function ChangeList({ changes }: ChangesReply) {
  if (changes.length === 0) return <Typography color="text.secondary">Nothing differs.</Typography>;
  return (
    <Box
      component="dl"
      sx={{
        m: 0,
        display: "grid",
        gridTemplateColumns: "minmax(140px, 30%) minmax(0,1fr)",
        columnGap: 2,
        rowGap: 0.75,
      }}
    >
      {changes.map((change, at) => (
        <Box key={at} sx={{ display: "contents" }}>
          <Box component="dt" sx={{ fontWeight: 600, overflowWrap: "anywhere" }}>
            {change.name !== changes[at - 1]?.name && change.name}
          </Box>
          <Box component="dd" sx={{ m: 0, overflowWrap: "anywhere" }}>
            {change.words}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
