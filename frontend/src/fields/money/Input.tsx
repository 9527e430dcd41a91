import type { MoneyFace } from "../../api/generated/wire";
import { type InputProps, useTools } from "../input";
import { TextInput } from "../text_input";

export function MoneyInput(props: InputProps<MoneyFace>) {
  const { locale, currency } = useTools();
  const { sign, first } = signOf(locale, currency);
  return (
    <TextInput
      {...props}
      placeholder={props.block.placeholder}
      inputMode="decimal"
      before={first ? sign : undefined}
      unit={first ? undefined : sign}
    />
  );
}

function signOf(locale: string, currency: string): { sign: string; first: boolean } {
  const parts = new Intl.NumberFormat(locale.replace("_", "-"), { style: "currency", currency }).formatToParts(1);
  const at = parts.findIndex((part) => part.type === "currency");
  return { sign: parts[at]?.value ?? currency, first: at === 0 };
}
