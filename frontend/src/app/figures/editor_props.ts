// What the editor of a kind of figure gets.
import type { Figure } from "../../model/parts";

export interface EditorProps<Kind extends Figure = Figure> {
  figure: Kind;
  edit: (changes: Partial<Kind>) => void;
}
