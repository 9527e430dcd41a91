// Shows Codexa forms on a website: each <div data-codexa="team/form"></div> becomes a frame that grows with its content.
// With data-codexa-fragment the page that is open is kept in the website's own address, as #name. Each time another page
// of the form opens, the <div> gets an event "codexa:page" whose detail has that name.
(() => {
  const origin = new URL(document.currentScript.src).origin;
  const PAGE = /^[a-z0-9-]{1,60}$/;

  const addressOf = (place) => {
    const form = place.dataset.codexa.split("/").map(encodeURIComponent).join("/");
    const wanted = location.hash.slice(1);
    const page = "codexaFragment" in place.dataset && PAGE.test(wanted) ? `/${wanted}` : "";
    return `${origin}/embed/${form}${page}${location.search}`;
  };

  const heard = (place, frame, { codexa, height, page, address }) => {
    if (codexa === "height" && Number.isFinite(height)) frame.style.height = `${Math.min(Math.ceil(height), 50000)}px`;
    if (codexa === "page" && PAGE.test(page)) {
      place.dispatchEvent(new CustomEvent("codexa:page", { detail: { page }, bubbles: true }));
      if ("codexaFragment" in place.dataset) history.replaceState(history.state, "", `#${page}`);
      if (frame.getBoundingClientRect().top < 0) frame.scrollIntoView();
    }
    if (codexa === "redirect" && /^https?:\/\//.test(address)) location.assign(address);
  };

  const show = (place) => {
    if (place.dataset.codexaShown) return;
    place.dataset.codexaShown = "yes";
    const frame = document.createElement("iframe");
    frame.src = addressOf(place);
    frame.title = place.dataset.codexaTitle || "Form";
    frame.style.cssText = "display:block;width:100%;border:0;min-height:320px";
    place.append(frame);
    addEventListener("message", (event) => {
      // Only the form in this very frame may say something here.
      if (event.origin === origin && event.source === frame.contentWindow) heard(place, frame, event.data ?? {});
    });
  };

  const showAll = () => document.querySelectorAll("[data-codexa]").forEach(show);
  if (document.readyState === "loading") addEventListener("DOMContentLoaded", showAll);
  else showAll();
})();
