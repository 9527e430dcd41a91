// The thin bar below everything: what the proof found, and what the selection hangs on.
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { useNavigate } from "react-router";
import type { FindingReply } from "../../api/generated/wire";
import { counted } from "../../text/words";
import { SERIF } from "../../theme/theme";
import { useBench } from "./bench";

export function ProofBar() {
  const { analysis, names, select, reply } = useBench();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const navigate = useNavigate();
  const errors = analysis.findings.filter((finding) => finding.severity === "error").length;
  const doubts = analysis.findings.length - errors;
  const lead = (finding: FindingReply) => {
    setAnchor(null);
    void navigate(`/forms/${reply.id}/compose`);
    select(finding.block, finding.setting);
  };
  const summary = `${errors ? counted(errors, "error") : "no errors"}, ${doubts ? counted(doubts, "doubt") : "no doubts"}`;
  return (
    <Box
      component="footer"
      sx={{
        height: 28,
        px: 1.25,
        display: "flex",
        alignItems: "center",
        fontSize: 12.5,
        color: "text.secondary",
        borderTop: 1,
        borderColor: "divider",
        bgcolor: "background.paper",
      }}
    >
      <ButtonBase
        disabled={analysis.findings.length === 0}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ px: 0.75, fontSize: 12.5, fontFamily: "inherit", borderRadius: 0.5 }}
      >
        Proof:&nbsp;
        <Box component="b" sx={{ color: errors ? "note.check" : "note.calculation" }}>
          {summary}
        </Box>
      </ButtonBase>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: "top", horizontal: "left" }}
        transformOrigin={{ vertical: "bottom", horizontal: "left" }}
      >
        {analysis.findings.map((finding, index) => {
          const name = finding.block ? names.get(finding.block) : undefined;
          return (
            <MenuItem
              key={index}
              onClick={() => lead(finding)}
              sx={{
                maxWidth: 560,
                whiteSpace: "normal",
                display: "block",
                borderLeft: 3,
                borderColor: finding.severity === "error" ? "note.check" : "note.money",
              }}
            >
              <Typography component="span" sx={{ fontWeight: 600 }}>
                {finding.severity === "error" ? "Error" : "Doubt"}
                {name && ` at ${name.number} ${name.title}`.replace(/ +/g, " ")}
              </Typography>
              <Typography variant="body2">
                {finding.message} {finding.remedy}
              </Typography>
            </MenuItem>
          );
        })}
      </Menu>
      <Box sx={{ flex: 1 }} />
      <Links />
    </Box>
  );
}

function Links() {
  const { block, analysis, places, names } = useBench();
  const links = block ? analysis.links[block] : undefined;
  const place = block ? places.get(block) : undefined;
  if (!links || !place) return null;
  const numbers = (ids: string[]) =>
    ids
      .map((id) => names.get(id)?.number || names.get(id)?.title)
      .filter(Boolean)
      .join(", ");
  const reads = numbers(links.reads);
  const readBy = numbers(links.read_by);
  const parts = [reads && `reads ${reads}`, readBy && `read by ${readBy}`].filter(Boolean);
  return (
    <Box component="span" sx={{ fontFamily: SERIF }}>
      {place.number} {parts.length > 0 ? parts.join(" · ") : "stands by itself"}
    </Box>
  );
}
