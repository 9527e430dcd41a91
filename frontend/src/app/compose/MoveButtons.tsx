// Up and down for what is selected; where there is no place to go, a button says so and keeps the focus.
import Button from "@mui/material/Button";
import type { ComposeActions } from "./actions";

const WAYS = [
  { by: -1, name: "Move up", keys: "Alt+↑", sign: "↑" },
  { by: 1, name: "Move down", keys: "Alt+↓", sign: "↓" },
] as const;

export const MoveButtons = ({ actions }: { actions: Pick<ComposeActions, "shift" | "mayShift"> }) =>
  WAYS.map(({ by, name, keys, sign }) => {
    const idle = !actions.mayShift(by);
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
