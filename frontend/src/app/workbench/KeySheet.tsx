// The sheet of shortcuts (?).
import Box from "@mui/material/Box";
import Dialog from "@mui/material/Dialog";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { setSingleKeys, singleKeysWork } from "../compose/single_keys";
import { OTHER_KEYS, SHORTCUTS } from "../compose/keys";
import { Key } from "../../ui/Key";

export function KeySheet({ onClose }: { onClose: () => void }) {
  const [single, setSingle] = useState(() => singleKeysWork());
  const turn = (work: boolean) => {
    setSingleKeys(work);
    setSingle(work);
  };
  return (
    <Dialog open onClose={onClose} aria-labelledby="keys-title" maxWidth="md">
      <Box sx={{ p: 3 }}>
        <Typography id="keys-title" variant="h2" sx={{ mb: 1.5 }}>
          Keyboard
        </Typography>
        <Box
          component="dl"
          sx={{ m: 0, display: "grid", gridTemplateColumns: "max-content minmax(0,1fr)", columnGap: 2, rowGap: 0.75 }}
        >
          {[...OTHER_KEYS, ...SHORTCUTS].map(({ keys, does }) => (
            <Box key={does} sx={{ display: "contents" }}>
              <dt>
                <Key>{keys}</Key>
                <Box
                  component="span"
                  sx={{ position: "absolute", width: 1, height: 1, overflow: "hidden", clipPath: "inset(50%)" }}
                >
                  {keys}
                </Box>
              </dt>
              <Typography component="dd" sx={{ m: 0 }}>
                {does}
              </Typography>
            </Box>
          ))}
        </Box>
        <FormControlLabel
          control={<Switch size="small" checked={single} onChange={(_event, work) => turn(work)} />}
          label="A, / and ? work by themselves"
          sx={{ mt: 2 }}
        />
        <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
          They work wherever nothing is being typed. Turned off, this list is found with Ctrl+K. Esc closes it.
        </Typography>
      </Box>
    </Dialog>
  );
}
