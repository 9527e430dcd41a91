import type { HeadingFace } from "../../api/generated/wire";
import { type InputProps, shownText } from "../input";

export function HeadingContent({ block, facts }: InputProps<HeadingFace>) {
  const lead = shownText(facts, "lead", block.lead);
  return (
    <div className="cx-heading">
      <h3>{shownText(facts, "text", block.text)}</h3>
      {lead && <p>{lead}</p>}
    </div>
  );
}
