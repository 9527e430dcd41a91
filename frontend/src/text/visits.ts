// How numbers of visits are written.

/** A share in whole percent. */
export const share = (part: number, all: number): string => (all === 0 ? "–" : `${Math.round((part / all) * 100)} %`);

/** Seconds as people say them: "40 s", "2 min 10 s", "1 h 5 min". */
export function inTime(seconds: number): string {
  if (seconds < 60) return `${seconds} s`;
  const minutes = Math.floor(seconds / 60);
  if (minutes < 60) return seconds % 60 ? `${minutes} min ${seconds % 60} s` : `${minutes} min`;
  return `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}
