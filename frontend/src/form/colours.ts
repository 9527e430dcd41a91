// Contrast of colours (WCAG 2.2, 1.4.3 and the definition of relative luminance), as the core measures it too.

import type { Brand } from "../api/generated/wire";

/** What text of usual size needs. */
export const ENOUGH_CONTRAST = 4.5;

const luminance = (colour: string): number => {
  const channel = (at: number) => {
    const value = parseInt(colour.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  };
  return 0.2126 * channel(1) + 0.7152 * channel(3) + 0.0722 * channel(5);
};

/** The contrast ratio of two colours as "#rrggbb", from 1 to 21. */
export function contrast(first: string, second: string): number {
  const [darker, lighter] = [luminance(first), luminance(second)].sort((one, other) => one - other) as [number, number];
  return (lighter + 0.05) / (darker + 0.05);
}

const WHITE = "#FFFFFF";
const BLACK = "#000000";
const WRONG = "#A62B14";
const ENOUGH_FOR_EDGES = 3;
const STEPS = 20;

const channels = (colour: string): number[] => [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16));

/** A colour with so much of another in it, from 0 to 1, channel by channel. */
export function mixed(colour: string, other: string, share: number): string {
  const more = channels(other);
  const parts = channels(colour).map((part, at) => Math.floor(part * (1 - share) + more[at]! * share + 0.5));
  return `#${parts.map((part) => part.toString(16).padStart(2, "0")).join("")}`.toUpperCase();
}

const bestOn = (ground: string, texts: readonly string[]): string =>
  texts.reduce((best, each) => (contrast(each, ground) > contrast(best, ground) ? each : best));

type Colours = Pick<Brand, "accent" | "banner" | "paper" | "ink"> & Partial<Pick<Brand, "on_accent" | "on_banner">>;

/** The colour of text on a coloured ground: ink, paper or white, and black or white where none reads well. */
export function textOn(ground: string, { ink, paper }: Pick<Colours, "ink" | "paper">): string {
  const best = bestOn(ground, [ink, paper, WHITE]);
  return contrast(best, ground) >= ENOUGH_CONTRAST ? best : bestOn(ground, [WHITE, BLACK]);
}

/** The colour as it is, or with as much white or black in it as it takes to be seen on all those grounds. */
export function readable(colour: string, grounds: readonly string[], least = ENOUGH_CONTRAST): string {
  const target = bestOn(grounds[0]!, [WHITE, BLACK]);
  for (let step = 0; step < STEPS; step++) {
    const found = mixed(colour, target, step / STEPS);
    if (grounds.every((ground) => contrast(found, ground) >= least)) return found;
  }
  return target;
}

/** Every colour that a form is drawn with, by what it is for: as `codexa/core/definition/palette.py` has them. */
export function paletteOf(brand: Colours) {
  const { accent, paper, ink } = brand;
  const [tint, quiet, deep] = [mixed(paper, accent, 0.08), mixed(paper, ink, 0.04), mixed(accent, ink, 0.38)];
  const grounds = [paper, tint, quiet];
  return {
    on_accent: brand.on_accent ?? textOn(accent, brand),
    on_banner: brand.on_banner ?? textOn(brand.banner ?? accent, brand),
    deep,
    on_deep: textOn(deep, brand),
    tint,
    quiet,
    line: mixed(paper, ink, 0.17),
    edge: readable(mixed(paper, ink, 0.55), [paper], ENOUGH_FOR_EDGES),
    ring: readable(mixed(accent, WHITE, 0.45), [paper, tint], ENOUGH_FOR_EDGES),
    ink_2: readable(mixed(paper, ink, 0.78), grounds),
    link: readable(accent, grounds),
    title: readable(deep, grounds),
    wrong: readable(WRONG, grounds),
  };
}
