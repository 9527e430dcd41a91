// Every setting of the selected block.
import Tab from "@mui/material/Tab";
import Tabs from "@mui/material/Tabs";
import { useEffect, useState } from "react";
import { SETTINGS, type SettingsTab } from "../../fields/settings";
import { type BlockKind, typeOf } from "../../model/blocks";
import { isWordRead } from "../../model/outline";
import type { Entry } from "../../model/parts";
import { type SettingRow, SettingRows } from "../../ui/SettingRows";
import { useBench } from "../workbench/bench";
import { AnswersLately } from "./AnswersLately";
import { BehaviourSettings } from "./BehaviourSettings";
import { CheckSettings } from "./CheckSettings";
import { ContentSettings } from "./ContentSettings";
import { FormulaButtons } from "./FormulaButtons";
import { InspectorFrame } from "./InspectorFrame";
import { RecordChoiceSettings } from "./RecordChoiceSettings";
import { SlotSettings } from "./SlotSettings";
import { TypeMenu } from "./TypeMenu";
import type { ComposeActions } from "./actions";

/** The tab on which a setting stands, by the first word of its path. */
const TABS: Record<string, SettingsTab> = {
  label: "content",
  key: "content",
  text: "content",
  options: "answers",
  kinds: "content",
  limits: "checks",
  minimum: "checks",
  min_rows: "checks",
  checks: "checks",
  keep_when_hidden: "behaviour",
  personal: "behaviour",
  price: "answers",
  priced_by: "answers",
  places: "answers",
  taking: "answers",
  picture: "answers",
  table: "answers",
  shown_as: "answers",
  ordered_by: "answers",
  stock: "answers",
  product: "content",
  least: "checks",
  prices: "answers",
  default_follows: "behaviour",
};

export const WIDTH: SettingRow = {
  entry: "choice",
  setting: "width",
  label: "Width",
  options: {
    full: "The whole line",
    half: "Half of the line",
    third: "A third of the line",
    quarter: "A quarter of the line",
  },
  help: "Parts that follow each other share a line; on phones each has its own.",
};

const PRICES = [{ setting: "priced_by", title: "Each costs", absent: "Its price; or work it out" }] as const;

interface Props {
  entry: Extract<Entry, { what: "block" }>;
  actions: ComposeActions;
}

/** Apart from the settings: MUI measures its tabs whenever they are drawn, which no letter typed below needs. */
function SettingsTabs(props: { kind: BlockKind; shown: SettingsTab; onChange: (tab: SettingsTab) => void }) {
  return (
    <Tabs
      value={props.shown}
      onChange={(_event, next: SettingsTab) => props.onChange(next)}
      aria-label="Settings"
      sx={{ px: 1, mt: 0.5, borderBottom: 1, borderColor: "divider", "@media (max-width: 1160px)": { px: 0.5 } }}
    >
      {tabsOf(props.kind).map((name) => (
        <Tab
          key={name}
          value={name}
          label={name[0]!.toUpperCase() + name.slice(1)}
          id={`tab-${name}`}
          aria-controls="settings-panel"
          sx={{ px: 0.75, fontSize: 13, "@media (max-width: 1160px)": { px: 0.5, fontSize: 12 } }}
        />
      ))}
    </Tabs>
  );
}

function tabsOf(kind: BlockKind): SettingsTab[] {
  const { Answers, answers } = SETTINGS[kind];
  const there: [SettingsTab, boolean][] = [
    ["content", true],
    ["answers", Boolean(Answers ?? answers)],
    ["behaviour", true],
    ["checks", "checks" in typeOf(kind).blank],
    ["look", true],
  ];
  return there.flatMap(([name, is]) => (is ? [name] : []));
}

export function BlockSettings({ entry, actions }: Props) {
  const { setting, select, form, reply } = useBench();
  const block = entry.part;
  const wanted = setting ? TABS[setting.split(".")[0]!] : undefined;
  const [tab, setTab] = useState<SettingsTab>(wanted ?? "content");
  useEffect(() => {
    if (wanted) setTab(wanted);
  }, [wanted, setting]);
  const special = SETTINGS[block.type];
  const { Content, Answers } = special;
  const edit = (changes: Record<string, unknown>) => actions.edit(block.id, changes);
  const props = {
    block,
    edit,
    open: (path: string) => select(block.id, path),
    rename: (path: string, name: string) => actions.rename(block.id, path, name),
    mayFollow: (code: string) => reply.live_edition === null && !isWordRead(form, code),
  };
  const available = tabsOf(block.type);
  const shown = available.includes(tab) ? tab : "content";
  const rows = (list: readonly SettingRow[] | undefined) =>
    list ? <SettingRows rows={list} of={block} edit={edit} /> : null;
  return (
    <InspectorFrame
      number={entry.number}
      what={typeOf(block.type).title}
      menu={<TypeMenu block={block} actions={actions} />}
      name={block.key}
      title={entry.title}
      actions={actions}
      duplicable
      tabs={<SettingsTabs kind={block.type} shown={shown} onChange={setTab} />}
    >
      {shown === "content" && (
        <>
          <ContentSettings entry={entry} actions={actions} focusLabel={setting === "label"} />
          {Content && <Content {...props} />}
          {rows(special.content)}
        </>
      )}
      {shown === "answers" && (
        <>
          {Answers && <Answers {...props} />}
          {block.type === "product" && <FormulaButtons entry={entry} formulas={PRICES} />}
          {block.type === "record_choice" && <RecordChoiceSettings block={block} actions={actions} />}
          {block.type === "slot" && <SlotSettings block={block} actions={actions} />}
          {rows(special.answers)}
          <AnswersLately block={block} />
        </>
      )}
      {shown === "behaviour" && <BehaviourSettings entry={entry} edit={edit} />}
      {shown === "checks" && (
        <>
          {rows(special.checks)}
          <CheckSettings entry={entry} actions={actions} />
        </>
      )}
      {shown === "look" && (
        <>
          {rows([WIDTH])}
          {rows(special.look)}
        </>
      )}
    </InspectorFrame>
  );
}
