// What a column of a table can be: its name for people, and the sign that its head carries.
import { NOTE_KINDS } from "../../text/words";

export interface ColumnType {
  type: string;
  word: string;
  sign: string;
}

export const COLUMN_TYPES: readonly ColumnType[] = [
  { type: "short_text", word: "Text", sign: "a" },
  { type: "long_text", word: "Long text", sign: "¶" },
  { type: "number", word: "Number", sign: "1" },
  { type: "money", word: "Money", sign: "¤" },
  { type: "date", word: "Date", sign: "d" },
  { type: "date_time", word: "Date and time", sign: "dt" },
  { type: "time", word: "Time", sign: "t" },
  { type: "yes_no", word: "Yes or no", sign: "±" },
  { type: "dropdown", word: "Choice", sign: "∨" },
  { type: "several_choices", word: "Several choices", sign: "∨∨" },
  { type: "email", word: "E-mail", sign: "@" },
  { type: "phone", word: "Phone", sign: "+" },
  { type: "web_address", word: "Web address", sign: "//" },
  { type: "file_upload", word: "Files", sign: "⎘" },
  { type: "record_choice", word: "Record of a table", sign: "→" },
  { type: "calculated", word: "Calculated", sign: NOTE_KINDS.calculation.sign },
];

const BY_TYPE = new Map(COLUMN_TYPES.map((each) => [each.type, each]));

export const columnType = (type: string): ColumnType => BY_TYPE.get(type) ?? { type, word: type, sign: "" };
