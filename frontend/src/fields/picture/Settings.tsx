// The picture of a picture block.
import type { PictureBlock } from "../../api/generated/wire";
import { PictureField } from "../../ui/PictureField";
import type { SettingsProps } from "../settings_props";

export function PictureSource({ block, edit }: SettingsProps<PictureBlock>) {
  return <PictureField label="Picture" value={block.source} onChange={(source) => edit({ source })} />;
}
