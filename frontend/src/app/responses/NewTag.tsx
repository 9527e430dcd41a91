// A tag that is typed, and given by Enter.
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { useState } from "react";

export function NewTag({ onGive, autoFocus = false }: { onGive: (tag: string) => void; autoFocus?: boolean }) {
  const [tag, setTag] = useState("");
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        if (!tag.trim()) return;
        onGive(tag.trim());
        setTag("");
      }}
    >
      <TextField
        variant="standard"
        autoFocus={autoFocus}
        placeholder="Add a tag"
        value={tag}
        onChange={(event) => setTag(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 60, "aria-label": "Add a tag" } }}
        sx={{ width: 110 }}
      />
    </Box>
  );
}
