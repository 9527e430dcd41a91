// A brand as styles: what the public form and the workbench's sheet are drawn with.
import type { CSSProperties } from "react";
import type { Brand } from "../api/generated/wire";
import { contrast, paletteOf } from "./colours";

/** The typefaces that ship with Codexa; `size` is what a visitor loads, in kilobytes. */
export const TYPEFACES: Record<Brand["typeface"], { title: string; family: string; size: number }> = {
  source_sans: { title: "Source Sans", family: '"Source Sans 3", system-ui, sans-serif', size: 32 },
  inter: { title: "Inter", family: '"Inter", system-ui, sans-serif', size: 47 },
  work_sans: { title: "Work Sans", family: '"Work Sans", system-ui, sans-serif', size: 49 },
  nunito: { title: "Nunito", family: '"Nunito", system-ui, sans-serif', size: 38 },
  karla: { title: "Karla", family: '"Karla", system-ui, sans-serif', size: 31 },
  montserrat: { title: "Montserrat", family: '"Montserrat", system-ui, sans-serif', size: 37 },
  source_serif: { title: "Source Serif", family: '"Source Serif 4", Georgia, serif', size: 16 },
  lora: { title: "Lora", family: '"Lora", Georgia, serif', size: 37 },
  bitter: { title: "Bitter", family: '"Bitter", Georgia, serif', size: 40 },
  fraunces: { title: "Fraunces", family: '"Fraunces", Georgia, serif', size: 36 },
  device: { title: "The device’s own", family: "system-ui, sans-serif", size: 0 },
};

const CORNERS: Record<Brand["corner"], [string, string]> = {
  square: ["0px", "0px"],
  slight: ["7px", "10px"],
  round: ["14px", "20px"],
};

const picture = (source: string): string => (source ? `url("${source.replaceAll('"', "%22")}")` : "none");

/** The variables that everything under .codexa-form is drawn with. */
export function brandStyle(brand: Brand): CSSProperties {
  const banner = brand.banner ?? brand.accent;
  const [corner, outerCorner] = CORNERS[brand.corner];
  const derived = Object.entries(paletteOf(brand)).map(([name, colour]) => [`--cx-${name.replace("_", "-")}`, colour]);
  return {
    ...Object.fromEntries(derived),
    // So are the browser's own boxes and marks: the picker of a date, say.
    colorScheme: contrast(brand.paper, "#FFFFFF") > contrast(brand.paper, "#000000") ? "dark" : "light",
    "--cx-accent": brand.accent,
    "--cx-banner": banner,
    "--cx-sheet": brand.paper,
    "--cx-ink": brand.ink,
    "--cx-face": TYPEFACES[brand.typeface].family,
    "--cx-heading-face": TYPEFACES[brand.heading_typeface].family,
    "--cx-corner": corner,
    "--cx-outer-corner": outerCorner,
    "--cx-header-picture": picture(brand.header_picture),
  } as CSSProperties;
}

/** The classes that say how a form stands on its page, with its pictures. */
export const layoutClasses = ({ layout, width, header_picture }: Brand): string =>
  `cx-layout-${layout} cx-width-${width}${header_picture ? "" : " cx-no-picture"}`;

/** The classes that say how titles, fields and buttons are drawn; there is none for what is as usual. */
export const brandClasses = (brand: Brand): string =>
  [
    brand.title_align !== "start" && `cx-titles-${brand.title_align}`,
    brand.title_size !== "normal" && `cx-titles-${brand.title_size}`,
    brand.title_italic && "cx-titles-italic",
    brand.title_underlined && "cx-titles-underlined",
    brand.labels !== "above" && `cx-labels-${brand.labels}`,
    brand.text_size !== "normal" && `cx-text-${brand.text_size}`,
    brand.density !== "normal" && `cx-density-${brand.density}`,
    brand.choices !== "list" && `cx-choices-${brand.choices}`,
    "codexa-form",
    `cx-fields-${brand.fields}`,
    ...[brand.button, brand.button_width, brand.button_size].map((each) => `cx-button-${each}`),
  ]
    .filter(Boolean)
    .join(" ");

/** The ground around a form: that of its own page, or of its sample. */
export const groundStyle = (brand: Brand): { backgroundColor: string; backgroundImage: string } => ({
  backgroundColor: brand.ground,
  backgroundImage: picture(brand.background_picture),
});
