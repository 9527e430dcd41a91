// Work that a server asks of the sender's computer where very many responses come from one network. It is done in small
// pieces, so that the page goes on answering.
import { sha256 } from "@noble/hashes/sha2.js";

const AT_ONCE = 2_000; // some milliseconds

/** Finds the number for which the SHA-256 of it and the response's key begins with so many bits of zero. */
export async function workOut(asked: string, key: string): Promise<string> {
  const [, bits, mark] = asked.split(".");
  const beginning = `${key}.${mark}.`;
  const encoder = new TextEncoder();
  for (let number = 0; ; number += 1) {
    if (zeros(sha256(encoder.encode(beginning + number))) >= Number(bits)) return `${asked}:${number}`;
    if (number % AT_ONCE === AT_ONCE - 1) await new Promise((go) => setTimeout(go));
  }
}

/** With how many bits of zero it begins, of the first 32. */
const zeros = (digest: Uint8Array): number =>
  Math.clz32(((digest[0]! << 24) | (digest[1]! << 16) | (digest[2]! << 8) | digest[3]!) >>> 0);
