// The frame of what is seen without being signed in: what Codexa is for, and one sheet to fill in.
import Box from "@mui/material/Box";
import Paper from "@mui/material/Paper";
import Typography from "@mui/material/Typography";
import type { FormEvent, PropsWithChildren } from "react";
import { Mark } from "../../ui/Mark";

export function Frame({ onSubmit, children }: PropsWithChildren<{ onSubmit?: () => void }>) {
  return (
    <Box
      component="main"
      sx={{ minHeight: "100vh", display: "grid", gridTemplateColumns: { xs: "1fr", md: "5fr 6fr" } }}
    >
      <Box
        sx={{
          display: { xs: "none", md: "flex" },
          flexDirection: "column",
          justifyContent: "center",
          gap: 2,
          px: 8,
          color: "bar.text",
          bgcolor: "bar.main",
        }}
      >
        <Mark size={44} />
        <Typography variant="h1" component="p" sx={{ fontSize: 32, lineHeight: "40px", maxWidth: 380 }}>
          Every form, with its reasons in the margin
        </Typography>
        <Typography sx={{ color: "bar.quiet", maxWidth: 380 }}>
          What shows when, what adds up to what, and what must hold stands beside the page, and is proven before the
          form goes live.
        </Typography>
      </Box>
      <Box sx={{ display: "grid", placeItems: "center", p: 3 }}>
        <Paper
          component={onSubmit ? "form" : "div"}
          variant="outlined"
          onSubmit={(event: FormEvent) => {
            event.preventDefault();
            onSubmit?.();
          }}
          sx={{ width: "100%", maxWidth: 380, p: 4, display: "grid", gap: 2.5 }}
        >
          {children}
        </Paper>
      </Box>
    </Box>
  );
}
