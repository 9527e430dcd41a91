// The chart of a score or a profile: a bar for each part, with its value in words.
import type { BarFace } from "../api/generated/wire";

export function Bars({ bars }: { bars: readonly BarFace[] }) {
  return (
    <dl className="cx-bars">
      {bars.map((bar) => (
        <div key={bar.label}>
          <dt>{bar.label}</dt>
          <dd>
            <span className="cx-bar-track" aria-hidden="true">
              <span style={{ inlineSize: `${bar.share * 100}%` }} />
            </span>
            {bar.text}
          </dd>
        </div>
      ))}
    </dl>
  );
}
