// The team's accounts with providers: a key is entered once, and seen again by its last four characters only.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import { queries } from "../../api/queries";

export function Accounts() {
  const queryClient = useQueryClient();
  const accounts = useQuery(queries.accounts()).data?.accounts ?? [];
  const [secret, setSecret] = useState("");
  const renew = () => void queryClient.invalidateQueries({ queryKey: queries.accounts().queryKey });
  const add = useMutation({
    mutationFn: () => api.addAccount(secret.trim()),
    onSuccess: () => {
      setSecret("");
      renew();
    },
  });
  const test = useMutation({ mutationFn: api.testAccount });
  const remove = useMutation({ mutationFn: api.removeAccount, onSuccess: renew });
  const error = add.error ?? test.error ?? remove.error;
  return (
    <Box role="group" aria-label="Accounts" sx={{ display: "grid", gap: 1, mt: 1 }}>
      {accounts.map(({ id, name, provider, last_four, cards }) => (
        <Box key={id} sx={{ display: "flex", alignItems: "center", gap: 1 }}>
          <Typography sx={{ flex: 1 }}>
            <b>{name}</b> · {provider} · key …{last_four} · {cards.join(", ")}
          </Typography>
          <Button
            aria-label={`Test ${name}`}
            loading={test.isPending && test.variables === id}
            onClick={() => test.mutate(id)}
          >
            Test
          </Button>
          <Button color="error" aria-label={`Remove ${name}`} onClick={() => remove.mutate(id)}>
            Remove
          </Button>
        </Box>
      ))}
      {test.data && <Alert severity="success">{test.data.told}</Alert>}
      {error && <Alert severity="error">{error.message}</Alert>}
      <Box
        component="form"
        onSubmit={(event: React.FormEvent) => {
          event.preventDefault();
          add.mutate();
        }}
        sx={{ display: "grid", gridTemplateColumns: "1fr auto", gap: 1, alignItems: "start" }}
      >
        <TextField
          label="Secret key of another account"
          type="password"
          autoComplete="off"
          value={secret}
          helperText="From the provider’s own pages. It is kept encrypted, and nobody sees it again."
          onChange={(event) => setSecret(event.target.value)}
        />
        <Button type="submit" variant="outlined" loading={add.isPending} disabled={secret.trim().length < 8}>
          Add
        </Button>
      </Box>
    </Box>
  );
}
