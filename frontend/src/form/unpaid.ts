// What a visitor handed in on this device and has not paid: where that goes on, kept till it is paid or expired.
import { inStorage } from "../ui/in_storage";

const placeOf = (form: string): string => `codexa-unpaid-${form}`;

/** Remembers the page on which it is paid, or forgets it. */
export function rememberUnpaid(form: string, page: string | null): void {
  const place = placeOf(form);
  inStorage(
    () => localStorage,
    (storage) => (page ? storage.setItem(place, page) : storage.removeItem(place)),
  );
}

/** The page on which it is paid, or null. */
export function unpaidPage(form: string): string | null {
  const page = inStorage(
    () => localStorage,
    (storage) => storage.getItem(placeOf(form)),
  );
  return page?.startsWith("/received/") ? page : null;
}
