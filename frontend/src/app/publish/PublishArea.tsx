// Publish: sections at the left, the section in the middle, and beside it a live picture of what it does.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { queries } from "../../api/queries";
import { SidePanel, SideRow } from "../../ui/SideList";
import { HelpButton } from "../help/HelpTopic";
import { useBench } from "../workbench/bench";
import { EditionsSection } from "./EditionsSection";
import { LinkSection } from "./LinkSection";
import { SECTIONS, type SectionId } from "./sections";
import { ValuesSection } from "./ValuesSection";
import { WebsiteSection } from "./WebsiteSection";
import { WhoSection } from "./WhoSection";

const SHOWN: Record<SectionId, () => React.ReactNode> = {
  editions: EditionsSection,
  link: LinkSection,
  website: WebsiteSection,
  who: WhoSection,
  values: ValuesSection,
};

export function PublishArea() {
  const [search, setSearch] = useSearchParams();
  const wanted = search.get("section");
  const section = SECTIONS.find(({ id }) => id === wanted) ?? SECTIONS[0];
  const { saved } = useBench();
  const Shown = SHOWN[section.id];
  return (
    <Box sx={{ height: "100%", display: "grid", gridTemplateColumns: "200px minmax(0,1fr)" }}>
      <SidePanel name="Sections">
        <Typography variant="h1" sx={{ px: 2, pt: 1.5, pb: 1 }}>
          Publish
        </Typography>
        {SECTIONS.map(({ id, title }) => (
          <SideRow key={id} chosen={id === section.id} onChoose={() => setSearch({ section: id }, { replace: true })}>
            <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1 }}>
              {title}
              <Count of={id} />
            </Box>
          </SideRow>
        ))}
        <Box sx={{ px: 1, py: 1, mt: "auto" }}>
          <HelpButton topic="publish" />
        </Box>
        {saved.liveEdition === null && (
          <Alert severity="info" icon={false} sx={{ m: 1.5 }}>
            Nobody can reach this form yet: publish edition 1 with the button at the top.
          </Alert>
        )}
      </SidePanel>
      <Shown key={section.id} />
    </Box>
  );
}

/** How many there are, where a section lists something. */
function Count({ of }: { of: SectionId }) {
  const { reply, form } = useBench();
  const editions = useQuery({ ...queries.editions(reply.id), enabled: of === "editions" });
  const count = { editions: editions.data?.editions.length, website: reply.sites.length, values: form.links.length }[
    of as "editions" | "website" | "values"
  ];
  if (!count) return null;
  return (
    <Typography component="span" color="text.secondary" sx={{ fontVariantNumeric: "tabular-nums" }}>
      {count}
    </Typography>
  );
}
