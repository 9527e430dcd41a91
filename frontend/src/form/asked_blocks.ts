// Which blocks of a step ask for something; the others lead to it, or are worked out from it.
import type { Face } from "../model/blocks";

const SAID: ReadonlySet<string> = new Set(["heading", "text", "picture", "divider"]);
const WORKED_OUT: ReadonlySet<string> = new Set(["calculated", "order_summary"]);

export const isLeading = ({ type }: Face): boolean => SAID.has(type);
export const isAsking = ({ type }: Face): boolean => !SAID.has(type) && !WORKED_OUT.has(type);
