// A form from pasted text, with a live view of what it will make and of what was not understood.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { useNavigate } from "react-router";
import { api } from "../../api/client";
import { counted } from "../../text/words";
import { MONO, SERIF } from "../../theme/theme";
import { StartPage } from "./StartPage";

const EXAMPLE = `# Your visit
Group size* number 1..60
Preferred date*
How will you come?*: On foot, By bus, By car
Extras several choices: Hot drinks = 2; Star chart = 4.50; Telescope = 12
# You
Name*
E-mail*
Anything else?`;

export function FromOutline() {
  const [name, setName] = useState("");
  const [text, setText] = useState("");
  const asked = useDeferredValue(text);
  const navigate = useNavigate();
  const found = useQuery({
    queryKey: ["outline", asked],
    queryFn: () => api.outline(asked),
    placeholderData: keepPreviousData,
  });
  const make = useMutation({
    mutationFn: () => api.makeFromOutline(name.trim() || "Untitled form", text),
    onSuccess: ({ id }) => navigate(`/forms/${id}/compose`),
  });
  const lines = found.data?.lines ?? [];
  const lost = lines.filter((line) => line.problem).length;
  const made = lines.length - lines.filter((line) => line.makes === "").length;
  return (
    <StartPage
      title="From pasted text"
      lead="A line a field. # begins a page, ## a group, ## … (rows) rows; * makes it required; a type, limits (1..60) and options after a colon are understood, or options on lines set in, with prices (= €5). heading: and text: are read only."
    >
      <Box sx={{ flex: 1, minHeight: 0, display: "grid", gridTemplateColumns: "minmax(0,1fr) minmax(0,1fr)", gap: 3 }}>
        <Box sx={{ display: "flex", flexDirection: "column", gap: 2, minHeight: 0 }}>
          <TextField label="Name of the form" value={name} onChange={(event) => setName(event.target.value)} />
          <Box
            component="textarea"
            aria-label="Outline of the form"
            placeholder={EXAMPLE}
            value={text}
            autoFocus
            onChange={(event) => setText(event.target.value)}
            sx={{
              flex: 1,
              p: 1.5,
              resize: "none",
              fontFamily: MONO,
              fontSize: 13,
              lineHeight: "20px",
              color: "text.primary",
              bgcolor: "background.paper",
              border: 1,
              borderColor: "divider",
              borderRadius: 1,
            }}
          />
          <Box sx={{ display: "flex", gap: 1 }}>
            <Button variant="contained" disabled={made === 0} loading={make.isPending} onClick={() => make.mutate()}>
              Make the form
            </Button>
            {text === "" && <Button onClick={() => setText(EXAMPLE)}>Try the example</Button>}
          </Box>
          {make.isError && <Typography color="error">{make.error.message}</Typography>}
        </Box>
        <Box
          component="section"
          aria-label="What it will make"
          tabIndex={0}
          sx={{
            overflow: "auto",
            border: 1,
            borderColor: "divider",
            borderRadius: 1,
            bgcolor: "background.paper",
            p: 2,
          }}
        >
          <Typography role="status" sx={{ mb: 1, fontWeight: 650 }}>
            {lines.length === 0
              ? "What the text will make is shown here."
              : `${counted(made, "line")} understood${lost > 0 ? `, ${counted(lost, "line")} not in full` : ""}`}
          </Typography>
          {lines.map((line) => (
            <Box
              key={line.number}
              sx={{
                display: "grid",
                gridTemplateColumns: "28px minmax(0,1fr) minmax(0,1fr)",
                gap: 1,
                py: 0.5,
                borderBottom: 1,
                borderColor: "divider",
              }}
            >
              <Typography variant="body2" sx={{ fontFamily: SERIF, color: "text.secondary" }}>
                {line.number}
              </Typography>
              <Typography variant="body2" noWrap sx={{ fontWeight: line.makes === "a page" ? 650 : 400 }}>
                {line.text}
              </Typography>
              <Typography variant="body2" sx={{ color: line.problem ? "note.check" : "text.secondary" }}>
                {line.makes}
                {line.problem && ` ${line.makes ? "· " : ""}${line.problem}`}
              </Typography>
            </Box>
          ))}
        </Box>
      </Box>
    </StartPage>
  );
}
