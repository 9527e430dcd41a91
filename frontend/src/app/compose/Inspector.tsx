// The inspector: every setting of what is selected, in the order in which people think of them.
import Box from "@mui/material/Box";
import { useBench } from "../workbench/bench";
import { BlockSettings } from "./BlockSettings";
import { ConfirmationSettings } from "./ConfirmationSettings";
import { FormPartSettings } from "./FormPartSettings";
import { FormSettings } from "./FormSettings";
import { PageSettings } from "./PageSettings";
import { RowKindSettings } from "./RowKindSettings";
import { SeveralSettings } from "./SeveralSettings";
import type { ComposeActions } from "./actions";

export function Inspector({ actions }: { actions: ComposeActions }) {
  return (
    <Box
      component="aside"
      aria-label="Inspector"
      sx={{
        contain: "strict",
        display: "flex",
        flexDirection: "column",
        minHeight: 0,
        borderLeft: 1,
        borderColor: "divider",
        bgcolor: "background.paper",
      }}
    >
      <Panel actions={actions} />
    </Box>
  );
}

function Panel({ actions }: { actions: ComposeActions }) {
  const { part, parts, selected } = useBench();
  const entry = part ? parts.get(part) : undefined;
  if (selected.length > 1) return <SeveralSettings actions={actions} />;
  switch (entry?.what) {
    case "block":
      return <BlockSettings key={entry.id} entry={entry} actions={actions} />;
    case "page":
      return <PageSettings key={entry.id} entry={entry} actions={actions} />;
    case "kind":
      return <RowKindSettings key={entry.id} entry={entry} actions={actions} />;
    case "form_part":
      return <FormPartSettings key={entry.id} entry={entry} actions={actions} />;
    case "confirmation":
      return <ConfirmationSettings key={entry.id} entry={entry} actions={actions} />;
    default:
      return <FormSettings />;
  }
}
