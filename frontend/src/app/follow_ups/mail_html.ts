// A mail's HTML for a frame in the workbench, whose policy takes no styles in attributes: they become classes.

/** The same document with its styles in one element that carries the page's nonce. */
export function forFrame(html: string, nonce: string): string {
  const styles: string[] = [];
  const body = html.replace(/ style="([^"]*)"/g, (_whole, style: string) => {
    styles.push(`.m${styles.length}{${style}}`);
    return ` class="m${styles.length - 1}"`;
  });
  return body.replace("</head>", `<style nonce="${nonce}">${styles.join("")}</style></head>`);
}
