// Logo, and picture around the form.
import TextField from "@mui/material/TextField";
import { PictureField } from "../../ui/PictureField";
import type { BrandProps } from "./BrandArea";

export function Pictures({ brand, edit }: BrandProps) {
  return (
    <>
      <PictureField label="Logo" value={brand.logo} onChange={(logo) => edit({ logo })} />
      {brand.logo && (
        <TextField
          label="What the logo says, in words"
          value={brand.logo_alternative}
          onChange={(event) => edit({ logo_alternative: event.target.value })}
        />
      )}
      <PictureField
        label="Picture around the form"
        value={brand.background_picture}
        onChange={(background_picture) => edit({ background_picture })}
      />
    </>
  );
}
