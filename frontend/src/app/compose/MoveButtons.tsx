// Up and down for what is selected; where there is no place to go, a button says so and keeps the focus.
import Button from "@mui/material/Button";
import { useBench } from "../workbench/bench";
import { type ComposeActions, shifted } from "./actions";

const WAYS = [
  { by: -1, name: "Move up", keys: "Alt+↑", sign: "↑" },
  { by: 1, name: "Move down", keys: "Alt+↓", sign: "↓" },
] as const;

export function MoveButtons({ actions }: { actions: Pick<ComposeActions, "shift"> }) {
  const bench = useBench();
  return WAYS.map(({ by, name, keys, sign }) => {
    const idle = shifted(bench, by) === null;
    return (
      <Button
        key={name}
        color="inherit"
        aria-label={name}
        aria-disabled={idle || undefined}
        title={idle ? `There is nothing to move ${by < 0 ? "above" : "below"}` : keys}
        onClick={() => actions.shift(by)}
        sx={{ minWidth: 32, opacity: idle ? 0.4 : 1 }}
      >
        {sign}
      </Button>
    );
  });
}
