import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Paper from "@mui/material/Paper";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { api } from "../../api/client";
import { queries } from "../../api/queries";
import { Mark } from "../../ui/Mark";

export function SignIn() {
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  const signIn = useMutation({
    mutationFn: () => api.signIn(email, password),
    onSuccess: async (who) => {
      queryClient.setQueryData(queries.session().queryKey, who);
      await navigate("/", { replace: true });
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    signIn.mutate();
  };
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
          component="form"
          variant="outlined"
          onSubmit={submit}
          sx={{ width: "100%", maxWidth: 380, p: 4, display: "grid", gap: 2.5 }}
        >
          <Typography variant="h1">Sign in to Codexa</Typography>
          {signIn.isError && <Alert severity="error">{signIn.error.message}</Alert>}
          <TextField
            label="E-mail"
            type="email"
            autoComplete="username"
            required
            autoFocus
            value={email}
            onChange={(event) => setEmail(event.target.value)}
          />
          <TextField
            label="Password"
            type="password"
            autoComplete="current-password"
            required
            value={password}
            onChange={(event) => setPassword(event.target.value)}
          />
          <Button type="submit" variant="contained" size="medium" loading={signIn.isPending}>
            Sign in
          </Button>
        </Paper>
      </Box>
    </Box>
  );
}
