// Small drawings of how a form may stand and look, as pieces on a leaf of 48 by 36: where each stands, and what it is.
import type { Brand } from "../../api/generated/wire";

/** A picture or banner, a line of text, a field with its edge, the paper of a form. */
export type Kind = "colour" | "text" | "field" | "paper";
export type Piece = readonly [x: number, y: number, width: number, height: number, kind: Kind];
type Drawn = "layout" | "width" | "labels" | "text_size" | "density" | "choices";

interface Choice {
  title: string;
  pieces: readonly Piece[];
}

const lines = (x: number, y: number, width: number): Piece[] => [
  [x, y, width * 0.5, 2, "text"],
  [x, y + 4, width, 5, "field"],
  [x, y + 12, width * 0.4, 2, "text"],
  [x, y + 16, width, 5, "field"],
];

const options = (across: number, gap: number, edge: Kind): Piece[] =>
  [0, 1, 2, 3].flatMap((at): Piece[] => {
    const width = across === 1 ? 32 : 15;
    const x = 8 + (at % across) * (width + 2);
    const y = 5 + Math.floor(at / across) * gap;
    const height = across === 1 ? Math.min(6, gap - 1) : gap - 2;
    const field: Piece[] = edge === "field" ? [[x, y, width, height, "field"]] : [];
    return [...field, [x + 2, y + height / 2 - 1, width / 2, 2, "text"]];
  });

/** By setting and value, each with its name. */
export const DRAWINGS: { readonly [Name in Drawn]: { title: string; choices: Readonly<Record<Brand[Name], Choice>> } } =
  {
    layout: {
      title: "The form stands",
      choices: {
        banner: {
          title: "Under a banner",
          pieces: [[10, 3, 28, 30, "paper"], [10, 3, 28, 7, "colour"], ...lines(13, 12, 22)],
        },
        bare: { title: "Bare", pieces: [[8, 4, 20, 3, "text"], ...lines(8, 11, 32)] },
        beside: {
          title: "Beside its picture",
          pieces: [[4, 3, 40, 30, "paper"], [4, 3, 15, 30, "colour"], ...lines(22, 9, 19)],
        },
        behind: {
          title: "On its picture",
          pieces: [[4, 2, 40, 32, "colour"], [11, 6, 26, 25, "paper"], ...lines(14, 8, 20)],
        },
        wide: {
          title: "As wide as its window",
          pieces: [[0, 0, 48, 36, "paper"], [0, 0, 48, 9, "colour"], ...lines(11, 12, 26)],
        },
      },
    },
    width: {
      title: "Width",
      choices: {
        narrow: { title: "Narrow", pieces: [[16, 3, 16, 30, "paper"], ...lines(18, 7, 12)] },
        normal: { title: "Normal", pieces: [[11, 3, 26, 30, "paper"], ...lines(13, 7, 22)] },
        wide: { title: "Wide", pieces: [[4, 3, 40, 30, "paper"], ...lines(7, 7, 34)] },
      },
    },
    labels: {
      title: "Labels",
      choices: {
        above: { title: "Above their fields", pieces: lines(8, 7, 32) },
        beside: {
          title: "Beside their fields",
          pieces: [
            [6, 10, 11, 2, "text"],
            [20, 8, 22, 6, "field"],
            [6, 22, 9, 2, "text"],
            [20, 20, 22, 6, "field"],
          ],
        },
      },
    },
    text_size: {
      title: "Size of type",
      choices: {
        small: {
          title: "Small",
          pieces: [
            [10, 12, 22, 1.5, "text"],
            [10, 17, 28, 1.5, "text"],
            [10, 22, 18, 1.5, "text"],
          ],
        },
        normal: {
          title: "Normal",
          pieces: [
            [9, 10, 24, 2.5, "text"],
            [9, 16.5, 30, 2.5, "text"],
            [9, 23, 20, 2.5, "text"],
          ],
        },
        large: {
          title: "Large",
          pieces: [
            [7, 7, 27, 4, "text"],
            [7, 16, 34, 4, "text"],
            [7, 25, 22, 4, "text"],
          ],
        },
      },
    },
    density: {
      title: "Room between fields",
      choices: {
        tight: {
          title: "Tight",
          pieces: [4, 11, 18, 25].map((y): Piece => [8, y, 32, 5.5, "field"]),
        },
        normal: {
          title: "Normal",
          pieces: [4, 14, 24].map((y): Piece => [8, y, 32, 6, "field"]),
        },
        airy: {
          title: "Airy",
          pieces: [6, 22].map((y): Piece => [8, y, 32, 7, "field"]),
        },
      },
    },
    choices: {
      title: "Choices",
      choices: {
        list: { title: "As a list", pieces: options(1, 7, "field") },
        tiles: { title: "As tiles", pieces: options(2, 14, "field") },
        compact: { title: "Compact", pieces: options(1, 6, "text") },
      },
    },
  };
