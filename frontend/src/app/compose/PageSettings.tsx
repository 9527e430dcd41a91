// A page: its title and address, the words on its buttons, when it applies, and where the form goes on.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { moved } from "../../fields/table_pieces";
import type { Entry } from "../../model/parts";
import { MONO } from "../../theme/theme";
import { type SettingRow, SettingRows } from "../../ui/SettingRows";
import { useBench } from "../workbench/bench";
import { useNameOf } from "../workbench/names_seen";
import { BehaviourSettings } from "./BehaviourSettings";
import { FormulaButton } from "./FormulaButton";
import { Heading, InspectorFrame } from "./InspectorFrame";
import type { ComposeActions } from "./actions";

const WORDS: readonly SettingRow[] = [
  { entry: "text", setting: "title", label: "Title", help: "{ inserts a value", values: true },
];
const ONWARDS: SettingRow = {
  entry: "text",
  setting: "next_label",
  label: "Button to go on",
  help: "Empty for the form’s own word",
};
const BACK: SettingRow = {
  entry: "text",
  setting: "back_label",
  label: "Button to go back",
  help: "Empty for the form’s own word",
};

interface Props {
  entry: Extract<Entry, { what: "page" }>;
  actions: ComposeActions;
}

export function PageSettings({ entry, actions }: Props) {
  const { select, form } = useBench();
  const nameOf = useNameOf();
  const page = entry.part;
  const edit = (changes: Record<string, unknown>) => actions.edit(page.id, changes);
  // From the last page nobody goes on, nor back from the first; words that were written for it stay in sight.
  const isLast = form.pages.at(-1)?.id === page.id && page.next_label === "";
  const isFirst = form.pages[0]?.id === page.id && page.back_label === "";
  const buttons = [...(isLast ? [] : [ONWARDS]), ...(isFirst ? [] : [BACK])];
  return (
    <InspectorFrame number={entry.number} what="Page" title={entry.title} actions={actions} duplicable>
      <SettingRows rows={WORDS} of={page} edit={edit} />
      <PageAddress value={page.address} onChange={(address) => edit({ address })} />
      <BehaviourSettings entry={entry} edit={edit} />
      <Box>
        <Heading>Goes on elsewhere</Heading>
        {page.next.map((rule, at) => (
          <Box key={at} sx={{ display: "grid", gridTemplateColumns: "minmax(0,1fr) 24px", gap: 0.5 }}>
            <FormulaButton
              part={page.id}
              title={`To ${rule.to === "" ? "the end" : nameOf(rule.to, "a deleted page")} when`}
              setting={`next.${at}.when`}
              text={rule.when}
              absent="Say when"
            />
            {at > 0 && (
              <IconButton
                aria-label={`Move rule ${at + 1} up`}
                title="The first that holds leads on"
                onClick={() => edit({ next: moved(page.next, at, at - 1) })}
                sx={{ width: 24, height: 24, fontSize: 14 }}
              >
                ↑
              </IconButton>
            )}
          </Box>
        ))}
        <Button
          onClick={() => {
            actions.edit(page.id, { next: [...page.next, { when: "", to: "" }] });
            select(page.id, `next.${page.next.length}.when`);
          }}
        >
          Add a rule for the next page
        </Button>
      </Box>
      <SettingRows rows={buttons} of={page} edit={edit} />
    </InspectorFrame>
  );
}

/** What stands behind the form's address; kept as small letters, digits and single hyphens, whatever is typed. */
function PageAddress({ value, onChange }: { value: string; onChange: (address: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <TextField
      label="Address"
      value={typed ?? value}
      helperText="What stands behind the form’s address: your-visit"
      onChange={(event) => {
        setTyped(event.target.value);
        onChange(asAddress(event.target.value));
      }}
      onBlur={() => setTyped(null)}
      slotProps={{ htmlInput: { spellCheck: false, style: { fontFamily: MONO, fontSize: 13 } } }}
    />
  );
}

const asAddress = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 60);
