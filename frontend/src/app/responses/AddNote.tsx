// A note that the team keeps with a response; it stands in what happened.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import { mayMark, useSignedIn } from "../signed_in";

export function AddNote({ formId, number }: { formId: string; number: number }) {
  const queryClient = useQueryClient();
  const who = useSignedIn();
  const [note, setNote] = useState("");
  const add = useMutation({
    mutationFn: () => api.addNote(formId, number, note.trim()),
    onSuccess: async () => {
      setNote("");
      await queryClient.invalidateQueries({ queryKey: ["response", formId, number] });
    },
  });
  if (!mayMark(who)) return null;
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        if (note.trim()) add.mutate();
      }}
      sx={{ display: "grid", gap: 1, mt: 1.5, justifyItems: "start" }}
    >
      <TextField
        multiline
        label="A note for the team"
        value={note}
        onChange={(event) => setNote(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 5000 } }}
      />
      <Button type="submit" variant="outlined" color="inherit" disabled={!note.trim()} loading={add.isPending}>
        Keep the note
      </Button>
      {add.isError && (
        <Box role="alert" sx={{ color: "error.main" }}>
          {reasonOf(add.error)}
        </Box>
      )}
    </Box>
  );
}
