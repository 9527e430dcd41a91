// Contrast of colours (WCAG 2.2, 1.4.3 and the definition of relative luminance), as the core measures it too.

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

/** The colour of text on a coloured ground: white or ink, whichever reads better. */
export const textOn = (ground: string, ink: string): string =>
  contrast("#FFFFFF", ground) >= contrast(ink, ground) ? "#FFFFFF" : ink;
