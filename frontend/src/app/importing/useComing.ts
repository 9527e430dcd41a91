// While a file comes in, what it brings is looked at again.
import { useQueryClient, type QueryKey } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import type { ImportReply } from "../../api/generated/wire";

/** Looks again at what is kept under a key as often as more of these files is in; they are none until they are known. */
export function useComing(imports: readonly ImportReply[] | undefined, key: QueryKey) {
  const queryClient = useQueryClient();
  const moved = imports?.map((each) => each.kept).join() ?? null;
  const known = useRef(moved);
  useEffect(() => {
    if (moved === null || known.current === moved) return;
    known.current = moved;
    void queryClient.invalidateQueries({ queryKey: key });
  });
}
