import { createContext, useContext } from "react";
import type { SignedInReply } from "../api/generated/wire";

const SignedInContext = createContext<SignedInReply | null>(null);

export const SignedInProvider = SignedInContext.Provider;

/** Who is signed in; only used where somebody is. */
export function useSignedIn(): SignedInReply {
  const who = useContext(SignedInContext);
  if (!who) throw new Error("useSignedIn outside of SignedInProvider");
  return who;
}

/** Whether this person may change forms; the server decides, this only spares them buttons that would refuse. */
export const mayEdit = (who: SignedInReply): boolean => who.role === "owner" || who.role === "editor";

/** Whether this person may mark responses: with a status, tags, a person; and save views. */
export const mayMark = (who: SignedInReply): boolean => who.role !== "viewer";
