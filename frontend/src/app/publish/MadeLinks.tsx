// All links that were made, by what was made together; each can be copied and ended, all of them taken along or mailed.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MuiLink from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, reasonOf } from "../../api/client";
import type { BatchesReply, SealedLinksReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { AskFirst } from "../../ui/AskFirst";
import { LongTextField } from "../../ui/LongTextField";
import { useBench } from "../workbench/bench";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { Panel } from "./Layout";

type Batch = BatchesReply["batches"][number];
type SealedLink = SealedLinksReply["links"][number];

export function MadeLinks() {
  const { reply, mayEdit } = useBench();
  const dayAndTime = useDayAndTime();
  const queryClient = useQueryClient();
  const batches = useQuery(queries.linkBatches(reply.id));
  const [open, setOpen] = useState<number | null>(null);
  const change = useMutation({
    mutationFn: (others: boolean) => api.changeSealKey(reply.id, others),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: ["links", reply.id] }),
  });
  const all = batches.data?.batches ?? [];
  if (batches.isError) return <Alert severity="error">{batches.error.message}</Alert>;
  if (all.length === 0) return null;
  return (
    <Panel title="Sealed links">
      {all.map((batch) => (
        <Box key={batch.id} sx={{ borderTop: 1, borderColor: "divider", pt: 1 }}>
          <Box sx={{ display: "flex", alignItems: "baseline", gap: 1.5 }}>
            <Button
              color="inherit"
              aria-expanded={open === batch.id}
              onClick={() => setOpen(open === batch.id ? null : batch.id)}
              sx={{ fontWeight: 600, textAlign: "left" }}
            >
              {batch.name}
            </Button>
            <Typography variant="body2" color="text.secondary" sx={{ flex: 1 }}>
              {counted(batch.links, "link")}, {counted(batch.responses, "response")}
              {batch.mailed > 0 && `, ${batch.mailed} sent by mail`}
              {batch.failed > 0 && `, ${batch.failed} not delivered`} · {dayAndTime(batch.made_at)}
              {batch.made_by && `, ${batch.made_by}`}
            </Typography>
          </Box>
          {open === batch.id && mayEdit && <LinksOf batch={batch} />}
        </Box>
      ))}
      {mayEdit && (
        <Box sx={{ display: "flex", gap: 1, alignItems: "start", flexWrap: "wrap" }}>
          <Button color="inherit" loading={change.isPending} onClick={() => change.mutate(false)}>
            Sign new links with a new key
          </Button>
          <AskFirst
            label="End all earlier links"
            color="error"
            warning="New links get a new key, and no link that was made before opens the form any more. What was answered stays."
            onDone={() => change.mutate(true)}
          />
          {change.data && <Typography role="status">New links are signed with key {change.data.key}.</Typography>}
          {change.isError && <Alert severity="error">{reasonOf(change.error)}</Alert>}
        </Box>
      )}
    </Panel>
  );
}

function LinksOf({ batch }: { batch: Batch }) {
  const { reply, form } = useBench();
  const found = useInfiniteQuery({
    queryKey: ["links", reply.id, batch.id, batch.mailed, batch.responses],
    queryFn: ({ pageParam }) => api.sealedLinks(reply.id, batch.id, pageParam),
    initialPageParam: 0,
    getNextPageParam: ({ next }) => next,
  });
  const links = found.data?.pages.flatMap((page) => page.links) ?? [];
  const names = form.links.map(({ name }) => name).filter((name) => links.some(({ given }) => name in given));
  if (found.isError) return <Alert severity="error">{found.error.message}</Alert>;
  return (
    <Box sx={{ display: "grid", gap: 1, minWidth: 0 }}>
      <Box sx={{ display: "flex", gap: 1 }}>
        {(["xlsx", "csv"] as const).map((kind) => (
          <Button
            key={kind}
            variant="outlined"
            color="inherit"
            href={api.linksAddress(reply.id, batch.id, kind)}
            download
          >
            {kind.toUpperCase()}
          </Button>
        ))}
      </Box>
      {batch.addressed > 0 && <MailThem batch={batch} />}
      <Box sx={{ overflow: "auto" }}>
        <Table size="small" sx={{ "& td, & th": { px: 1 } }}>
          <TableHead>
            <TableRow>
              {names.map((name) => (
                <TableCell key={name}>{name}</TableCell>
              ))}
              <TableCell>Link</TableCell>
              <TableCell align="right">Responses</TableCell>
              <TableCell component="td" />
            </TableRow>
          </TableHead>
          <TableBody>
            {links.map((link) => (
              <OneOf key={link.id} link={link} names={names} />
            ))}
          </TableBody>
        </Table>
      </Box>
      {found.hasNextPage && (
        <Button color="inherit" loading={found.isFetchingNextPage} onClick={() => void found.fetchNextPage()}>
          More of them
        </Button>
      )}
    </Box>
  );
}

