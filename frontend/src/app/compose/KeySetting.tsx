// A key: renamed when it is left, with every formula that uses it.
import { MONO } from "../../theme/theme";
import { RenamedField } from "../../ui/RenamedField";
import type { ComposeActions } from "./actions";

interface Props {
  id: string;
  value: string;
  actions: Pick<ComposeActions, "rename">;
}

export const KeySetting = ({ id, value, actions }: Props) => (
  <RenamedField
    label="Key"
    value={value}
    helperText="What formulas call it; changing it rewrites them"
    onRename={(key) => actions.rename(id, "key", key)}
    slotProps={{ htmlInput: { spellCheck: false, style: { fontFamily: MONO, fontSize: 13 } } }}
  />
);
