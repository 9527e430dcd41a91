// Responses that stand with a part that who is signed in fills in; each opens the form with that part open.
import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import type { WaitingPartReply } from "../../api/generated/wire";
import { asDayAndTime } from "../../text/words";

export const Parts = ({ parts }: { parts: readonly WaitingPartReply[] }) => (
  <Box component="section" aria-label="To fill in" sx={{ mt: 3 }}>
    <Typography variant="h2" id="to-fill-in" tabIndex={-1}>
      To fill in
    </Typography>
    {parts.map((each) => (
      <Box key={`${each.form_id} ${each.number}`} sx={{ py: 1, borderTop: 1, borderColor: "divider" }}>
        <Link href={`/part/${each.form_id}/${each.number}`} target="_blank" rel="noopener" sx={{ fontWeight: 650 }}>
          {each.name}: {each.form_name}, no. {each.number}
        </Link>
        <Typography variant="body2" color="text.secondary">
          Since {asDayAndTime(each.since)}
          {each.remark && ` · ${each.by_name}: ${each.remark}`}
        </Typography>
      </Box>
    ))}
  </Box>
);
