import type { HeadingFace } from "../../api/generated/wire";
import { type InputProps, shownText, useTools } from "../input";

export function HeadingContent({ block, facts }: InputProps<HeadingFace>) {
  // Where questions come one after the other, no page's title stands between it and the form's.
  const Title = useTools().byQuestion ? "h2" : "h3";
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
      <Title>{shownText(facts, "text", block.text)}</Title>
      {lead && <p>{lead}</p>}
    </div>
  );
}
