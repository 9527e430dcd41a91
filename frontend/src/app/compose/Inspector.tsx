// The inspector: every setting of the selected block, in the order in which people think of them.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tab from "@mui/material/Tab";
import Tabs from "@mui/material/Tabs";
import Typography from "@mui/material/Typography";
import { useEffect, useState } from "react";
import { SETTINGS, type SettingsTab } from "../../fields/settings";
import { titleOf, typeOf } from "../../model/blocks";
import { MONO, SERIF } from "../../theme/theme";
import { useBench } from "../workbench/bench";
import { ContentSettings } from "./ContentSettings";
import { FormSettings } from "./FormSettings";
import { FormulaSettings } from "./FormulaSettings";
import { LookSettings } from "./LookSettings";
import type { ComposeActions } from "./useComposeActions";

const TABS: Record<string, SettingsTab> = {
  label: "content",
  key: "content",
  text: "content",
  options: "answers",
  limits: "checks",
  minimum: "checks",
  formula: "behaviour",
};

export function Inspector({ actions }: { actions: ComposeActions }) {
  const { block, places } = useBench();
  const place = block ? places.get(block) : undefined;
  return (
    <Box
      component="aside"
      aria-label="Inspector"
      sx={{
        display: "flex",
        flexDirection: "column",
        minHeight: 0,
        borderLeft: 1,
        borderColor: "divider",
        bgcolor: "background.paper",
      }}
    >
      {place ? <BlockSettings key={place.block.id} actions={actions} /> : <FormSettings />}
    </Box>
  );
}

function BlockSettings({ actions }: { actions: ComposeActions }) {
  const { block: selected, setting, places, mayEdit } = useBench();
  const { block, number } = places.get(selected!)!;
  const [tab, setTab] = useState<SettingsTab>("content");
  const special = SETTINGS[block.type];
  useEffect(() => {
    if (setting && TABS[setting]) setTab(TABS[setting]);
  }, [setting]);
  const edit = (changes: Partial<Record<string, unknown>>) => actions.edit(block.id, changes);
  const Answers = special.answers;
  const Checks = special.checks;
  const available = [
    "content",
    ...(Answers ? ["answers"] : []),
    "behaviour",
    ...(Checks ? ["checks"] : []),
    "look",
  ] as SettingsTab[];
  const shown = available.includes(tab) ? tab : "content";
  return (
    <>
      <Box sx={{ px: 2, pt: 1.75 }}>
        <Typography variant="body2" color="text.secondary">
          <Box component="span" sx={{ fontFamily: SERIF }}>
            {number}
          </Box>{" "}
          · {typeOf(block.type).title.toLowerCase()} ·{" "}
          <Box component="span" sx={{ fontFamily: MONO, fontSize: 12 }}>
            {block.key}
          </Box>
        </Typography>
        <Typography variant="h2" sx={{ mt: 0.25, overflowWrap: "anywhere" }}>
          {titleOf(block)}
        </Typography>
      </Box>
      <Tabs
        value={shown}
        onChange={(_event, next: SettingsTab) => setTab(next)}
        aria-label="Settings"
        sx={{ px: 0.75, mt: 0.5, borderBottom: 1, borderColor: "divider" }}
      >
        {available.map((name) => (
          <Tab
            key={name}
            value={name}
            label={name[0]!.toUpperCase() + name.slice(1)}
            id={`tab-${name}`}
            aria-controls="settings-panel"
          />
        ))}
      </Tabs>
      <Box id="settings-panel" role="tabpanel" aria-labelledby={`tab-${shown}`} sx={{ flex: 1, overflow: "auto" }}>
        <Box component="fieldset" disabled={!mayEdit} sx={{ m: 0, p: 2, border: 0, display: "grid", gap: 2 }}>
          {shown === "content" && <ContentSettings block={block} actions={actions} focusLabel={setting === "label"} />}
          {shown === "answers" && Answers && <Answers block={block} edit={edit} />}
          {shown === "behaviour" && <FormulaSettings block={block} />}
          {shown === "checks" && Checks && <Checks block={block} edit={edit} />}
          {shown === "look" && <LookSettings block={block} edit={edit} Special={special.look} />}
        </Box>
      </Box>
      {mayEdit && (
        <Box sx={{ display: "flex", gap: 1, p: 1.25, borderTop: 1, borderColor: "divider" }}>
          <Button color="inherit" onClick={actions.duplicate} title="Ctrl+D">
            Duplicate
          </Button>
          <Button color="error" onClick={actions.remove} title="Delete">
            Remove
          </Button>
          <Box sx={{ flex: 1 }} />
          <Button
            color="inherit"
            onClick={() => actions.shift(-1)}
            aria-label="Move up"
            title="Alt+↑"
            sx={{ minWidth: 32 }}
          >
            ↑
          </Button>
          <Button
            color="inherit"
            onClick={() => actions.shift(1)}
            aria-label="Move down"
            title="Alt+↓"
            sx={{ minWidth: 32 }}
          >
            ↓
          </Button>
        </Box>
      )}
    </>
  );
}
