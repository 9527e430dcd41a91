// The website around the form, if there is one: what it is told, never an answer, and only if it is the one it said.
import type { PublicPage } from "../api/generated/wire";

export interface Host {
  tell: (message: Record<string, unknown>) => void;
  /** Leads the page around elsewhere; without our script there, the browser is asked. */
  redirect: (address: string) => void;
}

const NOBODY: Host = { tell: () => undefined, redirect: (address) => location.assign(address) };

/** What sends messages to the origin that frames the page, exactly. */
export function hostOf({ framed, host, came }: Pick<PublicPage, "framed" | "host" | "came">): Host {
  if (!framed || parent === window) return NOBODY;
  const around = host || originOf(document.referrer);
  const tell = (message: Record<string, unknown>) => {
    if (around) parent.postMessage(message, around);
  };
  const redirect = (address: string) => {
    if (came.way === "frame") open(address, "_top");
    else tell({ codexa: "redirect", address });
  };
  return { tell, redirect };
}

/** An address of ours in the frame in which the form stands: it goes on knowing the website around. */
export function inFrame(address: string): string {
  const given = new URLSearchParams(location.search);
  const kept = new URLSearchParams([...given].filter(([name]) => name.startsWith("codexa-")));
  return `/embed${address}?${kept}`;
}

const originOf = (address: string): string => (URL.canParse(address) ? new URL(address).origin : "");
