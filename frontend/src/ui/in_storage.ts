// The browser's storage, which may refuse: a private window, a strict frame, no room left.

/** What the work gives; null where the browser has no storage or refuses. */
export function inStorage<Value>(storage: () => Storage, work: (place: Storage) => Value): Value | null {
  try {
    return work(storage());
  } catch {
    return null;
  }
}
