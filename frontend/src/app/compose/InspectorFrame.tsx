// What every panel of the inspector has: what is selected, its settings, and what can be done with it as a whole.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { PropsWithChildren, ReactNode } from "react";
import { MONO, SERIF } from "../../theme/theme";
import { useBench } from "../workbench/bench";
import type { ComposeActions } from "./actions";
import { MoveButtons } from "./MoveButtons";

interface Props {
  number: string;
  what: string;
  /** In the place of `what`: a menu of what it can become. */
  menu?: ReactNode;
  name?: string;
  title: string;
  tabs?: ReactNode;
  actions?: ComposeActions;
  /** Whether it can be duplicated. */
  duplicable?: boolean;
}

export function InspectorFrame({
  number,
  what,
  menu,
  name,
  title,
  tabs,
  actions,
  duplicable = false,
  children,
}: PropsWithChildren<Props>) {
  const { mayEdit } = useBench();
  return (
    <>
      <Box sx={{ px: 2, pt: 1.75 }}>
        <Typography
          component="div"
          variant="body2"
          color="text.secondary"
          sx={{ "& .MuiButton-root": { minWidth: 0, minHeight: 24, p: "0 4px", font: "inherit" } }}
        >
          <Box component="span" sx={{ fontFamily: SERIF }}>
            {number}
          </Box>{" "}
          {number && "· "}
          {menu ?? what.toLowerCase()}
          {name && (
            <>
              {" · "}
              <Box component="span" sx={{ fontFamily: MONO, fontSize: 12 }}>
                {name}
              </Box>
            </>
          )}
        </Typography>
        <Typography variant="h2" sx={{ mt: 0.25, overflowWrap: "anywhere" }}>
          {title}
        </Typography>
      </Box>
      {tabs}
      <Box id="settings-panel" role={tabs ? "tabpanel" : undefined} sx={{ flex: 1, overflow: "auto" }}>
        <Box
          component="fieldset"
          disabled={!mayEdit}
          sx={{ m: 0, p: 2, border: 0, display: "grid", gap: 2, minWidth: 0 }}
        >
          {children}
        </Box>
      </Box>
      {mayEdit && actions && (
        <Box sx={{ display: "flex", gap: 0.5, p: 1.25, borderTop: 1, borderColor: "divider" }}>
          {duplicable && (
            <Button color="inherit" onClick={actions.duplicate} title="Ctrl+D">
              Duplicate
            </Button>
          )}
          <Button color="error" onClick={() => actions.remove()} title="Delete">
            Remove
          </Button>
          <Box sx={{ flex: 1 }} />
          <MoveButtons actions={actions} />
        </Box>
      )}
    </>
  );
}

/** A heading between settings; one level higher where nothing above it has its own. */
export const Heading = ({ top = false, children }: { top?: boolean; children: ReactNode }) => (
  <Typography variant="h3" component={top ? "h2" : "h3"} color="text.secondary">
    {children}
  </Typography>
);
