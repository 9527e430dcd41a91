// A number that is typed freely and kept as exact text; what is no number is not kept, and says so.
import { useState } from "react";

export interface DecimalLimits {
  /** Whether it must be a whole number. */
  whole?: boolean;
  /** The least and the greatest that is taken. */
  least?: number | undefined;
  most?: number | undefined;
  /** Whether it may be empty. */
  blank?: boolean;
}

interface Decimal {
  text: string;
  /** What is wrong with what stands there or stood there, or null. */
  problem: string | null;
  change: (text: string) => void;
  leave: () => void;
}

export function useDecimal(
  value: string | null,
  onChange: (value: string | null) => void,
  limits: DecimalLimits,
): Decimal {
  const [typed, setTyped] = useState<string | null>(null);
  // What was left standing though it could not be taken: it turns back, and says so.
  const [refused, setRefused] = useState<string | null>(null);
  const why = typed === null ? null : wrongWith(typed, limits);
  return {
    text: typed ?? value ?? "",
    problem: why ?? refused,
    change: (text) => {
      setTyped(text);
      setRefused(null);
      const plain = text.trim().replace(",", ".");
      if (wrongWith(text, limits) === null) onChange(plain === "" ? null : plain);
    },
    leave: () => {
      setRefused(why && `“${typed}” was not taken: ${why}. ${value ?? "Empty"} stays.`);
      setTyped(null);
    },
  };
}

/** Why a text can't be taken, or null. */
function wrongWith(text: string, { whole = false, least, most, blank = true }: DecimalLimits): string | null {
  const plain = text.trim().replace(",", ".");
  if (plain === "") return blank ? null : "a number is wanted here";
  const orEmpty = blank ? ", or nothing" : "";
  if (!(whole ? /^\d{1,5}$/ : /^-?\d{1,15}(\.\d{1,10})?$/).test(plain))
    return whole ? `a whole number is wanted${orEmpty}` : `a number such as 2.5 is wanted${orEmpty}`;
  if (least !== undefined && Number(plain) < least) return `${least} is the least`;
  return most !== undefined && Number(plain) > most ? `${most} is the most` : null;
}
