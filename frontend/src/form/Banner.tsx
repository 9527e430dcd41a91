// The form's title on its brand's colour.
import type { CSSProperties } from "react";
import type { Brand, FormFace } from "../api/generated/wire";

export const brandStyle = (brand: Brand): CSSProperties => ({ "--cx-accent": brand.accent }) as CSSProperties;

export function Banner({ face }: { face: Pick<FormFace, "title" | "lead"> }) {
  if (!face.title && !face.lead) return null;
  return (
    <header className="cx-banner">
      <h1>{face.title}</h1>
      {face.lead && <p>{face.lead}</p>}
    </header>
  );
}
