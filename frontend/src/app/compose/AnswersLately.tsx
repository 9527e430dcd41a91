// How the newest responses answered a field with options: a bar for each.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { queries } from "../../api/queries";
import type { Block } from "../../model/blocks";
import { useSignedIn } from "../signed_in";
import { useBench } from "../workbench/bench";
import { Heading } from "./InspectorFrame";

export function AnswersLately({ block }: { block: Block }) {
  const { reply } = useBench();
  const who = useSignedIn();
  const options = "options" in block && block.type !== "grid" ? block.options : [];
  const wanted = options.length > 0 && reply.responses > 0 && who.role !== "viewer";
  const found = useQuery({ ...queries.triedResponses(reply.id, reply.revision), enabled: wanted });
  const answers = (found.data?.responses ?? []).flatMap((response) => response.answers[block.id] ?? []) as unknown[];
  if (!wanted || answers.length === 0) return null;
  const count = found.data!.responses.filter((response) => block.id in response.answers).length;
  return (
    <Box>
      <Heading>In the last {count} responses</Heading>
      {options.map((option) => {
        const share = Math.round(
          (answers.filter((each) => each === option.id || each === option.code).length / count) * 100,
        );
        return (
          <Box key={option.id} sx={{ mt: 0.75 }}>
            <Box sx={{ display: "flex", justifyContent: "space-between" }}>
              <Typography variant="body2">{option.label}</Typography>
              <Typography variant="body2" sx={{ fontVariantNumeric: "tabular-nums" }}>
                {share} %
              </Typography>
            </Box>
            <Box sx={{ height: 4, borderRadius: 1, bgcolor: "divider" }}>
              <Box sx={{ height: 4, borderRadius: 1, bgcolor: "text.secondary" }} style={{ width: `${share}%` }} />
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