function OneOf({ link, names }: { link: SealedLink; names: readonly string[] }) {
  const { reply } = useBench();
  const dayAndTime = useDayAndTime();
  const queryClient = useQueryClient();
  const [copied, setCopied] = useState(false);
  const end = useMutation({
    mutationFn: () => api.endLink(reply.id, link.id),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: ["links", reply.id] }),
  });
  const seal = link.address.slice(link.address.lastIndexOf("=") + 1);
  const notes = [
    link.until && `until ${dayAndTime(link.until)}`,
    link.uses !== null && `${counted(link.uses, "use")}`,
    link.email,
    link.mail && (link.mail === "failed" ? `not delivered: ${link.mail_result}` : link.mail),
  ].filter(Boolean);
  return (
    <TableRow sx={{ opacity: link.ended ? 0.6 : 1 }}>
      {names.map((name) => (
        <TableCell key={name} sx={{ overflowWrap: "anywhere" }}>
          {link.given[name]}
        </TableCell>
      ))}
      <TableCell sx={{ overflowWrap: "anywhere" }}>
        {link.ended ? (
          "ended"
        ) : (
          <MuiLink href={link.address} target="_blank" rel="noopener">
            …?s={seal.slice(0, 6)}…{seal.slice(-3)}
          </MuiLink>
        )}
        {notes.length > 0 && (
          <Typography
            variant="caption"
            color={link.mail === "failed" ? "note.check" : "text.secondary"}
            component="div"
          >
            {notes.join(" · ")}
          </Typography>
        )}
      </TableCell>
      <TableCell align="right">
        {link.responses === 0 ? (
          0
        ) : (
          <MuiLink
            component={Link}
            to={`/forms/${reply.id}/responses?link=${link.id}`}
            aria-label={`${counted(link.responses, "response")} by this link`}
          >
            {link.responses}
          </MuiLink>
        )}
      </TableCell>
      <TableCell align="right" sx={{ whiteSpace: "nowrap" }}>
        {!link.ended && (
          <>
            <Button
              color="inherit"
              onClick={() => void navigator.clipboard.writeText(link.address).then(() => setCopied(true))}
            >
              {copied ? "Copied" : "Copy"}
            </Button>
            <AskFirst
              label="End"
              color="inherit"
              warning="It opens nothing any more; what was answered by it stays."
              onDone={() => end.mutate()}
            />
          </>
        )}
      </TableCell>
    </TableRow>
  );
}

function MailThem({ batch }: { batch: Batch }) {
  const { reply, form } = useBench();
  const queryClient = useQueryClient();
  const [writing, setWriting] = useState(false);
  const [subject, setSubject] = useState(form.title || form.name);
  const [words, setWords] = useState("Here is your link:");
  const mail = useMutation({
    mutationFn: () => api.mailLinks(reply.id, batch.id, { subject, words }),
    onSuccess: () => {
      setWriting(false);
      return queryClient.invalidateQueries({ queryKey: ["links", reply.id] });
    },
  });
  const left = batch.addressed - batch.mailed - batch.failed;
  return (
    <Box sx={{ display: "grid", gap: 1, justifyItems: "start" }}>
      {!writing && left > 0 && (
        <Button variant="outlined" onClick={() => setWriting(true)}>
          Mail each to its address
        </Button>
      )}
      {writing && (
        <Box sx={{ display: "grid", gap: 1, width: "100%", maxWidth: 520 }}>
          <TextField label="Subject" value={subject} onChange={(event) => setSubject(event.target.value)} />
          <LongTextField
            label="Above the link"
            lines={3}
            value={words}
            onChange={(event) => setWords(event.target.value)}
          />
          <Box sx={{ display: "flex", gap: 1 }}>
            <Button
              variant="contained"
              disabled={!subject.trim()}
              loading={mail.isPending}
              onClick={() => mail.mutate()}
            >
              Send {counted(left, "mail")}
            </Button>
            <Button color="inherit" onClick={() => setWriting(false)}>
              Not now
            </Button>
          </Box>
        </Box>
      )}
      {mail.data && <Typography role="status">{counted(mail.data.count, "mail")} on the way.</Typography>}
      {mail.isError && <Alert severity="error">{reasonOf(mail.error)}</Alert>}
    </Box>
  );
}
