// Where one form is made: its header, its areas, and the proof bar below them.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Snackbar from "@mui/material/Snackbar";
import { useQuery } from "@tanstack/react-query";
import { Activity, lazy, Suspense, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import { useLocation } from "react-router";
import type { FormReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { type Parts, partsOf } from "../../model/parts";
import { Waiting } from "../Waiting";
import { actionsOn, type Removal } from "../compose/actions";
import { Compose } from "../compose/Compose";
import { PublishArea } from "../publish/PublishArea";
import { AreaLine } from "../help/AreaLine";
import { HelpTopic } from "../help/HelpTopic";
import type { Topic } from "../help/topics";
import { noteOpened } from "../desk/opened_lately";
import { mayEdit, SignedInProvider, useSignedIn } from "../signed_in";
import { isSomethingOpen, isTypingText } from "../compose/keys";
import { isTurnedOff } from "../compose/single_keys";
import { AREA_CODE } from "./area_code";
import { AreaTabs } from "./AreaTabs";
import { type Bench, BenchContext, NOTHING_ANSWERED, type Selection, type Trying } from "./bench";
import { ClashNotice } from "./ClashNotice";
import { CommandList } from "./CommandList";
import { KeySheet } from "./KeySheet";
import { rememberNames } from "./names_seen";
import { ProofBar } from "./ProofBar";
import { RemovalQuestion } from "./RemovalQuestion";
import { type Draft, useDraft } from "./useDraft";
import { usePresence } from "./usePresence";
import { useSelection } from "./useSelection";
import { ValueInserter } from "./ValueInserter";
import { WorkbenchHeader } from "./WorkbenchHeader";

const PaymentArea = lazy(() => AREA_CODE.payment().then((module) => ({ default: module.PaymentArea })));
const BrandArea = lazy(() => AREA_CODE.brand().then((module) => ({ default: module.BrandArea })));
const Figures = lazy(() => AREA_CODE.figures().then((module) => ({ default: module.Figures })));
const FollowUps = lazy(() => AREA_CODE["follow-ups"]().then((module) => ({ default: module.FollowUps })));
const HistoryArea = lazy(() => AREA_CODE.history().then((module) => ({ default: module.HistoryArea })));
const LanguagesArea = lazy(() => AREA_CODE.languages().then((module) => ({ default: module.LanguagesArea })));
const Rules = lazy(() => AREA_CODE.rules().then((module) => ({ default: module.Rules })));
const SlotsArea = lazy(() => AREA_CODE.slots().then((module) => ({ default: module.SlotsArea })));
const Rehearsal = lazy(() => AREA_CODE.rehearsal().then((module) => ({ default: module.Rehearsal })));
const Trials = lazy(() => AREA_CODE.trials().then((module) => ({ default: module.Trials })));
const Preview = lazy(() => AREA_CODE.preview().then((module) => ({ default: module.Preview })));
const Responses = lazy(() => AREA_CODE.responses().then((module) => ({ default: module.Responses })));

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
  return <InOwnRole reply={form.data} area={area} />;
}

/** The workbench in the role that one has for this form, which may be another than in the team. */
function InOwnRole({ reply, area }: { reply: FormReply; area: string }) {
  const who = useSignedIn();
  const { role } = reply;
  const here = useMemo(() => ({ ...who, role }), [who, role]);
  return (
    <SignedInProvider value={here}>
      <OpenWorkbench reply={reply} area={area} />
    </SignedInProvider>
  );
}

function OpenWorkbench({ reply, area }: { reply: FormReply; area: string }) {
  const draft = useDraft(reply);
  const who = useSignedIn();
  const parts = useMemo(() => partsOf(draft.form), [draft.form]);
  useEffect(() => rememberNames(reply.id, parts), [reply.id, parts]);
  const selection = useSelection(parts);
  const people = usePresence(reply.id, area, selection.part, draft.catchUp);
  const [trying, setTrying] = useState<Trying>(NOTHING_ANSWERED);
  const [open, setOpen] = useState<"commands" | "keys" | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [topic, setTopic] = useState<Topic | null>(null);
  useListKeys(setOpen);
  const { undo, redo } = useSteps(draft, parts, selection);
  useUndoKeys(undo, redo);
  const [saved, setSaved] = useState(false);
  useSaveKey(draft.saveNow, setSaved);
  useEffect(() => {
    document.title = `${draft.form.name} · Codexa`;
  }, [draft.form.name]);
  useEffect(() => noteOpened(who.person_id, reply.id), [who.person_id, reply.id]);
  useAskedPart(parts, selection.select);
  const bench = { ...draft, undo, redo, ...selection, reply, parts, people, trying, setTrying, mayEdit: mayEdit(who) };
  const keepsCompose = useKeepsCompose(parts.size, area);
  const [removal, setRemoval] = useState<Removal | null>(null);
  const actions = useActions(bench, setRemoval);
  return (
    <BenchContext value={{ ...bench, actions }}>
      <Box sx={{ display: "flex", flexDirection: "column", height: "100vh", minWidth: 1000 }}>
        <WorkbenchHeader />
        <AreaTabs area={area} formId={reply.id} />
        <ClashNotice />
        <Box component="main" sx={{ flex: 1, minHeight: 0, display: "flex", flexDirection: "column" }}>
          <AreaLine area={area} />
          <Box sx={{ flex: 1, minHeight: 0 }}>
            <Suspense fallback={<Waiting />}>
              {keepsCompose ? (
                <Activity mode={area === "compose" ? "visible" : "hidden"}>
                  <Compose />
                </Activity>
              ) : (
                area === "compose" && <Compose />
              )}
              {area === "slots" && <SlotsArea />}
              {area === "rules" && <Rules />}
              {area === "figures" && <Figures />}
              {area === "brand" && <BrandArea />}
              {area === "languages" && <LanguagesArea />}
              {area === "payment" && <PaymentArea />}
              {area === "follow-ups" && <FollowUps />}
              {area === "trials" && <Trials />}
              {area === "rehearsal" && <Rehearsal />}
              {area === "history" && <HistoryArea />}
              {area === "preview" && <Preview />}
              {area === "publish" && <PublishArea />}
              {area === "responses" && <Responses formId={reply.id} />}
            </Suspense>
          </Box>
          <ValueInserter />
        </Box>
        <ProofBar area={area} />
        {open === "commands" && (
          <CommandList
            onClose={() => setOpen(null)}
            onKeys={() => setOpen("keys")}
            onProblem={setProblem}
            onHelp={setTopic}
          />
        )}
        {topic && <HelpTopic topic={topic} form={reply.id} onClose={() => setTopic(null)} />}
        <Snackbar open={problem !== null} autoHideDuration={12_000} onClose={() => setProblem(null)}>
          <Alert severity="error" onClose={() => setProblem(null)}>
            {problem}
          </Alert>
        </Snackbar>
        <Snackbar
          open={saved}
          autoHideDuration={3000}
          onClose={() => setSaved(false)}
          message="Saved. Every change is, by itself."
        />
        {removal && <RemovalQuestion removal={removal} onClose={() => setRemoval(null)} />}
        {open === "keys" && <KeySheet onClose={() => setOpen(null)} />}
      </Box>
    </BenchContext>
  );
}

const LARGE = 100; // parts

/** Whether Compose stays, out of sight, while one works elsewhere: to draw a large sheet anew takes long. */
function useKeepsCompose(size: number, area: string): boolean {
  const [wasThere, setWasThere] = useState(area === "compose");
  if (area === "compose" && !wasThere) setWasThere(true);
  return wasThere && size >= LARGE;
}

/** The actions; they outlive every area, since what one waits for may come when its area is left. */
function useActions(bench: Omit<Bench, "actions">, ask: (removal: Removal) => void) {
  const latest = useRef(bench);
  useLayoutEffect(() => {
    latest.current = bench;
  });
  return useMemo(() => actionsOn(() => latest.current, ask), [ask]);
}

/** Whoever was led here to a part finds it selected. */
function useAskedPart(parts: Parts, select: Selection["select"]) {
  const state = useLocation().state as { part?: string } | null;
  const [asked, setAsked] = useState(state?.part ?? null);
  useEffect(() => {
    if (asked === null) return;
    if (parts.has(asked)) select(asked);
    setAsked(null);
  }, [asked, parts, select]);
}

/** Undo and redo that go to where something changed; what is selected stays so where it is part of it. */
function useSteps({ undo, redo }: Draft, parts: Parts, { selected, select }: Selection) {
  const [about, setAbout] = useState<readonly string[]>([]);
  useEffect(() => {
    if (about.length === 0) return;
    const there = about.find((id) => parts.has(id) && parts.get(id)!.what !== "trial");
    if (there && !about.some((id) => selected.includes(id))) select(there);
    setAbout([]);
  }, [about, parts, selected, select]);
  return {
    undo: useCallback(() => setAbout(undo()), [undo]),
    redo: useCallback(() => setAbout(redo()), [redo]),
  };
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

/** Ctrl+S saves what is not saved yet, and says so; what keeps it from being saved stands at the top. */
function useSaveKey(saveNow: () => Promise<boolean>, tell: (saved: boolean) => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "s") return;
      event.preventDefault();
      void saveNow().then(tell);
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, [saveNow, tell]);
}

/** Ctrl+K for the command list, ? for the sheet of shortcuts. */
function useListKeys(open: (what: "commands" | "keys") => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const commands = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k";
      const isFree = !isTypingText(event.target) && !event.defaultPrevented && !isSomethingOpen();
      const keys = event.key === "?" && isFree && !isTurnedOff(event);
      if (!commands && !keys) return;
      event.preventDefault();
      open(commands ? "commands" : "keys");
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, [open]);
}
