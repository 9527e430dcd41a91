// How the form stands on its page, chosen by small drawings.
import Box from "@mui/material/Box";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import type { BrandProps } from "./BrandArea";
import { DRAWINGS, type Kind, type Piece } from "./drawings";

const FILLS: Readonly<Record<Kind, string>> = {
  colour: "var(--mui-palette-primary-main)",
  text: "var(--mui-palette-text-secondary)",
  field: "none",
  paper: "var(--mui-palette-background-paper)",
};

export function Layout({ brand, edit }: BrandProps) {
  return Object.entries(DRAWINGS).map(([setting, { title, choices }]) => (
    <Box key={setting}>
      <Typography variant="body2" id={`drawn-${setting}`} sx={{ mb: 0.5, fontWeight: 600 }}>
        {title}
      </Typography>
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-labelledby={`drawn-${setting}`}
        value={brand[setting as keyof typeof DRAWINGS]}
        onChange={(_event, chosen: string | null) => chosen && edit({ [setting]: chosen })}
        sx={{ display: "grid", gridTemplateColumns: "repeat(3, 1fr)", gap: 1 }}
      >
        {Object.entries(choices).map(([name, { title: words, pieces }]) => (
          <ToggleButton
            key={name}
            value={name}
            sx={{
              display: "grid",
              justifyItems: "center",
              gap: 0.5,
              textTransform: "none",
              lineHeight: 1.3,
              color: "text.primary",
              // Each stands alone: they may wrap.
              "&&": { m: 0, border: 1, borderColor: "divider", borderRadius: 1 },
              "&&.Mui-selected": { borderColor: "primary.main", outline: 1, outlineColor: "primary.main" },
            }}
          >
            <Drawing pieces={pieces} />
            {words}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </Box>
  ));
}

function Drawing({ pieces }: { pieces: readonly Piece[] }) {
  return (
    <Box component="svg" viewBox="0 0 48 36" aria-hidden="true" sx={{ width: 72, height: 54, bgcolor: "action.hover" }}>
      {pieces.map(([x, y, width, height, kind], at) => (
        <rect
          key={at}
          x={x}
          y={y}
          width={width}
          height={height}
          rx={kind === "text" ? height / 2 : 1}
          fill={FILLS[kind]}
          stroke={kind === "field" ? "var(--mui-palette-text-secondary)" : "none"}
          strokeWidth={0.6}
        />
      ))}
    </Box>
  );
}
