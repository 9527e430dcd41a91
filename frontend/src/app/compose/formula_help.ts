// What the formula editor says of the place where the cursor stands.
import differences from "../../api/generated/differences.json";
import functions from "../../api/generated/functions.json";

export interface FormulaHelp {
  /** The call, or the operator. */
  title: string;
  purpose: string;
  /** Where somebody who knows spreadsheets would be surprised; "" where nowhere. */
  differs: string;
}

const BY_NAME = new Map(functions.map((each) => [each.name, each]));

/** Returns what there is to say at a place in a formula: of the function or operator there, else of the call around. */
export function helpAt(text: string, cursor: number): FormulaHelp | null {
  const plain = withoutTexts(text);
  const from = plain.slice(0, cursor).search(/[A-Za-z]\w*$/);
  const word = /^[A-Za-z]\w*(?=\s*\()/.exec(plain.slice(from < 0 ? cursor : from));
  return (word && ofFunction(word[0])) ?? ofOperator(plain, cursor) ?? ofFunction(callAround(plain, cursor));
}

/** Returns the formula with the text in quotation marks blanked out, so that nothing in it is taken for a part. */
const withoutTexts = (text: string) => text.replace(/"(?:[^"]|"")*"?/g, (found) => '"'.repeat(found.length));

function ofFunction(name: string): FormulaHelp | null {
  const found = BY_NAME.get(name.toUpperCase());
  return found ? { title: found.signature, purpose: found.purpose, differs: found.differs } : null;
}

function ofOperator(text: string, cursor: number): FormulaHelp | null {
  const before = Math.max(0, cursor - 1);
  const pairs = [before - 1, before, cursor].map((at) => text.slice(Math.max(0, at), at + 2));
  const sign = [...pairs, text.slice(before, cursor), text[cursor] ?? ""].find((each) =>
    differences.some(({ signs }) => signs.includes(each)),
  );
  if (!sign) return null;
  const said = differences.filter(({ signs }) => signs.includes(sign)).map(({ here }) => here);
  return { title: sign, purpose: "", differs: `${said.join(". ")}.` };
}

/** Returns the name before the innermost bracket that is open at the cursor, or "". */
function callAround(text: string, cursor: number): string {
  let open = 0;
  for (let at = cursor - 1; at >= 0; at--) {
    if (text[at] === ")") open++;
    else if (text[at] === "(" && open-- === 0) {
      const name = /[A-Za-z]\w*(?=\s*$)/.exec(text.slice(0, at));
      if (name) return name[0];
      open = 0;
    }
  }
  return "";
}
