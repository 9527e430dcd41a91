import type { PictureFace } from "../../api/generated/wire";
import { type InputProps, shownText } from "../input";

export function PictureContent({ block, facts }: InputProps<PictureFace>) {
  const caption = shownText(facts, "caption", block.caption);
  if (!block.source) return null;
  return (
    <figure className={`cx-picture cx-picture-${block.size}`}>
      <img src={block.source} alt={block.alternative} loading="lazy" />
      {caption && <figcaption>{caption}</figcaption>}
    </figure>
  );
}
