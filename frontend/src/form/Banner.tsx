// The form's title on its brand's colour or picture, with the logo.
import type { ReactNode } from "react";
import type { Brand, FormFace } from "../api/generated/wire";

export function Banner({ face }: { face: Pick<FormFace, "title" | "lead" | "brand"> }) {
  if (!face.title && !face.lead && !face.brand.logo) return null;
  return (
    <BannerFrame brand={face.brand}>
      {face.title && <h1>{face.title}</h1>}
      {face.lead && <p>{face.lead}</p>}
    </BannerFrame>
  );
}

/** Whether the title stands on the form's picture; else that has a place of its own, or none. */
const isPictured = ({ header_picture, layout }: Brand): boolean =>
  header_picture !== "" && (layout === "banner" || layout === "wide");

/** What the title stands on; the workbench lets it be typed there. */
export const BannerFrame = ({ brand, children }: { brand: Brand; children: ReactNode }) => (
  <header className={`cx-banner${isPictured(brand) ? " cx-pictured" : ""}`}>
    {brand.logo && <img className="cx-logo" src={brand.logo} alt={brand.logo_alternative} />}
    {children}
  </header>
);
