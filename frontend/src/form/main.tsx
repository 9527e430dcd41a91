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
import { Transport } from "./transport";

const page = JSON.parse(document.getElementById("form-data")!.textContent!) as PublicPage;
const transport = new Transport(page.form, page.edition, page.link);
const start = { state: page.state, page: pageAt(page.face, page.page) };
const session = new FormSession(page.face, start, transport, answerStore(page.form));
const root = document.getElementById("root")!;

const tellHost = (message: Record<string, unknown>) => {
  // Neither height nor page is a secret; the page around the frame needs them, whatever site that is.
  if (page.framed) parent.postMessage(message, "*");
};
const tellPage = (segment: string) => tellHost({ codexa: "page", page: segment });
const upload = transport.upload.bind(transport);
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

if (page.framed) {
  new ResizeObserver(() => tellHost({ codexa: "height", height: root.offsetHeight })).observe(root);
}
