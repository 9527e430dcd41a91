import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import type { PublicPage } from "../api/generated/wire";
import "./fonts.css";
import "./form.css";
import { PublicForm } from "./PublicForm";
import { FormSession } from "./session";
import { Transport } from "./transport";

const page = JSON.parse(document.getElementById("form-data")!.textContent!) as PublicPage;
const session = new FormSession(page.face, page, new Transport(page.form, page.edition));
const root = document.getElementById("root")!;

createRoot(root).render(
  <StrictMode>
    <PublicForm session={session} />
  </StrictMode>,
);

if (page.framed) {
  // The height is no secret; the page around the frame needs it, whatever site that is.
  new ResizeObserver(() => parent.postMessage({ codexa: "height", height: root.offsetHeight }, "*")).observe(root);
}
