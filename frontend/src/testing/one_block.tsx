// One block as visitors see it, for tests of what each type of field takes and shows.
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { useState } from "react";
import type { BlockState } from "../api/generated/wire";
import { type Answer, NO_TOOLS, type Tools, ToolsContext } from "../fields/input";
import { BlockOnPage } from "../form/BlockOnPage";
import type { BlockKind, Face } from "../model/blocks";
import { block, factsWith } from "./a_form";

export interface Given {
  /** Settings of the block that differ from a new one's. */
  settings?: object;
  answer?: Answer;
  facts?: Partial<BlockState>;
  error?: string | null;
  tools?: Partial<Tools>;
}

export const option = (id: string, label = id): object => ({ id, code: id, label, counts_as: "", shown: "" });

/** Draws a block of that type and keeps what is entered, as a form would. */
export function drawn(kind: BlockKind, { settings = {}, answer = null, facts = {}, error = null, tools }: Given = {}) {
  const entered: Answer[] = [];
  const face = block(kind, "it", { label: "Question", help: "Some help", ...settings }) as Face;
  function Form() {
    const [now, setNow] = useState<Answer>(answer);
    const change = (next: Answer) => {
      entered.push(next);
      setNow(next);
    };
    return (
      <ToolsContext value={{ ...NO_TOOLS, ...tools }}>
        <BlockOnPage block={face} answer={now} facts={factsWith(facts)} error={error} onChange={change} />
      </ToolsContext>
    );
  }
  const view = render(<Form />);
  return { ...view, user: userEvent.setup(), screen, latest: () => entered.at(-1), entered };
}
