// A small line of numbers over days, beside the number itself.
import { useTheme } from "@mui/material/styles";

interface Props {
  numbers: readonly number[];
  label: string;
}

const WIDTH = 86;
const HEIGHT = 24;

export function Sparkline({ numbers, label }: Props) {
  const theme = useTheme();
  const most = Math.max(...numbers, 1);
  const step = WIDTH / Math.max(1, numbers.length - 1);
  const points = numbers.map((number, index) => `${index * step},${HEIGHT - 2 - (number / most) * (HEIGHT - 4)}`);
  return (
    <svg width={WIDTH} height={HEIGHT} role="img" aria-label={label}>
      <polyline
        points={points.join(" ")}
        fill="none"
        stroke={theme.vars?.palette.primary.main ?? theme.palette.primary.main}
        strokeWidth="1.5"
        strokeLinejoin="round"
      />
    </svg>
  );
}
