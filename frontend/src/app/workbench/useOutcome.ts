// What comes out of the answers that are tried, on the draft as it was saved last.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { queries } from "../../api/queries";
import type { OutcomeReply } from "../../api/generated/wire";
import { useBench } from "./bench";

/** Nothing while it is not `wanted`. */
export function useOutcome(wanted = true): OutcomeReply | undefined {
  const { reply, saved, trying } = useBench();
  const found = useQuery({
    ...queries.outcome(reply.id, saved.revision, trying),
    placeholderData: keepPreviousData,
    enabled: wanted,
  });
  return wanted ? found.data : undefined;
}
