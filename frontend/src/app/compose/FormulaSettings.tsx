// The formulas of a block, as text; a click opens the same editor that its note in the margin opens.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import Typography from "@mui/material/Typography";
import type { Block } from "../../model/blocks";
import { MONO } from "../../theme/theme";
import { useBench } from "../workbench/bench";

export function FormulaSettings({ block }: { block: Block }) {
  const { act, analysis, names } = useBench();
  const readBy = (analysis.links[block.id]?.read_by ?? []).flatMap((id) => names.get(id) ?? []);
  const required = "required" in block ? block.required.trim() : "";
  return (
    <>
      {"formula" in block && (
        <FormulaText title="Worked out by" setting="formula" text={block.formula} absent="Write a formula" />
      )}
      <FormulaText title="Shown when" setting="shown" text={block.shown} absent="Always; add a rule" />
      {"required" in block && (
        <>
          <FormControlLabel
            sx={{ ml: 0, justifyContent: "space-between" }}
            labelPlacement="start"
            label="Must be answered"
            control={
              <Switch
                checked={required !== ""}
                onChange={(_event, on) =>
                  act({ do: "edit_block", block: block.id, changes: { required: on ? "TRUE" : "" } })
                }
              />
            }
          />
          {required !== "" && (
            <FormulaText
              title="Must be answered when"
              setting="required"
              text={required.toUpperCase() === "TRUE" ? "" : required}
              absent="Always; add a condition"
            />
          )}
        </>
      )}
      {MORE.filter(({ setting }) => setting in block).map(({ setting, title, absent }) => (
        <FormulaText
          key={setting}
          title={title}
          setting={setting}
          text={String((block as unknown as Record<string, unknown>)[setting])}
          absent={absent}
        />
      ))}
      <Box>
        <Typography variant="h3" color="text.secondary">
          Used by
        </Typography>
        {readBy.length === 0 && <Typography variant="body2">No rule or formula reads this.</Typography>}
        {readBy.map((name) => (
          <Typography key={`${name.number} ${name.title}`} variant="body2">
            {name.number} {name.title}
          </Typography>
        ))}
      </Box>
    </>
  );
}

// What only some types have, in the order in which people think of it.
const MORE = [
  { setting: "default", title: "Begins as", absent: "Blank; give it a default" },
  { setting: "locked", title: "Locked when", absent: "Never; add a rule" },
  { setting: "offered", title: "Offers an option when", absent: "Always; filter the options" },
  { setting: "earliest", title: "Not before", absent: "Any; set a limit" },
  { setting: "latest", title: "Not after", absent: "Any; set a limit" },
] as const;

function FormulaText({
  title,
  setting,
  text,
  absent,
}: {
  title: string;
  setting: string;
  text: string;
  absent: string;
}) {
  const { block, select } = useBench();
  return (
    <Box>
      <Typography variant="h3" color="text.secondary" sx={{ mb: 0.5 }}>
        {title}
      </Typography>
      <Button
        fullWidth
        color="inherit"
        onClick={() => select(block, setting)}
        aria-label={`${title}: ${text || absent}`}
        sx={{
          justifyContent: "flex-start",
          textAlign: "left",
          minHeight: 34,
          bgcolor: text ? "noteTint.rule" : "background.default",
          fontFamily: text ? MONO : undefined,
          fontSize: text ? 12 : 13,
          fontWeight: 400,
          overflowWrap: "anywhere",
        }}
      >
        {text || absent}
      </Button>
    </Box>
  );
}
