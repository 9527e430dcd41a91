// What the form says by itself on one occasion ("Payment", "Orders"), in the author's words; empty means the usual ones.
import TextField from "@mui/material/TextField";
import messages from "../../api/generated/messages.json";
import { useWordsOf } from "./words_of";
import { useBench } from "../workbench/bench";

export const GROUPS = [...new Set(messages.map((message) => message.group))];

/** How many messages of a group have words of the author's. */
export const ownWordsIn = (group: string, own: Readonly<Record<string, string>>): number =>
  messages.filter((message) => message.group === group && message.name in own).length;

export function MessageGroup({ group }: { group: string }) {
  const { form, act, analysis, mayEdit } = useBench();
  const { wording } = form;
  const words = useWordsOf(form);
  const say = (name: string, words: string) => {
    const rest = Object.fromEntries(Object.entries(wording.messages).filter(([each]) => each !== name));
    const changed = words === "" ? rest : { ...rest, [name]: words };
    act({ do: "edit_form", changes: { wording: { ...wording, messages: changed } } });
  };
  return messages
    .filter((message) => message.group === group)
    .map(({ name, when, usual }) => {
      const wrong = analysis.findings.find((finding) => finding.setting === `wording.messages.${name}`);
      const values = [...usual.matchAll(/\{\w+\}/g)].join(", ");
      return (
        <TextField
          key={name}
          label={when}
          disabled={!mayEdit}
          value={wording.messages[name] ?? ""}
          placeholder={words.usual(name) || "The usual words, with an example"}
          error={wrong !== undefined}
          helperText={wrong?.message ?? (values ? `Keep ${values}: it stands for a value` : undefined)}
          onChange={(event) => say(name, event.target.value)}
          slotProps={{ inputLabel: { shrink: true } }}
        />
      );
    });
}
