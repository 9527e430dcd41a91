import type { GroupFace } from "../../api/generated/wire";
import { type InputProps, shownText, useBlocks, useSurroundings } from "../input";

export function GroupContent({ block, controlId, facts, describedBy }: InputProps<GroupFace>) {
  const label = shownText(facts, "label", block.label);
  const help = shownText(facts, "help", block.help);
  const Blocks = useBlocks();
  const wrong = useSurroundings().errorOf(block.id);
  return (
    <fieldset
      id={controlId}
      className="cx-group"
      data-columns={block.columns > 1 ? block.columns : undefined}
      tabIndex={-1}
      aria-describedby={describedBy}
    >
      {label && <legend>{label}</legend>}
      {help && <p className="cx-help">{help}</p>}
      <Blocks blocks={block.blocks} />
      {wrong && <p className="cx-error">{wrong}</p>}
    </fieldset>
  );
}
