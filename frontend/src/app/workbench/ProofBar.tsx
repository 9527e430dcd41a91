// The thin bar below everything: what the proof found, and what the selection hangs on.
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { FindingReply } from "../../api/generated/wire";
import { asTime, counted } from "../../text/words";
import type { Parts } from "../../model/parts";
import { PopoverButton } from "../../ui/PopoverButton";
import { useFailingTrials } from "./AreaTabs";
import { useBench } from "./bench";
import { areaOf } from "./useOpenPart";
import { TryingChoice } from "./TryingChoice";

export function ProofBar({ area }: { area: string }) {
  const { analysis, parts, select, reply, form, saveState } = useBench();
  const failing = useFailingTrials();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  // What could not be saved is in no proof yet.
  const isOld = !["saved", "saving"].includes(saveState);
  const navigate = useNavigate();
  const errors = analysis.findings.filter((finding) => finding.severity === "error").length;
  const doubts = analysis.findings.length - errors;
  const lead = (finding: FindingReply) => {
    setAnchor(null);
    void navigate(`/forms/${reply.id}/${areaOfFinding(finding, parts)}`);
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
        whiteSpace: "nowrap",
      }}
    >
      <ButtonBase
        disabled={analysis.findings.length === 0}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ px: 0.75, fontSize: 12.5, fontFamily: "inherit", borderRadius: 0.5 }}
      >
        {isOld ? "Proof of what was saved last:" : "Proof:"}&nbsp;
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
          const name = finding.block ? parts.get(finding.block) : undefined;
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
      {form.trials.length > 0 && (
        <ButtonBase
          component={Link}
          to={`/forms/${reply.id}/trials`}
          sx={{ px: 0.75, ml: 1, fontSize: 12.5, fontFamily: "inherit", borderRadius: 0.5 }}
        >
          Trials:&nbsp;
          <Box component="b" sx={{ color: failing ? "note.check" : "note.calculation" }}>
            {failing
              ? `${failing} of ${form.trials.length} ${failing === 1 ? "fails" : "fail"}`
              : form.trials.length === 1
                ? "the only one passes"
                : `all ${form.trials.length} pass`}
          </Box>
        </ButtonBase>
      )}
      {area === "compose" && (
        <Box sx={{ display: "flex", alignItems: "center", gap: 0.5, ml: 1.75, whiteSpace: "nowrap" }}>
          Sheet with:
          <TryingChoice inLine label="Answers on the sheet" />
        </Box>
      )}
      <Box sx={{ flex: 1, minWidth: 16 }} />
      <Links />
      <People />
      <Notices />
    </Box>
  );
}

function Links() {
  const { part, analysis, parts } = useBench();
  const links = part ? analysis.links[part] : undefined;
  const place = part ? parts.get(part) : undefined;
  if (!links || !place) return null;
  const numbers = (ids: string[]) =>
    ids
      .map((id) => parts.get(id)?.number || parts.get(id)?.title)
      .filter(Boolean)
      .join(", ");
  const reads = numbers(links.reads);
  const readBy = numbers(links.read_by);
  const told = [reads && `reads ${reads}`, readBy && `read by ${readBy}`].filter(Boolean);
  return (
    <Box
      component="span"
      sx={{ minWidth: 0, overflow: "hidden", textOverflow: "ellipsis", fontVariantNumeric: "tabular-nums" }}
    >
      {place.number || place.title} {told.length > 0 ? told.join(" · ") : "stands by itself"}
    </Box>
  );
}

/** Where a finding is mended. */
function areaOfFinding(finding: FindingReply, parts: Parts): string {
  if (finding.setting?.startsWith("brand")) return "brand";
  if (finding.setting?.startsWith("languages")) return "languages";
  return areaOf(finding.block ? parts.get(finding.block)?.what : undefined);
}

/** Who else has the form open, and where. */
function People() {
  const { people, parts } = useBench();
  if (people.length === 0) return null;
  const where = people
    .map(({ name, area, part }) => {
      const entry = part ? parts.get(part) : undefined;
      return `${name}: ${entry ? `${entry.number} ${entry.title}` : area}`;
    })
    .join("\n");
  return (
    <Box component="span" role="status" title={where} sx={{ ml: 2, color: "note.data", fontWeight: 650 }}>
      {people.length === 1 ? `${people[0]!.name} is here too` : `${people.length} others are here`}
    </Box>
  );
}

/** What was told about the draft, to be read again. */
function Notices() {
  const { notices } = useBench();
  if (notices.length === 0) return null;
  return (
    <PopoverButton label={`Notices ${notices.length}`} name="Notices" width={420} room={2}>
      {() => (
        <Box
          component="ol"
          sx={{ m: 0, p: 0, listStyle: "none", display: "grid", gap: 1, maxHeight: 320, overflow: "auto" }}
        >
          {notices.toReversed().map(({ id, at, words }) => (
            <li key={id}>
              <Box component="span" sx={{ color: "text.secondary", mr: 1 }}>
                {asTime(new Date(at).toISOString())}
              </Box>
              {words}
            </li>
          ))}
        </Box>
      )}
    </PopoverButton>
  );
}
