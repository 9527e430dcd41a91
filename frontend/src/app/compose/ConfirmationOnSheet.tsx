// A confirmation as visitors will read it; charts show what the answers that are tried give.
import { useQuery } from "@tanstack/react-query";
import type { MouseEvent } from "react";
import type { BarFace, Brand } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { RichText } from "../../fields/RichText";
import { Bars } from "../../form/Bars";
import { brandClasses } from "../../form/brand";
import type { Entry } from "../../model/parts";
import { useIntoSight } from "../../ui/useIntoSight";
import { isTried, useBench } from "../workbench/bench";
import { useOutcome } from "../workbench/useOutcome";

interface Props {
  entry: Extract<Entry, { what: "confirmation" }>;
  brand: Brand;
  chosen: boolean;
  select: (id: string, event: MouseEvent) => void;
}

export function ConfirmationOnSheet({ entry, brand, chosen, select }: Props) {
  const confirmation = entry.part;
  const place = useIntoSight(chosen);
  return (
    <div ref={place} className={`${brandClasses(brand)} sh-body`}>
      <div className="sh-block" data-chosen={chosen || undefined}>
        <button
          type="button"
          className="sh-select"
          aria-pressed={chosen}
          aria-label={`${entry.number} ${entry.title}, Confirmation`}
          onClick={(event) => select(entry.id, event)}
        />
        <span className="sh-number" aria-hidden="true">
          {entry.number}
        </span>
        <div className="sh-still" inert>
          <h2>{confirmation.redirect ? "Goes on to" : confirmation.title || entry.title}</h2>
          {confirmation.redirect && <p style={{ overflowWrap: "anywhere" }}>{confirmation.redirect}</p>}
          {!confirmation.redirect &&
            confirmation.paragraphs.map((piece, at) =>
              piece.chart ? (
                <ChartOnSheet key={at} place={`${confirmation.id}.${at}`} />
              ) : piece.picture ? (
                <figure key={at} className="cx-picture">
                  <img src={piece.picture} alt={piece.alternative} />
                </figure>
              ) : (
                <RichText key={at} html={piece.text} />
              ),
            )}
        </div>
      </div>
    </div>
  );
}

/** With the answers that are tried; where none are, with samples. */
function ChartOnSheet({ place }: { place: string }) {
  const { reply, saved, trying } = useBench();
  const tried = isTried(trying);
  const samples = useQuery({ ...queries.sampleOutcome(reply.id, saved.revision), enabled: !tried });
  const outcome = useOutcome(tried);
  const bars: BarFace[] = (tried ? outcome : samples.data)?.charts[place] ?? [];
  if (bars.length === 0)
    return <p className="cx-help">A chart, once there are answers and visitors may see the figure.</p>;
  return (
    <>
      <Bars bars={bars} />
      <p className="cx-help">With {tried ? trying.name : "sample answers"}</p>
    </>
  );
}
