// Leads to a part where it is made: figures in their area, all others in Compose.
import { useNavigate } from "react-router";
import { useBench } from "./bench";

export function useOpenPart(): (id: string, setting?: string | null) => void {
  const { parts, reply, select } = useBench();
  const navigate = useNavigate();
  return (id, setting = null) => {
    const entry = parts.get(id);
    if (!entry) return;
    void navigate(`/forms/${reply.id}/${entry.what === "figure" ? "figures" : "compose"}`);
    select(id, setting);
  };
}
