// Link: the form's own address, its QR code, and how a link to it looks in other programs.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Paper from "@mui/material/Paper";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { reasonOf } from "../../api/client";
import type { WhoAndWhenReply } from "../../api/generated/wire";
import { CopyField } from "../../ui/CopyField";
import { LongTextField } from "../../ui/LongTextField";
import { PictureField } from "../../ui/PictureField";
import { useBench } from "../workbench/bench";
import { Layout, Panel } from "./Layout";
import { PublicAddress } from "./PublicAddress";
import { useAccess } from "./useAccess";

type Sharing = WhoAndWhenReply["sharing"];

export function LinkSection() {
  const { known, set } = useAccess();
  const { saved, reply, mayEdit } = useBench();
  const [typed, setTyped] = useState<Sharing | null>(null);
  const kept = known.data?.sharing;
  const sharing = typed ?? kept ?? { title: "", description: "", picture: "" };
  const edit = (changes: Partial<Sharing>) => setTyped({ ...sharing, ...changes });
  const changed = typed !== null && JSON.stringify(typed) !== JSON.stringify(kept);
  return (
    <Layout
      title="Link"
      lead="The form on a page of its own, for mails, posters and posts."
      picture={<Shared sharing={sharing} />}
    >
      <Panel title="Address">
        <CopyField label="the link" text={saved.address} />
        <PublicAddress />
      </Panel>
      <Panel title="QR code" lead="Leads to the address as it is now; addresses that it had before lead on.">
        <Box sx={{ display: "flex", gap: 1 }}>
          {(["svg", "png"] as const).map((kind) => (
            <Button
              key={kind}
              variant="outlined"
              color="inherit"
              href={`/api/forms/${reply.id}/qr.${kind}?download`}
              download
            >
              {kind.toUpperCase()}
            </Button>
          ))}
        </Box>
      </Panel>
      <Panel
        title="In other programs"
        lead="What messengers, mail and networks show of a link before it is opened. It holds at once."
      >
        <Box component="fieldset" disabled={!mayEdit} sx={{ border: 0, p: 0, m: 0, display: "grid", gap: 1.5 }}>
          <TextField
            label="Title"
            value={sharing.title}
            helperText="Blank: the form’s own title"
            onChange={(event) => edit({ title: event.target.value })}
          />
          <LongTextField
            label="Description"
            value={sharing.description}
            helperText="Blank: the form’s own lead"
            onChange={(event) => edit({ description: event.target.value })}
          />
          <PictureField label="Picture" value={sharing.picture} onChange={(picture) => edit({ picture })} />
          {set.isError && <Alert severity="error">{reasonOf(set.error)}</Alert>}
          {mayEdit && (
            <Box>
              <Button
                variant="outlined"
                disabled={!changed}
                loading={set.isPending}
                onClick={() => set.mutate({ sharing }, { onSuccess: () => setTyped(null) })}
              >
                {set.isSuccess && !changed ? "Saved" : "Save how links look"}
              </Button>
            </Box>
          )}
        </Box>
      </Panel>
    </Layout>
  );
}

/** The link as a message shows it, and as a poster does. */
function Shared({ sharing }: { sharing: Sharing }) {
  const { saved, reply, form } = useBench();
  return (
    <>
      <Typography sx={{ fontWeight: 600 }}>In a message</Typography>
      <Paper variant="outlined" sx={{ overflow: "hidden", maxWidth: 400 }}>
        {sharing.picture && (
          <Box
            component="img"
            src={sharing.picture}
            alt=""
            sx={{ display: "block", width: "100%", aspectRatio: "1.91", objectFit: "cover" }}
          />
        )}
        <Box sx={{ p: 1.5 }}>
          <Typography variant="caption" color="text.secondary" sx={{ overflowWrap: "anywhere" }}>
            {new URL(saved.address).host}
          </Typography>
          <Typography sx={{ fontWeight: 600, overflowWrap: "anywhere" }}>
            {sharing.title || form.title || form.name}
          </Typography>
          <Typography variant="body2" color="text.secondary" sx={{ overflowWrap: "anywhere" }}>
            {sharing.description || form.lead}
          </Typography>
        </Box>
      </Paper>
      <Typography sx={{ fontWeight: 600, mt: 1 }}>On a poster</Typography>
      <Box
        component="img"
        // Another address is another code.
        src={`/api/forms/${reply.id}/qr.svg?of=${encodeURIComponent(saved.address)}`}
        alt={`QR code of ${saved.address}`}
        sx={{ width: 220, height: 220, bgcolor: "#ffffff", border: 1, borderColor: "divider", borderRadius: 1 }}
      />
      <Typography variant="body2" color="text.secondary" sx={{ overflowWrap: "anywhere" }}>
        {saved.address}
      </Typography>
    </>
  );
}
