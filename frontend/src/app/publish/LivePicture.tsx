// A real page in a frame, as wide as a device, made smaller so that it fits beside.
import Box from "@mui/material/Box";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useEffect, useRef, useState } from "react";
import { MONO } from "../../theme/theme";

const WIDTHS = [375, 768, 1180] as const;

interface Props {
  /** What is seen, in words. */
  title: string;
  /** What the frame shows. */
  src: string;
  /** What a visitor would see as the address. */
  address?: string;
  width?: (typeof WIDTHS)[number];
}

export function LivePicture({ title, src, address, width: first = 375 }: Props) {
  const [width, setWidth] = useState<number>(first);
  const around = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState({ width: 400, height: 600 });
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setRoom({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    if (around.current) watch.observe(around.current);
    return () => watch.disconnect();
  }, []);
  const scale = Math.min(1, room.width / width);
  return (
    <>
      <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between", gap: 1 }}>
        <Typography sx={{ fontWeight: 600 }}>{title}</Typography>
        <ToggleButtonGroup
          exclusive
          size="small"
          aria-label="Width in pixels"
          sx={{ bgcolor: "background.paper" }}
          value={width}
          onChange={(_event, next: number | null) => next && setWidth(next)}
        >
          {WIDTHS.map((each) => (
            <ToggleButton key={each} value={each} sx={{ py: 0.25 }}>
              {each}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Box>
      <Box ref={around} sx={{ flex: 1, minHeight: 320, overflow: "hidden", display: "grid", justifyItems: "center" }}>
        <Box
          sx={{
            width: width * scale,
            height: room.height,
            overflow: "hidden",
            border: 1,
            borderColor: "divider",
            borderRadius: 1,
            bgcolor: "background.paper",
          }}
        >
          {address && (
            <Box
              sx={{
                height: 26,
                px: 1,
                fontFamily: MONO,
                fontSize: 11,
                lineHeight: "26px",
                borderBottom: 1,
                borderColor: "divider",
                whiteSpace: "nowrap",
                overflow: "hidden",
                textOverflow: "ellipsis",
              }}
            >
              {address}
            </Box>
          )}
          <Box
            component="iframe"
            key={src}
            title={title}
            src={src}
            sx={{
              display: "block",
              border: 0,
              width,
              height: (room.height - (address ? 28 : 2)) / scale,
              transform: `scale(${scale})`,
              transformOrigin: "0 0",
            }}
          />
        </Box>
      </Box>
    </>
  );
}
