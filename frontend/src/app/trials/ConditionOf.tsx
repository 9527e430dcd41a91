// A condition of a form with whose it is: "2.3 Telescope time  shown when …".
import { SERIF } from "../../theme/theme";
import { Sentence } from "../compose/Margin";
import { useBench } from "../workbench/bench";
import { useNameOf } from "../workbench/names_seen";

export function ConditionOf({ owner, setting }: { owner: string; setting: string }) {
  const { parts, analysis } = useBench();
  const nameOf = useNameOf();
  const note = analysis.notes[owner]?.find((each) => each.setting === setting);
  const entry = parts.get(owner);
  return (
    <>
      {entry ? (
        <>
          <span style={{ fontFamily: SERIF }}>{entry.number}</span> <b>{entry.title}</b>
        </>
      ) : (
        <b>{nameOf(owner, "the form")}</b>
      )}{" "}
      {note && <Sentence words={note.words} parts={parts} />}
    </>
  );
}
