import { StrictMode, startTransition } from "react";
import { createRoot } from "react-dom/client";
import type { PublicPage } from "../api/generated/wire";
import { pageAt, useAddresses } from "./addresses";
import "./fonts.css";
import "./form.css";
import "./fields.css";
import "./rows.css";
import "./pages.css";
import "./brand.css";
import "./layouts.css";
import { speakAs } from "../text/visitor";
import { groundStyle } from "./brand";
import { hostOf, inFrame } from "./host";
import { answerStore } from "./kept_answers";
import { typedInThisLanguage } from "./other_language";
import { inputsOf, whenIdle, withRows } from "./prefetch";
import { PublicForm } from "./PublicForm";
import { receivedPage, rememberReceived } from "./seen_again";
import { FormSession } from "./session";
import { Transport } from "./transport";

const page = JSON.parse(document.getElementById("form-data")!.textContent!) as PublicPage;
// Each sealed link is about something of its own, and so is each private one.
const apart = page.kept?.token ?? page.seal;
const store = page.token || page.received ? null : answerStore(apart ? `${page.form}.${apart}` : page.form);
const transport = new Transport(page, page.kept?.visit || (store?.visit ?? ""), page.token);
const start = {
  state: page.state,
  page: pageAt(page.face, page.page),
  received: page.received,
  edition: page.edition,
  kept: page.kept,
  visitor: page.visitor,
};
await Promise.all([inputsOf(page.face.pages), typedInThisLanguage(page.face, transport, store)]);
const session = new FormSession(page.face, start, transport, store);
const host = hostOf(page);
const root = document.getElementById("root")!;
speakAs(page.face.wording.messages);
addEventListener("pagehide", () => {
  session.save();
  store?.leave();
});
if (!page.framed || page.token) Object.assign(document.body.style, groundStyle(page.face.brand));

const tellPage = (segment: string) => host.tell({ codexa: "page", page: segment });
// A draft has nowhere to send files to.
const upload = page.token && !page.takes_files ? null : transport.upload.bind(transport);
const redirect = (address: string, within: boolean) => (within ? location.assign(address) : host.redirect(address));
// Back leads to before the form, not to one that is filled in already.
const ownPage = (address: string) => location.replace(page.framed ? inFrame(address) : address);
if (!page.token && !page.received) {
  const again = receivedPage(page.form);
  if (again) ownPage(again);
  session.subscribe(() => {
    const { phase, received } = session.read();
    rememberReceived(page.form, phase === "received" ? (received?.page ?? null) : null);
  });
}
// Whoever it is handed on to opens it on a page of its own, not in a frame.
const address = page.token ? null : page.address.replace(/^\/embed\//, "/f/");

function Page() {
  useAddresses(session, page.address, tellPage);
  return (
    <PublicForm
      session={session}
      form={page.form}
      upload={upload}
      address={address}
      later={page.later}
      members={page.members}
      onTrap={page.token ? null : (text) => void (transport.trap = text)}
      onRedirect={redirect}
      onOwnPage={page.received ? null : ownPage}
    />
  );
}

// In pieces: the whole form at once would keep the browser from everything else for as long as it takes.
startTransition(() =>
  createRoot(root).render(
    <StrictMode>
      <Page />
    </StrictMode>,
  ),
);

whenIdle(() => void import("./counting").then((counting) => counting.countVisit(session, page, withRows)));
if (page.token) void import("./previewed").then((previewed) => previewed.tellWorkbench(session));
if (page.framed && !page.token) {
  host.tell({ codexa: "ready" });
  new ResizeObserver(() => host.tell({ codexa: "height", height: root.offsetHeight })).observe(root);
  let [answered, submitted] = [false, page.received !== null];
  session.subscribe(() => {
    const { phase, received } = session.read();
    if (!answered && session.isTouched) host.tell({ codexa: "answered" });
    answered ||= session.isTouched;
    if (phase !== "received") submitted = false;
    else if (!submitted) host.tell({ codexa: "submitted", id: received?.number });
    submitted ||= phase === "received";
  });
  addEventListener("keydown", (event) => {
    // A window around closes by the key that closes windows, unless something in the form has used it.
    if (event.key === "Escape" && !event.defaultPrevented) host.tell({ codexa: "leave" });
  });
}
