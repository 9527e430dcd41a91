// Pages and addresses: each page has its own, and the browser's back and forward work.
import { useEffect } from "react";
import type { FormFace } from "../api/generated/wire";
import type { FormSession } from "./session";

type Page = FormFace["pages"][number];

const numberOf = (face: FormFace, page: Page): string =>
  String(face.pages.findIndex((each) => each.id === page.id) + 1);

/** The address of a page below the form's own: what the author named, or its place. */
export const segmentOf = (face: FormFace, page: Page): string =>
  (face.page_addresses === "names" && page.address) || numberOf(face, page);

/** The page of an address; names and numbers both lead there, whichever are shown, as links to either are about. */
export const pageAt = (face: FormFace, segment: string): string | null =>
  (
    face.pages.find((page) => page.address === segment && segment !== "") ??
    face.pages.find((page) => numberOf(face, page) === segment)
  )?.id ?? null;

/** Keeps the browser's address at the page that is open, and opens the page that its back and forward lead to. */
export function useAddresses(session: FormSession, address: string, tell: (segment: string) => void): void {
  useEffect(() => {
    // A confirmation on a page of its own keeps its address.
    if (!session.paged || session.read().phase === "received") return;
    let shown = "";
    const write = (how: "pushState" | "replaceState") => {
      const { page, phase } = session.read();
      const open = session.face.pages.find((each) => each.id === page);
      if (!open || phase === "welcome") return;
      const segment = segmentOf(session.face, open);
      if (segment === shown) return;
      shown = segment;
      history[how]({ page }, "", `${address}/${segment}${location.search}`);
      tell(segment);
    };
    write("replaceState");
    // In a conversation what was said stays in sight: back leads out of it, to where the visitor came from.
    const how = session.face.presentation === "chat" ? "replaceState" : "pushState";
    const leave = session.subscribe(() => write(how));
    const travel = (event: PopStateEvent) => {
      const wanted = (event.state as { page?: string } | null)?.page ?? null;
      const open = session.face.pages.find((each) => each.id === wanted);
      shown = open ? segmentOf(session.face, open) : "";
      // An address that can't be reached yet shows what can, and says so in the address.
      if (session.visit(wanted) !== wanted) {
        shown = "";
        write("replaceState");
      } else tell(shown);
    };
    addEventListener("popstate", travel);
    return () => {
      leave();
      removeEventListener("popstate", travel);
    };
  }, [session, address, tell]);
}
