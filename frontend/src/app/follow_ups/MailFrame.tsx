// A mail as it is read, in a frame that runs nothing.
import Box from "@mui/material/Box";
import { styleNonce } from "../style_nonce";
import { forFrame } from "./mail_html";

export function MailFrame({ html, height = 420 }: { html: string; height?: number }) {
  return (
    <Box
      component="iframe"
      title="The mail"
      sandbox=""
      srcDoc={forFrame(html, styleNonce())}
      sx={{ width: "100%", height, border: 1, borderColor: "divider", borderRadius: 1, bgcolor: "#fff" }}
    />
  );
}
