// The ways to start a form.
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useRef, useState } from "react";
import { Link } from "react-router";
import type { DeskActions } from "./useDesk";

export function NewForm({ actions }: { actions: DeskActions }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const then = (work: () => void) => () => {
    setAnchor(null);
    work();
  };
  return (
    <>
      <Button
        variant="contained"
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        New form
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <MenuItem onClick={then(actions.make)}>Blank form</MenuItem>
        <MenuItem component={Link} to="/start/template">
          From a template …
        </MenuItem>
        <MenuItem component={Link} to="/start/outline">
          From pasted text …
        </MenuItem>
        <MenuItem onClick={then(() => file.current?.click())}>From a JSON file …</MenuItem>
      </Menu>
      <input
        ref={file}
        type="file"
        hidden
        accept="application/json,.json"
        aria-label="JSON file of a form"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = "";
          if (chosen) actions.importFile(chosen);
        }}
      />
    </>
  );
}
