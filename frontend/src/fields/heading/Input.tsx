import type { HeadingFace } from "../../api/generated/wire";
import { type InputProps, shownText } from "../input";

export function HeadingContent({ block, facts }: InputProps<HeadingFace>) {
  const lead = shownText(facts, "lead", block.lead);
  return (
    <div
      className="cx-heading"
      data-align={block.align}
      data-size={block.size}
      data-italic={block.italic || undefined}
      data-underlined={block.underlined || undefined}
      data-accent={block.accent || undefined}
    >
      <h3>{shownText(facts, "text", block.text)}</h3>
      {lead && <p>{lead}</p>}
    </div>
  );
}
