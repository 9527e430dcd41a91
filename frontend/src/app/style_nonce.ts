/** The page's nonce: only styles that carry it may be put into the page by script. */
export const styleNonce = (): string =>
  document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content ?? "";
