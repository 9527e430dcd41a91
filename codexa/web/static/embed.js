// Shows Codexa forms on a website: each <div data-codexa="team/form"></div> becomes a frame that grows with its content.
(() => {
  const origin = new URL(document.currentScript.src).origin;

  const show = (place) => {
    if (place.dataset.codexaShown) return;
    place.dataset.codexaShown = "yes";
    const frame = document.createElement("iframe");
    frame.src = `${origin}/embed/${place.dataset.codexa.split("/").map(encodeURIComponent).join("/")}`;
    frame.title = place.dataset.codexaTitle || "Form";
    frame.style.cssText = "display:block;width:100%;border:0;min-height:320px";
    place.append(frame);
    addEventListener("message", (event) => {
      // Only the form in this very frame may set its height.
      if (event.origin !== origin || event.source !== frame.contentWindow) return;
      const { codexa, height } = event.data ?? {};
      if (codexa === "height" && Number.isFinite(height)) frame.style.height = `${Math.min(Math.ceil(height), 50000)}px`;
    });
  };

  const showAll = () => document.querySelectorAll("[data-codexa]").forEach(show);
  if (document.readyState === "loading") addEventListener("DOMContentLoaded", showAll);
  else showAll();
})();
