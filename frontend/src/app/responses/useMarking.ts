// Marking responses: with a status, tags, a person. What shows them is read anew.
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api } from "../../api/client";
import type { MarkRequest } from "../../api/generated/wire";

export function useMarking(formId: string, numbers: number[], onDone: () => void = () => undefined) {
  const queryClient = useQueryClient();
  return useMutation({
    mutationFn: (asked: Pick<MarkRequest, "kind" | "value">) =>
      api.markResponses(formId, { ...asked, numbers: numbers as MarkRequest["numbers"] }),
    onSuccess: async () => {
      onDone();
      for (const name of ["responses", "response", "asking"])
        await queryClient.invalidateQueries({ queryKey: [name, formId] });
    },
  });
}
