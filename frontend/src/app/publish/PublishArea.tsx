// Publish: the form's address, the snippet for websites, who may frame it, and the editions so far.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Paper from "@mui/material/Paper";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type PropsWithChildren, useState } from "react";
import { api, reasonOf } from "../../api/client";
import { queries } from "../../api/queries";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { CopyField } from "../../ui/CopyField";
import { HelpButton } from "../help/HelpTopic";
import { useBench } from "../workbench/bench";
import { PublicAddress } from "./PublicAddress";
import { LongTextField } from "../../ui/LongTextField";

export function PublishArea() {
  const { saved } = useBench();
  return (
    <Box sx={{ height: "100%", overflow: "auto", p: 3 }}>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: "minmax(0, 3fr) minmax(0, 2fr)",
          gap: 2,
          maxWidth: 1240,
          alignItems: "start",
        }}
      >
        <Box sx={{ display: "grid", gap: 2 }}>
          <Box sx={{ display: "flex", alignItems: "baseline", gap: 1 }}>
            <Typography variant="h1">Publish</Typography>
            <HelpButton topic="publish" />
          </Box>
          {saved.liveEdition === null && (
            <Alert severity="info">
              Nobody can reach this form yet. Choose its address if you like, then publish edition 1 with the button at
              the top: link and snippet stay as they are then.
            </Alert>
          )}
          <Panel title="Link" lead="The form on a page of its own.">
            <CopyField label="the link" text={saved.address} />
            <PublicAddress />
          </Panel>
          <Panel title="On a website" lead="Put this where the form shall stand. Its frame grows with what is in it.">
            <CopyField label="the snippet" text={saved.snippet} />
          </Panel>
          <Sites />
        </Box>
        <Editions />
      </Box>
    </Box>
  );
}

function Panel({ title, lead, children }: PropsWithChildren<{ title: string; lead: string }>) {
  return (
    <Paper component="section" variant="outlined" sx={{ p: 2.5 }}>
      <Typography variant="h2">{title}</Typography>
      <Typography variant="body2" color="text.secondary" sx={{ mb: 1.5 }}>
        {lead}
      </Typography>
      {children}
    </Paper>
  );
}

function Sites() {
  const { reply, mayEdit } = useBench();
  const queryClient = useQueryClient();
  const [sites, setSites] = useState(reply.sites.join("\n"));
  const save = useMutation({
    mutationFn: () =>
      api.setSites(
        reply.id,
        sites
          .split("\n")
          .map((site) => site.trim())
          .filter(Boolean),
      ),
    onSuccess: (kept) => {
      queryClient.setQueryData(queries.form(reply.id).queryKey, (before) => before && { ...before, sites: kept.sites });
      setSites(kept.sites.join("\n"));
    },
  });
  const changed = sites.trim() !== reply.sites.join("\n");
  return (
    <Panel
      title="Websites that may show it"
      lead="Only these may frame the form; browsers refuse every other one. One address a line. It holds at once, without publishing."
    >
      <Box sx={{ display: "grid", gap: 1.5, justifyItems: "start" }}>
        <LongTextField
          lines={2}
          value={sites}
          disabled={!mayEdit}
          placeholder="https://www.example.org"
          onChange={(event) => setSites(event.target.value)}
          attributes={{ "aria-label": "Websites, one a line", spellCheck: false }}
        />
        {save.isError && <Alert severity="error">{reasonOf(save.error)}</Alert>}
        {mayEdit && (
          <Button variant="outlined" disabled={!changed} loading={save.isPending} onClick={() => save.mutate()}>
            {save.isSuccess && !changed ? "Saved" : "Save the websites"}
          </Button>
        )}
      </Box>
    </Panel>
  );
}

function Editions() {
  const dayAndTime = useDayAndTime();
  const { reply } = useBench();
  const editions = useQuery(queries.editions(reply.id));
  return (
    <Paper component="section" variant="outlined" aria-label="Editions" sx={{ mt: 6 }}>
      <Typography variant="h2" sx={{ px: 2, pt: 2, pb: 1 }}>
        Editions
      </Typography>
      {editions.isError && <Alert severity="error">{editions.error.message}</Alert>}
      {editions.data?.editions.length === 0 && (
        <Typography sx={{ px: 2, pb: 2, color: "text.secondary" }}>
          None yet. Each one stays as it was published, and so do its responses.
        </Typography>
      )}
      {editions.data && editions.data.editions.length > 0 && (
        <Table size="small">
          <TableHead>
            <TableRow>
              <TableCell>Edition</TableCell>
              <TableCell>Published</TableCell>
              <TableCell align="right">Responses</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {editions.data.editions.map((edition) => (
              <TableRow key={edition.number}>
                <TableCell>{edition.number}</TableCell>
                <TableCell>
                  {dayAndTime(edition.published_at)}
                  {edition.published_by && `, ${edition.published_by}`}
                </TableCell>
                <TableCell align="right">{edition.responses}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </Paper>
  );
}
