// Links with values: which fields a link fills in and for whom; a link by hand, many of a table, and all that were made.
import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import Typography from "@mui/material/Typography";
import { useDeferredValue, useState } from "react";
import { useBench } from "../workbench/bench";
import { FromTable } from "./FromTable";
import { Layout, Panel } from "./Layout";
import { LinkFields } from "./LinkFields";
import { LivePicture } from "./LivePicture";
import { MadeLinks } from "./MadeLinks";
import { OneLink } from "./OneLink";
import { useWordsOf } from "../brand/words_of";

export function ValuesSection() {
  const { form, saved, reply, act, mayEdit } = useBench();
  const words = useWordsOf(form);
  const [values, setValues] = useState<Readonly<Record<string, string>>>({});
  const shown = useDeferredValue(values);
  const query = new URLSearchParams(Object.entries(shown).filter(([, value]) => value !== "")).toString();
  const live = saved.liveEdition !== null;
  return (
    <Layout
      title="Links with values"
      lead="A link may bring answers. Sealed ones can’t be bent: with a changed letter the form doesn’t open."
      picture={
        <>
          <LivePicture
            title="As it opens"
            src={`/preview/${reply.id}?${query}&codexa-turn=${saved.revision}`}
            address={`${saved.address}${query && `?${query}`}`}
          />
          <Typography variant="body2" color="text.secondary" sx={{ textAlign: "center" }}>
            Sealed, with one letter changed: “{words.own("linkBroken")}”
          </Typography>
        </>
      }
    >
      <Panel
        title="What links fill in"
        lead="Visitors change what is open, only read what is locked, and don’t see what is hidden."
      >
        <LinkFields />
        <FormControlLabel
          control={
            <Switch
              checked={form.sealed_only}
              disabled={!mayEdit}
              onChange={(_event, sealed_only) => act({ do: "edit_form", changes: { sealed_only } })}
            />
          }
          label="The form opens by a sealed link alone"
        />
        {live && saved.changes > 0 && (
          <Typography variant="body2" color="text.secondary">
            Visitors get edition {saved.liveEdition}: what you change here holds once it is published.
          </Typography>
        )}
      </Panel>
      {form.links.length > 0 && (
        <>
          <OneLink values={values} setValues={setValues} />
          {mayEdit && live && <FromTable show={setValues} />}
          {live ? (
            <MadeLinks />
          ) : (
            <Box>
              <Typography color="text.secondary">Publish the form, and sealed links can be made.</Typography>
            </Box>
          )}
        </>
      )}
    </Layout>
  );
}
