// A form in the workbench's preview: the workbench hears what is answered and which block is looked at, and may fill it in.
import type { FormSession } from "./session";
import type { Answers } from "./transport";

export function tellWorkbench(session: FormSession): void {
  const tell = (message: Record<string, unknown>) => parent.postMessage(message, origin);
  session.subscribe(() => tell({ codexa: "answers", answers: session.ownAnswers() }));
  for (const event of ["focusin", "click"])
    addEventListener(event, ({ target }) => {
      const block = (target as Element).closest<HTMLElement>("[data-block]")?.dataset.block;
      if (block) tell({ codexa: "block", block });
    });
  addEventListener("message", (event: MessageEvent<{ codexa?: string; answers?: Answers }>) => {
    if (event.origin === origin && event.source === parent && event.data.codexa === "fill")
      session.fillIn(event.data.answers ?? {});
  });
  tell({ codexa: "ready" });
}
