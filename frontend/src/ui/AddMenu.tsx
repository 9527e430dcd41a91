// A button that opens a list of kinds to add, each with what it is for.
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useState } from "react";

interface Props<Kind extends string> {
  label: string;
  kinds: Readonly<Record<Kind, { title: string; purpose: string }>>;
  onAdd: (kind: Kind) => void;
}

export function AddMenu<Kind extends string>({ label, kinds, onAdd }: Props<Kind>) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button
        variant="outlined"
        color="inherit"
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        {label} ▾
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {(Object.keys(kinds) as Kind[]).map((kind) => (
          <MenuItem
            key={kind}
            onClick={() => {
              setAnchor(null);
              onAdd(kind);
            }}
            sx={{ display: "block", maxWidth: 380, whiteSpace: "normal" }}
          >
            <b>{kinds[kind].title}</b>
            <Typography variant="body2" color="text.secondary">
              {kinds[kind].purpose}
            </Typography>
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
