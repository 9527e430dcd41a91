// The draft of the open form, for as long as its workbench is open.
import { useEffect, useState, useSyncExternalStore } from "react";
import { api } from "../../api/client";
import type { FormReply } from "../../api/generated/wire";
import { useSignedIn } from "../signed_in";
import { DraftSession, type DraftView } from "./draft_session";
import { draftStore } from "./kept_draft";

type Doing = "act" | "undo" | "redo" | "wouldDo" | "settle" | "publish" | "goBack" | "move" | "catchUp" | "saveNow";

/** The draft as it stands, and all that can be done with it as a whole. */
export type Draft = DraftView & Pick<DraftSession, Doing>;

export function useDraft(loaded: FormReply): Draft {
  const who = useSignedIn();
  const [session] = useState(() => new DraftSession(loaded, api, draftStore(loaded.id, who.person_id)));
  const view = useSyncExternalStore(session.subscribe, session.read);
  useEffect(() => {
    void session.open();
    return session.close;
  }, [session]);
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    if (view.dirty) addEventListener("beforeunload", warn);
    return () => removeEventListener("beforeunload", warn);
  }, [view.dirty]);
  const { act, undo, redo, wouldDo, settle, publish, goBack, move, catchUp, saveNow } = session;
  return { ...view, act, undo, redo, wouldDo, settle, publish, goBack, move, catchUp, saveNow };
}
