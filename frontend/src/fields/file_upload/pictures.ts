/** Media types of which the server makes small pictures, and larger ones to look at. */
export const PICTURES: ReadonlySet<string> = new Set([
  "image/jpeg",
  "image/png",
  "image/gif",
  "image/webp",
  "image/heic",
]);
