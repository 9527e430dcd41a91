// What comes out of the answers that are tried, on the draft as it was saved last.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api } from "../../api/client";
import type { OutcomeReply } from "../../api/generated/wire";
import { useBench } from "./bench";

/** Nothing while it is not `wanted`. */
export function useOutcome(wanted = true): OutcomeReply | undefined {
  const { reply, saved, trying } = useBench();
  const { answers, link, day, visitor } = trying;
  const found = useQuery({
    queryKey: ["outcome", reply.id, saved.revision, answers, link, day, visitor],
    queryFn: () => api.outcome(reply.id, { answers, link, day, visitor }),
    placeholderData: keepPreviousData,
    retry: false,
    enabled: wanted,
  });
  return wanted ? found.data : undefined;
}
