// The draft of the open form, for as long as its workbench is open.
import { useEffect, useState, useSyncExternalStore } from "react";
import { api } from "../../api/client";
import type { FormReply } from "../../api/generated/wire";
import { DraftSession, type DraftView } from "./draft_session";
import { draftStore } from "./kept_draft";

/** The draft as it stands, and all that can be done with it as a whole. */
export type Draft = DraftView &
  Pick<DraftSession, "act" | "undo" | "redo" | "settle" | "publish" | "goBack" | "move" | "catchUp" | "saveNow">;

export function useDraft(loaded: FormReply): Draft {
  const [session] = useState(() => new DraftSession(loaded, api, draftStore(loaded.id)));
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
  const { act, undo, redo, settle, publish, goBack, move, catchUp, saveNow } = session;
  return { ...view, act, undo, redo, settle, publish, goBack, move, catchUp, saveNow };
}
