// Where one form is made: its header, its areas, and the proof bar below them.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useMemo, useState } from "react";
import type { FormReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { namesOf, placesOf } from "../../model/outline";
import { Waiting } from "../Waiting";
import { Compose } from "../compose/Compose";
import { PublishArea } from "../publish/PublishArea";
import { mayEdit, useSignedIn } from "../signed_in";
import { AreaTabs } from "./AreaTabs";
import { BenchContext } from "./bench";
import { ClashNotice } from "./ClashNotice";
import { ProofBar } from "./ProofBar";
import { useDraft } from "./useDraft";
import { WorkbenchHeader } from "./WorkbenchHeader";

const Preview = lazy(() => import("../preview/Preview").then((module) => ({ default: module.Preview })));
const Responses = lazy(() => import("../responses/Responses").then((module) => ({ default: module.Responses })));

interface Props {
  formId: string;
  area: string;
}

export function Workbench({ formId, area }: Props) {
  const form = useQuery(queries.form(formId));
  if (form.isPending) return <Waiting />;
  if (form.isError) {
    return (
      <Box sx={{ p: 4, maxWidth: 560 }}>
        <Alert severity="error" action={<Button href="/">To the desk</Button>}>
          {form.error.message}
        </Alert>
      </Box>
    );
  }
  return <OpenWorkbench reply={form.data} area={area} />;
}

function OpenWorkbench({ reply, area }: { reply: FormReply; area: string }) {
  const draft = useDraft(reply);
  const who = useSignedIn();
  const [selected, setSelected] = useState<{ block: string | null; setting: string | null }>({
    block: null,
    setting: null,
  });
  const places = useMemo(() => placesOf(draft.form), [draft.form]);
  const names = useMemo(() => namesOf(draft.form), [draft.form]);
  useUndoKeys(draft.undo, draft.redo);
  useEffect(() => {
    document.title = `${draft.form.name} · Codexa`;
  }, [draft.form.name]);
  const bench = {
    ...draft,
    reply,
    places,
    names,
    mayEdit: mayEdit(who),
    // A block that is gone (undone, removed by somebody else) is no longer selected.
    block: selected.block && places.has(selected.block) ? selected.block : null,
    setting: selected.setting,
    select: (block: string | null, setting: string | null = null) => setSelected({ block, setting }),
  };
  return (
    <BenchContext value={bench}>
      <Box sx={{ display: "flex", flexDirection: "column", height: "100vh", minWidth: 1000 }}>
        <WorkbenchHeader />
        <AreaTabs area={area} formId={reply.id} />
        <ClashNotice />
        <Box component="main" sx={{ flex: 1, minHeight: 0 }}>
          <Suspense fallback={<Waiting />}>
            {area === "compose" && <Compose />}
            {area === "preview" && <Preview />}
            {area === "publish" && <PublishArea />}
            {area === "responses" && <Responses formId={reply.id} />}
          </Suspense>
        </Box>
        <ProofBar />
      </Box>
    </BenchContext>
  );
}

function useUndoKeys(undo: () => void, redo: () => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z") return;
      event.preventDefault();
      if (event.shiftKey) redo();
      else undo();
    };
    // Before an input's own undo: a step in a text field is a step of the draft.
    addEventListener("keydown", onKey, { capture: true });
    return () => removeEventListener("keydown", onKey, { capture: true });
  }, [undo, redo]);
}
