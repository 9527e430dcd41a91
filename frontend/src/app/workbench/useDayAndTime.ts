// Times as the form's people read them: in its own time zone, wherever the reader sits.
import { useContext } from "react";
import { asDayAndTime } from "../../text/words";
import { BenchContext } from "./bench";

/** Writes a moment in the time zone of the form that is open; of the reader where none is. */
export function useDayAndTime(): (iso: string) => string {
  const zone = useContext(BenchContext)?.form.time_zone;
  return (iso) => asDayAndTime(iso, zone);
}
