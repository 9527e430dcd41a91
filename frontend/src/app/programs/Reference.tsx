// What programs can ask for, read off the OpenAPI document that the server gives, and tried with a key.
import Accordion from "@mui/material/Accordion";
import AccordionDetails from "@mui/material/AccordionDetails";
import AccordionSummary from "@mui/material/AccordionSummary";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Asked, askFor, blankOf, DOCUMENT, operations } from "../../api/operations";
import { MONO } from "../../theme/theme";

export function Reference({ usual }: { usual: string }) {
  const found = useQuery({ queryKey: ["openapi"], queryFn: operations });
  const [key, setKey] = useState("");
  return (
    <Box component="section" aria-label="What can be asked for" sx={{ display: "grid", gap: 1.5 }}>
      <Typography variant="h2">What can be asked for</Typography>
      <Typography>
        With a key as <code>Authorization: Bearer …</code>, at most 600 times a minute. Errors are told as problems (RFC
        9457). All of it as <Link href={DOCUMENT}>OpenAPI 3.1</Link>.
      </Typography>
      <TextField
        label="A key to try it with"
        value={key}
        placeholder={usual || "codexa_…"}
        onChange={(event) => setKey(event.target.value)}
        helperText="It stays in this window, and what it does is done to your real forms."
        slotProps={{ htmlInput: { autoComplete: "off", spellCheck: false } }}
        sx={{ maxWidth: 560 }}
      />
      {found.isError && <Alert severity="error">This can’t be read just now. Load the page again.</Alert>}
      <Box>
        {found.data?.map((each) => (
          <Accordion key={each.id} disableGutters slotProps={{ heading: { component: "h3" } }}>
            <AccordionSummary>
              <Box component="span" sx={{ fontFamily: MONO, fontSize: 13, width: 54, flex: "none" }}>
                {each.method}
              </Box>
              <Box component="span" sx={{ fontFamily: MONO, fontSize: 13, flex: 1, overflowWrap: "anywhere" }}>
                {each.path}
              </Box>
              <Typography component="span" sx={{ flex: 1, color: "text.secondary" }}>
                {each.summary}
              </Typography>
            </AccordionSummary>
            <AccordionDetails>
              <Try operation={each} credential={key.trim() || usual} />
            </AccordionDetails>
          </Accordion>
        ))}
      </Box>
    </Box>
  );
}

function Try({ operation, credential }: { operation: Asked; credential: string }) {
  const [values, setValues] = useState<Readonly<Record<string, string>>>({});
  const [body, setBody] = useState(() => (operation.takes ? blankOf(operation.takes) : ""));
  const ask = useMutation({ mutationFn: () => askFor(operation, credential, values, body) });
  const missing = operation.parameters.some((each) => each.required && !values[each.name]?.trim());
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        ask.mutate();
      }}
      sx={{ display: "grid", gap: 1.5, justifyItems: "start" }}
    >
      <Typography>{operation.description}</Typography>
      {operation.parameters.map((each) => (
        <TextField
          key={each.name}
          label={`${each.name}${each.required ? "" : " (may be left out)"}`}
          helperText={each.description}
          value={values[each.name] ?? ""}
          onChange={(event) => setValues({ ...values, [each.name]: event.target.value })}
          slotProps={{ htmlInput: { spellCheck: false, style: { fontFamily: MONO, fontSize: 13 } } }}
        />
      ))}
      {operation.takes && (
        <TextField
          multiline
          label="Body (JSON)"
          value={body}
          onChange={(event) => setBody(event.target.value)}
          slotProps={{ htmlInput: { spellCheck: false, style: { fontFamily: MONO, fontSize: 13 } } }}
        />
      )}
      <Button type="submit" variant="outlined" loading={ask.isPending} disabled={!credential || missing}>
        {credential ? "Ask" : "Type a key first"}
      </Button>
      {ask.isError && <Alert severity="error">The server can’t be reached just now. Try again.</Alert>}
      {ask.data && (
        <Box aria-live="polite" sx={{ width: "100%" }}>
          <b>{ask.data.status}</b>
          <Box
            component="pre"
            tabIndex={0}
            aria-label="The answer"
            sx={{
              m: 0,
              mt: 0.5,
              p: 1,
              maxHeight: 320,
              overflow: "auto",
              fontFamily: MONO,
              fontSize: 12,
              bgcolor: "background.default",
            }}
          >
            {ask.data.text}
          </Box>
        </Box>
      )}
    </Box>
  );
}
