import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import type { PublicPage } from "../api/generated/wire";
import { pageAt, useAddresses } from "./addresses";
import "./fonts.css";
import "./form.css";
import "./fields.css";
import { answerStore } from "./kept_answers";
import { PublicForm } from "./PublicForm";
import { FormSession } from "./session";
import { type Answers, Transport } from "./transport";

const page = JSON.parse(document.getElementById("form-data")!.textContent!) as PublicPage;
const transport = new Transport(page.form, page.edition, page.link, page.token);
const start = { state: page.state, page: pageAt(page.face, page.page) };
const session = new FormSession(page.face, start, transport, page.token ? null : answerStore(page.form));
const root = document.getElementById("root")!;

const tellHost = (message: Record<string, unknown>) => {
  // Neither height nor page is a secret; the page around the frame needs them, whatever site that is.
  if (page.framed) parent.postMessage(message, "*");
};
const tellPage = (segment: string) => tellHost({ codexa: "page", page: segment });
// A draft has nowhere to send files to.
const upload = page.token ? null : transport.upload.bind(transport);
const redirect = (address: string) =>
  page.framed ? tellHost({ codexa: "redirect", address }) : location.assign(address);

function Page() {
  useAddresses(session, page.address, tellPage);
  return <PublicForm session={session} upload={upload} onRedirect={redirect} />;
}

createRoot(root).render(
  <StrictMode>
    <Page />
  </StrictMode>,
);

if (page.token) {
  // The workbench around a preview hears what was answered, and may fill it in.
  session.subscribe(() => parent.postMessage({ codexa: "answers", answers: session.read().answers }, origin));
  addEventListener("message", (event: MessageEvent<{ codexa?: string; answers?: Answers }>) => {
    if (event.origin === origin && event.source === parent && event.data.codexa === "fill")
      session.fillIn(event.data.answers ?? {});
  });
}
if (page.framed) {
  new ResizeObserver(() => tellHost({ codexa: "height", height: root.offsetHeight })).observe(root);
}
