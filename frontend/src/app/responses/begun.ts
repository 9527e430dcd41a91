// What was begun in this window to be done to many responses: it is told to its end, however quickly that comes.
export const begunHere = new Set<string>();
