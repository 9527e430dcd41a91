// A list of options: all of it as lines, and the forms that follow it.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as Going, useNavigate } from "react-router";
import { api, ApiError, reasonOf } from "../../api/client";
import type { ListReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { MONO } from "../../theme/theme";
import { AskFirst } from "../../ui/AskFirst";
import { LongTextField } from "../../ui/LongTextField";
import { tabByKey } from "../../ui/tab_by_key";
import { Single } from "../Single";
import { mayEdit, useSignedIn } from "../signed_in";
import { Waiting } from "../Waiting";
import { asLines, fromLines } from "./list_lines";

export function SharedList({ listId }: { listId: string }) {
  const found = useQuery(queries.list(listId));
  return (
    <Single title={found.data?.name ?? "List"}>
      {found.isPending && <Waiting />}
      {found.isError && <Alert severity="error">{reasonOf(found.error)}</Alert>}
      {found.data && <Editor key={found.data.revision} list={found.data} />}
    </Single>
  );
}

function Editor({ list }: { list: ListReply }) {
  const may = mayEdit(useSignedIn());
  const [name, setName] = useState(list.name);
  const [text, setText] = useState(() => asLines(list.options));
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const save = useMutation({
    mutationFn: () =>
      api.saveList(list.id, list.revision, { name: name.trim(), options: fromLines(text, list.options) }),
    onSuccess: async (saved) => {
      queryClient.setQueryData(queries.list(list.id).queryKey, saved);
      await queryClient.invalidateQueries({ queryKey: queries.lists().queryKey });
      await queryClient.invalidateQueries({ queryKey: queries.forms().queryKey });
    },
  });
  const remove = useMutation({
    mutationFn: () => api.deleteList(list.id),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: queries.lists().queryKey });
      await navigate("/tables");
    },
  });
  const isChanged = name !== list.name || text !== asLines(list.options);
  const count = text.split("\n").filter((line) => line.trim()).length;
  return (
    <Box
      sx={{ display: "grid", gridTemplateColumns: "minmax(0, 2fr) minmax(0, 1fr)", gap: 4, alignItems: "start", mt: 2 }}
    >
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
        sx={{ display: "grid", gap: 2 }}
      >
        <TextField
          label="Name"
          value={name}
          disabled={!may}
          onChange={(event) => setName(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <LongTextField
          label="Options, a line each"
          lines={12}
          value={text}
          helperText={`${counted(count, "option")}. After the label, with tabs between, as from a spreadsheet: code, number that it counts as, what it belongs to. Ctrl+I makes a tab.`}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => tabByKey(event, setText)}
          attributes={{
            readOnly: !may,
            spellCheck: false,
            style: { fontFamily: MONO, fontSize: 13, whiteSpace: "pre", tabSize: 16 },
          }}
        />
        {save.isError && (
          <Alert severity="error">
            {save.error instanceof ApiError && save.error.problems.length > 0
              ? save.error.problems.map(({ message }) => message).join("; ")
              : reasonOf(save.error)}
          </Alert>
        )}
        {may && (
          <Button
            type="submit"
            variant="contained"
            disabled={!isChanged || !name.trim()}
            loading={save.isPending}
            sx={{ justifySelf: "start" }}
          >
            Keep the list so
          </Button>
        )}
      </Box>
      <Box component="section" aria-label="Forms that have it" sx={{ display: "grid", gap: 1, justifyItems: "start" }}>
        <Typography variant="h3" component="h2">
          Forms that have it
        </Typography>
        {list.forms.length === 0 && (
          <Typography variant="body2" color="text.secondary">
            None yet. In a choice’s options say that they come from this list.
          </Typography>
        )}
        {list.forms.map(({ id, name: form }) => (
          <Link key={id} component={Going} to={`/forms/${id}/compose`}>
            {form}
          </Link>
        ))}
        {list.forms.length > 0 && (
          <Typography variant="body2" color="text.secondary">
            Their drafts follow what is changed here; visitors get it once each is published again.
          </Typography>
        )}
        {list.behind.length > 0 && (
          <Alert severity="warning">
            Somebody was just saving {list.behind.join(", ")}: take the list again in its options there.
          </Alert>
        )}
        {may && (
          <AskFirst
            label="Delete the list"
            color="error"
            warning="Forms keep the options that they have from it, and follow nothing any more."
            onDone={() => remove.mutate()}
          />
        )}
        {remove.isError && <Alert severity="error">{reasonOf(remove.error)}</Alert>}
      </Box>
    </Box>
  );
}
