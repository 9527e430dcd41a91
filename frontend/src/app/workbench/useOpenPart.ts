// Leads to a part where it is made: figures in their area, all others in Compose.
import { FORM as WHOLE_FORM } from "../../form/snapshot";
import { ORDER, PAYMENT } from "../../model/parts";
import { useNavigate } from "react-router";
import type { Entry } from "../../model/parts";
import { useBench } from "./bench";

/** The area in which a part is made. */
export const areaOf = (what: Entry["what"] | undefined): string =>
  what === "figure" ? "figures" : what === "follow_up" ? "follow-ups" : "compose";

export function useOpenPart(): (id: string, setting?: string | null) => void {
  const { parts, reply, select } = useBench();
  const navigate = useNavigate();
  return (id, setting = null) => {
    if (id === ORDER || id === WHOLE_FORM) {
      // They have no part of their own: they are set up where nothing is selected.
      void navigate(`/forms/${reply.id}/compose`);
      return select(null);
    }
    if (id === PAYMENT) return void navigate(`/forms/${reply.id}/payment`);
    const entry = parts.get(id);
    if (!entry) return;
    void navigate(`/forms/${reply.id}/${areaOf(entry.what)}`);
    select(id, setting);
  };
}
