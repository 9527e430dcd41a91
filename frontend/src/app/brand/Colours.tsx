// Colours, with their contrast measured as they are chosen; palettes from one colour; typefaces.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import PALETTES from "../../api/generated/palettes.json";
import type { Brand } from "../../api/generated/wire";
import { TYPEFACES } from "../../form/brand";
import { contrast, ENOUGH_CONTRAST, paletteOf } from "../../form/colours";
import { Heading } from "../compose/InspectorFrame";
import type { BrandProps } from "./BrandArea";
import { palettesFrom } from "./palette";

export function Colours({ brand, edit }: BrandProps) {
  const banner = brand.banner ?? brand.accent;
  const drawn = paletteOf(brand);
  const worst = (text: string) =>
    Math.min(...[brand.paper, drawn.tint, drawn.quiet].map((ground) => contrast(text, ground)));
  return (
    <>
      <Heading top>Ready-made palettes</Heading>
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(3, 1fr)", gap: 1 }}>
        {Object.entries(PALETTES).map(([title, palette]) => (
          <PaletteButton key={title} title={title} palette={palette} edit={edit} />
        ))}
      </Box>
      <Heading>A palette from the accent colour</Heading>
      <Box sx={{ display: "flex", gap: 1 }}>
        {palettesFrom(brand.accent).map(({ title, palette }) => (
          <PaletteButton key={title} title={title} palette={palette} edit={edit} />
        ))}
      </Box>
      <Colour label="Accent: buttons, choices, links" value={brand.accent} onChange={(accent) => edit({ accent })} />
      <Colour
        label="Text on the accent"
        value={drawn.on_accent}
        onChange={(on_accent) => edit({ on_accent })}
        onClear={brand.on_accent === null ? undefined : () => edit({ on_accent: null })}
        clear="By itself"
      />
      <Measured what="Text on it" ratio={contrast(drawn.on_accent, brand.accent)} />
      <Measured what="Text on a button under the pointer" ratio={contrast(drawn.on_deep, drawn.deep)} />
      <Colour
        label="Banner behind the title"
        value={banner}
        onChange={(colour) => edit({ banner: colour })}
        onClear={brand.banner === null ? undefined : () => edit({ banner: null })}
      />
      <Colour
        label="Title on the banner"
        value={drawn.on_banner}
        onChange={(on_banner) => edit({ on_banner })}
        onClear={brand.on_banner === null ? undefined : () => edit({ on_banner: null })}
        clear="By itself"
      />
      <Measured what="The title on it" ratio={contrast(drawn.on_banner, banner)} />
      <Colour label="Paper: the form itself" value={brand.paper} onChange={(paper) => edit({ paper })} />
      <Colour label="Ink: its text" value={brand.ink} onChange={(ink) => edit({ ink })} />
      <Measured what="Ink on the paper" ratio={contrast(brand.ink, brand.paper)} />
      <Measured what="Ink on what was chosen" ratio={contrast(brand.ink, drawn.tint)} />
      <Measured what="Links on the paper" ratio={worst(drawn.link)} />
      <Measured what="What is wrong, on the paper" ratio={worst(drawn.wrong)} />
      <Colour label="Ground around the form" value={brand.ground} onChange={(ground) => edit({ ground })} />
      <Face label="Typeface" value={brand.typeface} onChange={(typeface) => edit({ typeface })} />
      <Face
        label="Typeface of titles"
        value={brand.heading_typeface}
        onChange={(heading_typeface) => edit({ heading_typeface })}
      />
      <Typography variant="caption" color="text.secondary">
        Visitors load {loaded(brand)} KB of type for this form. All typefaces ship with Codexa; nothing comes from
        elsewhere.
      </Typography>
    </>
  );
}

type Palette = Pick<Brand, "accent" | "ground" | "paper" | "ink"> & { banner?: string | null };

function PaletteButton({ title, palette, edit }: { title: string; palette: Palette; edit: BrandProps["edit"] }) {
  return (
    <Button
      variant="outlined"
      color="inherit"
      onClick={() => edit({ ...palette, on_accent: null, on_banner: null })}
      sx={{ flex: 1, display: "block", p: 0.75, lineHeight: 1.3 }}
    >
      <Box aria-hidden="true" sx={{ display: "flex", mb: 0.5 }}>
        {[palette.accent, palette.banner ?? palette.accent, palette.ground, palette.paper, palette.ink].map(
          (colour, at) => (
            <Box key={at} sx={{ flex: 1, height: 22 }} style={{ backgroundColor: colour }} />
          ),
        )}
      </Box>
      {title}
    </Button>
  );
}

const loaded = (brand: Brand): number =>
  [...new Set([brand.typeface, brand.heading_typeface])].reduce((sum, face) => sum + TYPEFACES[face].size, 0);

interface ColourProps {
  label: string;
  value: string;
  onChange: (colour: string) => void;
  onClear?: (() => void) | undefined;
  /** What it is without one of its own. */
  clear?: string;
}

function Colour({ label, value, onChange, onClear, clear = "As accent" }: ColourProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const isColour = (text: string) => /^#[0-9a-f]{6}$/i.test(text);
  const change = (text: string) => {
    setTyped(isColour(text) ? null : text);
    if (isColour(text)) onChange(text);
  };
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "start" }}>
      <Box
        component="input"
        type="color"
        aria-label={`${label}: choose`}
        value={value.toLowerCase()}
        onChange={(event) => change(event.target.value)}
        sx={{
          width: 44,
          height: 38,
          p: 0.25,
          border: 1,
          borderColor: "divider",
          borderRadius: 1,
          bgcolor: "background.paper",
        }}
      />
      <TextField
        label={label}
        value={typed ?? value}
        error={typed !== null}
        helperText={typed !== null ? "# and six digits or letters from A to F" : undefined}
        onChange={(event) => change(event.target.value)}
        onBlur={() => setTyped(null)}
        slotProps={{ htmlInput: { spellCheck: false } }}
      />
      {onClear && (
        <Button color="inherit" onClick={onClear} sx={{ whiteSpace: "nowrap" }}>
          {clear}
        </Button>
      )}
    </Box>
  );
}

function Measured({ what, ratio }: { what: string; ratio: number }) {
  const enough = ratio >= ENOUGH_CONTRAST;
  return (
    <Typography
      variant="body2"
      role="status"
      sx={{ mt: -1.5, pl: 6.5, color: enough ? "note.calculation" : "note.check" }}
    >
      {what}: {ratio.toFixed(1)} to 1{enough ? ", reads well" : `; ${ENOUGH_CONTRAST} is needed`}
    </Typography>
  );
}

interface FaceProps {
  label: string;
  value: Brand["typeface"];
  onChange: (face: Brand["typeface"]) => void;
}

function Face({ label, value, onChange }: FaceProps) {
  return (
    <TextField
      select
      label={label}
      value={value}
      onChange={(event) => onChange(event.target.value as Brand["typeface"])}
      slotProps={{
        select: {
          renderValue: () => <span style={{ fontFamily: TYPEFACES[value].family }}>{TYPEFACES[value].title}</span>,
        },
      }}
    >
      {Object.entries(TYPEFACES).map(([name, { title, family, size }]) => (
        <MenuItem key={name} value={name} sx={{ justifyContent: "space-between", gap: 2 }}>
          <span style={{ fontFamily: family, fontSize: 16 }}>{title}</span>
          <Typography component="span" variant="caption" color="text.secondary">
            {size} KB
          </Typography>
        </MenuItem>
      ))}
    </TextField>
  );
}
