// Tables of values for links, as they are sent: the bytes of a CSV in base64; and which column is likely meant.
import type { Form } from "../../api/generated/wire";

type LinkValue = Form["links"][number];

/** Bytes in base64, some at a time, as a call takes only so many arguments. */
export function inBase64(bytes: Uint8Array): string {
  let text = "";
  for (let at = 0; at < bytes.length; at += 32_768) text += String.fromCharCode(...bytes.subarray(at, at + 32_768));
  return btoa(text);
}

export const textInBase64 = (text: string): string => inBase64(new TextEncoder().encode(text));

const cell = (text: string): string => `"${text.replaceAll('"', '""')}"`;

/** A table of one line with these values (RFC 4180). */
export function tableOfOne(values: Readonly<Record<string, string>>): string {
  const given = Object.entries(values).filter(([, value]) => value !== "");
  return `${given.map(([name]) => cell(name)).join(",")}\r\n${given.map(([, value]) => cell(value)).join(",")}\r\n`;
}

const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, "");

/** Which column gives which value: that of the same name, or of the field's label. */
export function likelyColumns(
  links: readonly LinkValue[],
  labels: ReadonlyMap<string, string>,
  headers: readonly string[],
): Record<string, string> {
  const found = links.map(({ name, field }) => {
    const meant = [name, labels.get(field) ?? ""].map(plain).filter(Boolean);
    const header = headers.find((each) => meant.includes(plain(each)));
    return header === undefined ? [] : ([[name, header]] as const);
  });
  return Object.fromEntries(found.flat());
}

export const likelyEmail = (headers: readonly string[]): string =>
  headers.find((each) => ["email", "mail", "emailaddress"].includes(plain(each))) ?? "";

/** A name for a value that a link brings, after its field's key; one that is not taken. */
export function nameFor(key: string, taken: readonly string[]): string {
  const wanted = key === "s" ? "s_value" : key;
  if (!taken.includes(wanted)) return wanted;
  for (let number = 2; ; number += 1) if (!taken.includes(`${wanted}_${number}`)) return `${wanted}_${number}`;
}
