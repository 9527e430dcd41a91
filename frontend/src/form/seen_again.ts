// What was handed in in this tab: reloaded, the page shows its confirmation again, not the form anew. No React.
import { inStorage } from "../ui/in_storage";

const placeOf = (form: string): string => `codexa-received-${form}`;

/** Remembers where a confirmation is seen again, or forgets it. */
export function rememberReceived(form: string, page: string | null): void {
  inStorage(
    () => sessionStorage,
    (storage) => (page ? storage.setItem(placeOf(form), page) : storage.removeItem(placeOf(form))),
  );
}

/** Where it is seen again, if the page was reloaded; whoever comes by a link begins anew. */
export function receivedPage(form: string): string | null {
  const [came] = performance.getEntriesByType("navigation") as PerformanceNavigationTiming[];
  if (came?.type !== "reload") rememberReceived(form, null);
  const page = inStorage(
    () => sessionStorage,
    (storage) => storage.getItem(placeOf(form)),
  );
  return page?.startsWith("/received/") ? page : null;
}
