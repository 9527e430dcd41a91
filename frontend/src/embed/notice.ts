// Beside a notice that stands in a frame instead of a form: tells the page around how tall it is, and that it is one.
const asked = new URLSearchParams(location.search).get("codexa-from") || document.referrer;
const host = URL.canParse(asked) ? new URL(asked).origin : "";

function tell(message: Record<string, unknown>): void {
  if (host && parent !== window) parent.postMessage(message, host);
}

tell({ codexa: "unavailable" });
new ResizeObserver(() => tell({ codexa: "height", height: document.body.offsetHeight })).observe(document.body);
addEventListener("keydown", ({ key }) => {
  if (key === "Escape") tell({ codexa: "leave" });
});

export {};
