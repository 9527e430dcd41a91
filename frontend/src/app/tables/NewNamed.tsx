// Makes something new by its name, and goes there.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { reasonOf } from "../../api/client";

interface Props {
  label: string;
  make: (name: string) => Promise<{ id: string }>;
  /** What lists such things, which has one more then. */
  queryKey: readonly unknown[];
  place: (id: string) => string;
}

export function NewNamed({ label, make, queryKey, place }: Props) {
  const [name, setName] = useState("");
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const making = useMutation({
    mutationFn: () => make(name.trim()),
    onSuccess: async ({ id }) => {
      await queryClient.invalidateQueries({ queryKey });
      await navigate(place(id));
    },
  });
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        making.mutate();
      }}
      sx={{ display: "flex", gap: 1, alignItems: "start" }}
    >
      <TextField
        label={label}
        value={name}
        onChange={(event) => setName(event.target.value)}
        error={making.isError}
        helperText={making.isError ? reasonOf(making.error) : ""}
        slotProps={{ htmlInput: { maxLength: 200 } }}
        sx={{ width: 320 }}
      />
      <Button type="submit" variant="contained" disabled={!name.trim()} loading={making.isPending} sx={{ mt: 0.5 }}>
        Make it
      </Button>
    </Box>
  );
}
