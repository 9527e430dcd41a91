// The head of a page on the sheet: its number, which opens its settings, and its title, typed where it stands.
import Box from "@mui/material/Box";
import InputBase from "@mui/material/InputBase";
import type { MouseEvent } from "react";
import type { Page } from "../../model/blocks";
import type { Entry } from "../../model/parts";
import { SERIF } from "../../theme/theme";
import { useIntoSight } from "../../ui/useIntoSight";
import type { ComposeActions } from "./actions";

interface Props {
  entry: Extract<Entry, { what: "page" }>;
  chosen: boolean;
  actions: ComposeActions;
  select: (id: string, event: MouseEvent) => void;
  mayEdit: boolean;
}

export function PageOnSheet({ entry, chosen, actions, select, mayEdit }: Props) {
  const page: Page = entry.part;
  const place = useIntoSight(chosen);
  return (
    <Box
      ref={place}
      sx={{
        display: "flex",
        alignItems: "baseline",
        mb: 1,
        mx: 1,
        pl: 1,
        pr: 2,
        borderRadius: 1,
        outline: chosen ? "2px solid" : undefined,
        outlineColor: "sheet.action",
      }}
    >
      <Box
        component="button"
        type="button"
        aria-pressed={chosen}
        aria-label={`Page ${entry.number}: its settings`}
        onClick={(event: MouseEvent) => select(entry.id, event)}
        sx={{
          width: 36,
          minHeight: 24,
          p: 0,
          font: "inherit",
          fontFamily: SERIF,
          fontWeight: 600,
          textAlign: "left",
          color: chosen ? "sheet.action" : "sheet.quiet",
          background: "none",
          border: 0,
          cursor: "pointer",
        }}
      >
        {entry.number}
      </Box>
      <InputBase
        fullWidth
        readOnly={!mayEdit}
        value={page.title}
        placeholder="Title of this page"
        onChange={(event) => actions.edit(page.id, { title: event.target.value })}
        inputProps={{ "aria-label": `Title of page ${entry.number}` }}
        sx={{ fontFamily: "var(--cx-heading-face)", fontWeight: 600, fontSize: 21, color: "sheet.ink" }}
      />
    </Box>
  );
}
