// Everything about a person: what the team's forms have of an e-mail address, to be given out, and forgotten.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link as Going } from "react-router";
import { api, reasonOf } from "../../api/client";
import type { ForgetPersonRequest, PersonReply } from "../../api/generated/wire";
import { counted } from "../../text/words";
import { AskFirst } from "../../ui/AskFirst";
import { Single } from "../Single";

export function AboutPerson() {
  const [email, setEmail] = useState("");
  const find = useMutation({ mutationFn: api.findPerson });
  return (
    <Single title="Everything about a person">
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          find.mutate(email.trim());
        }}
        sx={{ display: "grid", gap: 2, justifyItems: "start" }}
      >
        <Typography>
          Somebody asks what you have of them, or wants it forgotten: all forms and tables of the team are looked
          through for an e-mail address, in answers, in links, in records, and as who paid.
        </Typography>
        <Box sx={{ display: "flex", gap: 1, width: "100%", maxWidth: 560 }}>
          <TextField
            autoFocus
            label="E-mail address"
            value={email}
            onChange={(event) => {
              setEmail(event.target.value);
              find.reset();
            }}
            slotProps={{ htmlInput: { maxLength: 320, autoComplete: "off" } }}
          />
          <Button type="submit" variant="contained" loading={find.isPending} disabled={!email.trim()}>
            Find
          </Button>
        </Box>
        {find.isError && <Alert severity="error">{reasonOf(find.error)}</Alert>}
      </Box>
      {find.data && <Found email={email.trim()} {...find.data} onForgotten={() => find.reset()} />}
    </Single>
  );
}

interface FoundProps extends PersonReply {
  email: string;
  onForgotten: () => void;
}

function Found({ email, found, records, onForgotten }: FoundProps) {
  const [told, setTold] = useState("");
  const forget = useMutation({
    mutationFn: (does: ForgetPersonRequest["does"]) => api.forgetPerson({ email, does }),
    onSuccess: ({ responses, staying, records: gone }, does) =>
      setTold(
        (gone > 0 ? `${counted(gone, "record")} forgotten for good. ` : "") +
          `${counted(responses, "response")} ${does === "anonymise" ? "anonymised" : "removed"}: it is done in the background, and can be seen at each form.${staying > 0 ? ` ${counted(staying, "response")} can’t be yet: still filled in, held as suspected, or waiting for money. Do it again once that is settled.` : ""}`,
      ),
  });
  const give = useMutation({ mutationFn: () => api.exportPerson(email), onSuccess: (all) => saveAs(all, email) });
  const all = found.reduce((sum, each) => sum + each.numbers.length, 0);
  const recorded = records.reduce((sum, each) => sum + each.numbers.length, 0);
  const problem = forget.error ?? give.error;
  if (told)
    return (
      <Alert severity="success" onClose={onForgotten} sx={{ mt: 2 }}>
        {told}
      </Alert>
    );
  if (all + recorded === 0)
    return (
      <Typography role="status" sx={{ mt: 2 }}>
        No form or table of the team names this address.
      </Typography>
    );
  return (
    <Box
      component="section"
      aria-label="What there is"
      sx={{ mt: 3, display: "grid", gap: 1.5, justifyItems: "start" }}
    >
      <Typography variant="h2" role="status">
        {counted(all, "response")} in {counted(found.length, "form")}
        {recorded > 0 && `, ${counted(recorded, "record")} in ${counted(records.length, "table")}`}
      </Typography>
      <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
        {found.map((each) => (
          <li key={each.form}>
            {each.name}:{" "}
            {each.numbers.map((number, at) => (
              <span key={number}>
                {at > 0 && ", "}
                <Link component={Going} to={`/forms/${each.form}/responses/${number}`}>
                  {number}
                </Link>
              </span>
            ))}
          </li>
        ))}
        {records.map((each) => (
          <li key={each.table}>
            <Link component={Going} to={`/tables/${each.table}`}>
              {each.name}
            </Link>
            : {each.numbers.join(", ")}
          </li>
        ))}
      </Box>
      {recorded > 0 && (
        <Typography color="text.secondary">
          Records are about whom they name: either way they are forgotten for good, with their history.
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "start" }}>
        <Button variant="outlined" loading={give.isPending} onClick={() => give.mutate()}>
          Save all of it as JSON
        </Button>
        <AskFirst
          label="Anonymise all …"
          color="error"
          warning={`For ever: in ${counted(all, "response")} what tells of a person is emptied, with files, mails and notes. What is counted stays; payments keep their payer.`}
          onDone={() => forget.mutate("anonymise")}
        />
        <AskFirst
          label="Remove all …"
          color="error"
          warning={`${counted(all, "response")} will be gone from all views. They can be brought back for 30 days and are gone for ever then, but for what was paid.`}
          onDone={() => forget.mutate("remove")}
        />
      </Box>
      {problem && <Alert severity="error">{reasonOf(problem)}</Alert>}
    </Box>
  );
}

function saveAs(all: object, email: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([JSON.stringify(all, null, 2)], { type: "application/json" }));
  link.download = `${email.replace(/[^a-z0-9]+/gi, "-")}.json`;
  link.click();
  URL.revokeObjectURL(link.href);
}
