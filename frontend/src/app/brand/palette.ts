// A palette from one colour: banner, ground, paper and ink that go with it and read well on each other.
import type { Brand } from "../../api/generated/wire";
import { contrast, ENOUGH_CONTRAST } from "../../form/colours";

type Palette = Pick<Brand, "accent" | "banner" | "ground" | "paper" | "ink">;

const channels = (colour: string): number[] => [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16));

const hex = (parts: readonly number[]): string =>
  `#${parts
    .map((part) =>
      Math.round(Math.min(255, Math.max(0, part)))
        .toString(16)
        .padStart(2, "0"),
    )
    .join("")}`.toUpperCase();

/** A colour with a part of another mixed in, from 0 to 1. */
const mixed = (colour: string, other: string, share: number): string => {
  const [one, two] = [channels(colour), channels(other)];
  return hex(one.map((part, at) => part * (1 - share) + two[at]! * share));
};

/** The colour, made darker step by step until it reads well on a ground. */
export function readable(colour: string, ground: string): string {
  let found = colour;
  for (let step = 0; step < 40 && contrast(found, ground) < ENOUGH_CONTRAST; step++)
    found = mixed(found, "#000000", 0.06);
  return found;
}

/** The palettes that one colour gives: quiet, deep, and on tinted paper. */
export function palettesFrom(colour: string): { title: string; palette: Palette }[] {
  const ink = mixed("#16202B", colour, 0.12);
  const tint = mixed("#FFFFFF", colour, 0.05);
  return [
    {
      title: "Quiet",
      palette: {
        accent: readable(colour, "#FFFFFF"),
        banner: null,
        ground: mixed("#F3F5F6", colour, 0.06),
        paper: "#FFFFFF",
        ink,
      },
    },
    {
      title: "Deep",
      palette: {
        accent: readable(colour, "#FFFFFF"),
        banner: mixed(readable(colour, "#FFFFFF"), "#05080F", 0.6),
        ground: mixed("#E4E8EB", colour, 0.12),
        paper: "#FFFFFF",
        ink,
      },
    },
    {
      title: "Tinted",
      palette: {
        accent: readable(colour, tint),
        banner: mixed("#FFFFFF", colour, 0.18),
        ground: mixed("#FFFFFF", colour, 0.12),
        paper: tint,
        ink,
      },
    },
  ];
}
