import type { TextFace } from "../../api/generated/wire";
import { RichText } from "../RichText";
import { type InputProps, shownText } from "../input";

export function TextContent({ block, facts }: InputProps<TextFace>) {
  return <RichText html={shownText(facts, "text", block.text)} />;
}
