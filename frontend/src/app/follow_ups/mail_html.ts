// A mail's HTML for a frame in the workbench, whose policy takes no styles in attributes: they become classes.

/** The same document with its styles in one element that carries the page's nonce. */
export function forFrame(html: string, nonce: string): string {
  const styles: string[] = [];
  const body = html.replace(
    /(?: class="([^"]*)")? style="([^"]*)"/g,
    (_whole, names: string | undefined, style: string) => {
      styles.push(`.m${styles.length}{${style}}`);
      return ` class="${names ? `${names} ` : ""}m${styles.length - 1}"`;
    },
  );
  // The mail's own element is for dark schemes of programs for mail; the frame is as light as the workbench.
  return body
    .replace(/<style>.*?<\/style>/s, "")
    .replace("</head>", `<style nonce="${nonce}">${styles.join("")}</style></head>`);
}
