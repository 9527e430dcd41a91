// What a field can become where it stands, and what it would lose by that, said before.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { type Block, typeOf } from "../../model/blocks";
import { settingName } from "../../model/differences";
import { retyped, typesInstead } from "../../model/retyping";
import { PopoverButton } from "../../ui/PopoverButton";
import { useBench } from "../workbench/bench";
import type { ComposeActions } from "./actions";

export function TypeMenu({ block, actions }: { block: Block; actions: ComposeActions }) {
  const { mayEdit } = useBench();
  const types = typesInstead(block.type);
  const { title } = typeOf(block.type);
  if (!mayEdit || types.length === 0) return title.toLowerCase();
  return (
    <PopoverButton label={`${title.toLowerCase()} ▾`} name="Change the type" width={340} room={1} color="inherit">
      {(close) => (
        <Box component="ul" sx={{ m: 0, p: 0, listStyle: "none" }}>
          {types.map((type) => {
            const { lost } = retyped(block, type);
            return (
              <li key={type}>
                <Button
                  fullWidth
                  color="inherit"
                  sx={{ justifyContent: "start", textAlign: "left" }}
                  onClick={() => {
                    close();
                    actions.retype(block.id, type);
                  }}
                >
                  <span>
                    {typeOf(type).title}
                    <Typography component="span" variant="body2" color="text.secondary" sx={{ display: "block" }}>
                      {lost.length === 0 ? "Keeps everything" : `Loses its ${lost.map(settingName).join(", ")}`}
                    </Typography>
                  </span>
                </Button>
              </li>
            );
          })}
          <Typography variant="body2" color="text.secondary" sx={{ px: 1, py: 0.5 }}>
            Its key, its rules and what came in stay as they are. What formulas compare it with may need another look;
            the proof says so.
          </Typography>
        </Box>
      )}
    </PopoverButton>
  );
}
