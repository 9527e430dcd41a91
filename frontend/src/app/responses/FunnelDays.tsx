// Visits by day, of long times by month: how many saw the form, and how many of them sent it.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { FunnelReply, VisitSumsReply } from "../../api/generated/wire";
import { share } from "../../text/visits";

const [WIDTH, HEIGHT] = [840, 120];
const DAY_MS = 86_400_000;

interface Mark {
  label: string;
  seen: number;
  sent: number;
}

export function Days({ days, by_month }: Pick<FunnelReply, "days" | "by_month">) {
  const by = by_month ? "month" : "day";
  const marks = marksOf(days, by);
  const most = Math.max(1, ...marks.map(({ seen }) => seen));
  const step = WIDTH / marks.length;
  const [first, last] = [marks[0]!, marks.at(-1)!];
  const heightOf = (count: number) => (count / most) * HEIGHT;
  const told = `From ${first.label} to ${last.label}, at most ${most.toLocaleString("en")} visitors in a ${by}.`;
  return (
    <>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label={told}>
        {marks.map(({ label, seen, sent }, at) => (
          <g key={label}>
            <title>{`${label}: ${seen} saw it, ${sent} sent it (${share(sent, seen)})`}</title>
            {(["noteTint", "note"] as const).map((colour) => (
              <Box
                key={colour}
                component="rect"
                x={at * step}
                y={HEIGHT - heightOf(colour === "note" ? sent : seen)}
                width={Math.max(step - 1, 1)}
                height={heightOf(colour === "note" ? sent : seen)}
                sx={{ fill: ({ palette }) => palette[colour].calculation }}
              />
            ))}
          </g>
        ))}
      </svg>
      <Box sx={{ display: "flex", justifyContent: "space-between" }}>
        <Typography variant="caption" color="text.secondary">
          {first.label}
        </Typography>
        <Typography variant="caption" color="text.secondary">
          each bar a {by}; the full part sent it
        </Typography>
        <Typography variant="caption" color="text.secondary">
          {last.label}
        </Typography>
      </Box>
    </>
  );
}

/** Days without visits are there too. What is long ago is only known by month: many days are told by months. */
function marksOf(days: readonly VisitSumsReply[], by: "day" | "month"): Mark[] {
  const [first, last] = [atMidnight(days[0]!.value), atMidnight(days.at(-1)!.value)];
  const count = Math.round((last - first) / DAY_MS) + 1;
  const marks = new Map<string, Mark>();
  const markOf = (day: string): Mark => {
    const label = inWords(day, by);
    if (!marks.has(label)) marks.set(label, { label, seen: 0, sent: 0 });
    return marks.get(label)!;
  };
  for (let at = 0; at < count; at++) markOf(new Date(first + at * DAY_MS).toISOString().slice(0, 10));
  for (const { value, seen, sent } of days) {
    const mark = markOf(value);
    mark.seen += seen;
    mark.sent += sent;
  }
  return [...marks.values()];
}

const atMidnight = (day: string): number => Date.parse(`${day}T00:00:00Z`);

const inWords = (day: string, by: "day" | "month"): string =>
  new Date(atMidnight(day)).toLocaleDateString("en-GB", {
    ...(by === "day" ? { day: "numeric", month: "short" } : { month: "short", year: "numeric" }),
    timeZone: "UTC",
  });
