// The other side of a condition: what people enter, and the formula that it is.

/** Text as a formula: in double quotes, quotes in it doubled. */
export const textLiteral = (text: string): string => `"${text.replaceAll('"', '""')}"`;

/** The text of a formula that is nothing but text, or null. */
export const textIn = (formula: string): string | null => {
  const match = /^"((?:[^"]|"")*)"$/.exec(formula.trim());
  return match ? match[1]!.replaceAll('""', '"') : null;
};

/** A number as a formula; a comma is taken for the point. Null for what is no number. */
export const numberLiteral = (text: string): string | null => {
  const plain = text.trim().replace(",", ".");
  return /^-?\d{1,15}(\.\d{1,10})?$/.test(plain) ? plain : null;
};

/** A day ("2026-06-01") as a formula. */
export const dayLiteral = (day: string): string => {
  const [year, month, date] = day.split("-").map(Number);
  return `DATE(${year}, ${month}, ${date})`;
};

/** The day of a formula that is nothing but a day, or null. */
export const dayIn = (formula: string): string | null => {
  const match = /^DATE\(\s*(\d{4})\s*[,;]\s*(\d{1,2})\s*[,;]\s*(\d{1,2})\s*\)$/i.exec(formula.trim());
  return match ? `${match[1]}-${match[2]!.padStart(2, "0")}-${match[3]!.padStart(2, "0")}` : null;
};

/** A time ("18:30") as a formula. */
export const timeLiteral = (time: string): string => {
  const [hour, minute] = time.split(":").map(Number);
  return `TIME(${hour}, ${minute}, 0)`;
};

/** The time of a formula that is nothing but a time, or null. */
export const timeIn = (formula: string): string | null => {
  const match = /^TIME\(\s*(\d{1,2})\s*[,;]\s*(\d{1,2})\s*[,;]\s*0\s*\)$/i.exec(formula.trim());
  return match ? `${match[1]!.padStart(2, "0")}:${match[2]!.padStart(2, "0")}` : null;
};
