// Live feeds of a saved view: addresses for spreadsheets and reporting tools, with when they were fetched last.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { api, reasonOf } from "../../api/client";
import type { FeedReply, ViewReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { AskFirst } from "../../ui/AskFirst";
import { CopyField } from "../../ui/CopyField";
import { useDayAndTime } from "../workbench/useDayAndTime";

export function Feeds({ formId, view }: { formId: string; view: ViewReply }) {
  const queryClient = useQueryClient();
  const found = useQuery(queries.feeds(formId));
  const refresh = () => queryClient.invalidateQueries({ queryKey: queries.feeds(formId).queryKey });
  const make = useMutation({ mutationFn: () => api.makeFeed(formId, view.id), onSuccess: refresh });
  const making = useRef<HTMLButtonElement>(null);
  const end = useMutation({
    mutationFn: (feed: string) => api.endFeed(formId, feed),
    onSuccess: async () => {
      await refresh();
      // What was pressed is gone.
      making.current?.focus();
    },
  });
  const feeds = found.data?.feeds.filter((each) => each.view_id === view.id) ?? [];
  const problem = found.error ?? make.error ?? end.error;
  return (
    <Box component="section" aria-label="Live feed" sx={{ px: 2, pb: 1.5, display: "grid", gap: 1 }}>
      <Typography variant="h3">Live feed</Typography>
      <Typography variant="body2" color="text.secondary">
        A secret address that gives “{view.name}” as it is saved, always as of now. Whoever has it can read it.
      </Typography>
      {feeds.map((feed) => (
        <OneFeed key={feed.id} feed={feed} onEnd={() => end.mutate(feed.id)} />
      ))}
      <Button ref={making} variant="outlined" color="inherit" loading={make.isPending} onClick={() => make.mutate()}>
        {feeds.length === 0 ? "Make a live feed" : "Make another"}
      </Button>
      {problem && <Box role="alert">{reasonOf(problem)}</Box>}
    </Box>
  );
}

function OneFeed({ feed, onEnd }: { feed: FeedReply; onEnd: () => void }) {
  const dayAndTime = useDayAndTime();
  return (
    <Box sx={{ display: "grid", gap: 0.5, justifyItems: "start", "& > *": { minWidth: 0, maxWidth: "100%" } }}>
      {feed.address ? (
        <>
          {(["csv", "json"] as const).map((kind) => (
            <Box key={kind} sx={{ width: "100%" }}>
              <Typography variant="caption">{kind.toUpperCase()}</Typography>
              <CopyField label={`Feed as ${kind.toUpperCase()}`} text={`${feed.address}.${kind}`} />
            </Box>
          ))}
        </>
      ) : (
        <Typography>Its address can’t be shown again: the server’s keys have changed. It still works.</Typography>
      )}
      <Typography variant="body2" color="text.secondary">
        {feed.last_fetched_at
          ? `Fetched ${counted(feed.fetches, "time")}, last ${dayAndTime(feed.last_fetched_at)}.`
          : "Never fetched yet."}{" "}
        Made by {feed.made_by ?? "somebody who is gone"}.
      </Typography>
      <AskFirst
        label="End this feed …"
        color="inherit"
        warning="Whatever reads it gets nothing any more. A new one has another address."
        onDone={onEnd}
      />
    </Box>
  );
}
