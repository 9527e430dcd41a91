// The text of a text block, written as the little HTML that texts may hold.
import type { TextBlock } from "../../api/generated/wire";
import { RichTextField } from "../../ui/RichTextField";
import type { SettingsProps } from "../settings_props";

export function RichTextSetting({ block, edit }: SettingsProps<TextBlock>) {
  return <RichTextField label="Text" value={block.text} onChange={(text) => edit({ text })} />;
}
