// A page: its title and address, the words on its buttons, when it applies, and where the form goes on.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Entry } from "../../model/parts";
import { type SettingRow, SettingRows } from "../../ui/SettingRows";
import { useBench } from "../workbench/bench";
import { BehaviourSettings } from "./BehaviourSettings";
import { FormulaButton } from "./FormulaButton";
import { Heading, InspectorFrame } from "./InspectorFrame";
import type { ComposeActions } from "./actions";

const WORDS: readonly SettingRow[] = [
  { entry: "text", setting: "title", label: "Title", help: "{key} inserts a value" },
  {
    entry: "text",
    mono: true,
    setting: "address",
    label: "Address",
    help: "What stands behind the form’s address: your-visit",
  },
];
const BUTTONS: readonly SettingRow[] = [
  { entry: "text", setting: "next_label", label: "Button to go on", help: "Empty for the form’s own word" },
  { entry: "text", setting: "back_label", label: "Button to go back" },
];

interface Props {
  entry: Extract<Entry, { what: "page" }>;
  actions: ComposeActions;
}

export function PageSettings({ entry, actions }: Props) {
  const { select, parts } = useBench();
  const page = entry.part;
  // Not every letter that is typed makes an address: small letters, digits and single hyphens do.
  const edit = (changes: Record<string, unknown>) =>
    actions.edit(
      page.id,
      typeof changes.address === "string" ? { ...changes, address: asAddress(changes.address) } : changes,
    );
  const values = page as unknown as Record<string, unknown>;
  return (
    <InspectorFrame number={entry.number} what="Page" title={entry.title} actions={actions}>
      <SettingRows rows={WORDS} values={values} edit={edit} />
      <BehaviourSettings entry={entry} edit={edit} />
      <Box>
        <Heading>Goes on elsewhere</Heading>
        {page.next.map((rule, at) => (
          <FormulaButton
            key={at}
            part={page.id}
            title={`To ${rule.to === "" ? "the end" : `${parts.get(rule.to)?.number ?? ""} ${parts.get(rule.to)?.title ?? "a deleted page"}`} when`}
            setting={`next.${at}.when`}
            text={rule.when}
            absent="Say when"
          />
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
      <SettingRows rows={BUTTONS} values={values} edit={edit} />
    </InspectorFrame>
  );
}

const asAddress = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 60);
