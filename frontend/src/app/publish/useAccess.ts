// Who may fill in the form and when, and how links to it look: what is set, and setting it.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api } from "../../api/client";
import type { WhoAndWhenReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { useBench } from "../workbench/bench";

type Access = WhoAndWhenReply["access"];
type Sharing = WhoAndWhenReply["sharing"];
type Asked = { access: Access } | { password: string } | { sharing: Sharing };

export function useAccess() {
  const { reply } = useBench();
  const queryClient = useQueryClient();
  const known = useQuery(queries.access(reply.id));
  const set = useMutation({
    mutationFn: (asked: Asked) => {
      if ("access" in asked) return api.setAccess(reply.id, asked.access);
      if ("password" in asked) return api.setFormPassword(reply.id, asked.password);
      return api.setSharing(reply.id, asked.sharing);
    },
    onSuccess: (kept) => queryClient.setQueryData(queries.access(reply.id).queryKey, kept),
  });
  return { known, set };
}
