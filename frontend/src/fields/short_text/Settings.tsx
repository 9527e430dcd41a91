import type { ShortTextField } from "../../api/generated/wire";
import { DecimalField } from "../../ui/DecimalField";
import type { SettingsProps } from "../settings";

export function ShortTextChecks({ block, edit }: SettingsProps<ShortTextField>) {
  return (
    <DecimalField
      whole
      label="At most so many characters"
      value={block.max_length === null ? null : String(block.max_length)}
      onChange={(value) => edit({ max_length: value === null || value === "0" ? null : Number(value) })}
    />
  );
}
