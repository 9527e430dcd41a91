import type { HeadingFace } from "../../api/generated/wire";
import type { InputProps } from "../input";

export function HeadingContent({ block }: InputProps<HeadingFace>) {
  return (
    <div className="cx-heading">
      <h3>{block.text}</h3>
      {block.lead && <p>{block.lead}</p>}
    </div>
  );
}
