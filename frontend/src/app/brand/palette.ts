// A palette from one colour: banner, ground, paper and ink that go with it and read well on each other.
import type { Brand } from "../../api/generated/wire";
import { mixed, readable } from "../../form/colours";

type Palette = Pick<Brand, "accent" | "banner" | "ground" | "paper" | "ink">;

/** The palettes that one colour gives: quiet, deep, and on tinted paper. */
export function palettesFrom(colour: string): { title: string; palette: Palette }[] {
  const ink = mixed("#16202B", colour, 0.12);
  const tint = mixed("#FFFFFF", colour, 0.05);
  return [
    {
      title: "Quiet",
      palette: {
        accent: readable(colour, ["#FFFFFF"]),
        banner: null,
        ground: mixed("#F3F5F6", colour, 0.06),
        paper: "#FFFFFF",
        ink,
      },
    },
    {
      title: "Deep",
      palette: {
        accent: readable(colour, ["#FFFFFF"]),
        banner: mixed(readable(colour, ["#FFFFFF"]), "#05080F", 0.6),
        ground: mixed("#E4E8EB", colour, 0.12),
        paper: "#FFFFFF",
        ink,
      },
    },
    {
      title: "Tinted",
      palette: {
        accent: readable(colour, [tint]),
        banner: mixed("#FFFFFF", colour, 0.18),
        ground: mixed("#FFFFFF", colour, 0.12),
        paper: tint,
        ink,
      },
    },
  ];
}
