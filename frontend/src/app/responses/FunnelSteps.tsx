// The steps of a funnel as bars: how many reached each, how many left there, how long it takes.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { FunnelReply } from "../../api/generated/wire";
import { inTime, share } from "../../text/visits";

interface Bar {
  id: string;
  number: string;
  label: string;
  count: number;
  aside: string;
  kind: "visitors" | "step";
}

export function StepBars({ funnel }: { funnel: FunnelReply }) {
  const { seen } = funnel.all;
  return (
    <Box component="ol" aria-label="Steps" sx={{ listStyle: "none", m: 0, p: 0 }}>
      {barsOf(funnel).map((bar) => (
        <Box
          component="li"
          key={`${bar.kind} ${bar.id}`}
          sx={{
            display: "grid",
            gridTemplateColumns: "minmax(120px,200px) minmax(60px,1fr) 96px minmax(120px,170px)",
            gap: 1,
            alignItems: "center",
            minHeight: 30,
          }}
        >
          <Typography variant="body2" noWrap title={bar.label}>
            {bar.number && (
              <Box component="span" sx={{ color: "text.secondary", mr: 0.5 }}>
                {bar.number}
              </Box>
            )}
            {bar.label}
          </Typography>
          <Box sx={{ height: 16, bgcolor: "action.hover", borderRadius: 0.5, overflow: "hidden" }}>
            <Box
              sx={{
                height: "100%",
                width: `${seen ? Math.min(100, (bar.count / seen) * 100) : 0}%`,
                bgcolor: bar.kind === "step" ? "note.calculation" : "text.secondary",
              }}
            />
          </Box>
          <Typography variant="body2" sx={{ textAlign: "right", fontVariantNumeric: "tabular-nums" }}>
            {bar.count.toLocaleString("en")}{" "}
            <Box component="span" sx={{ color: "text.secondary" }}>
              {share(bar.count, seen)}
            </Box>
          </Typography>
          <Typography variant="caption" color="text.secondary" noWrap title={bar.aside}>
            {bar.aside}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

function barsOf({ all, steps }: FunnelReply): Bar[] {
  const visitors = (id: string, label: string, count: number, aside = ""): Bar => ({
    ...{ id, label, count, aside, number: "", kind: "visitors" },
  });
  return [
    visitors("seen", "Saw the form", all.seen),
    visitors("started", "Answered something", all.started),
    ...steps.map(({ id, number, label, reached, left, seconds, earlier }): Bar => {
      const asides = [
        left > 0 && `${left.toLocaleString("en")} left here`,
        seconds !== null && inTime(seconds),
        earlier && "an earlier edition’s",
      ];
      return {
        ...{ id, number, kind: "step", count: reached },
        label: label || `Page ${number}`,
        aside: asides.filter(Boolean).join(" · "),
      };
    }),
    visitors("sent", "Sent it", all.sent),
  ];
}
