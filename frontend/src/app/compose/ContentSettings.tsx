// What a block says: its label and help; and the key that formulas use.
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useEffect, useRef } from "react";
import { titleSetting, typedTitle } from "../../model/blocks";
import type { Entry } from "../../model/parts";
import { oneLine } from "../../text/words";
import { useBench } from "../workbench/bench";
import { Heading } from "./InspectorFrame";
import { OrderSettings } from "./OrderSettings";
import { KeySetting } from "./KeySetting";
import { QuantityProduct } from "./QuantityProduct";
import type { ComposeActions } from "./actions";
import { LongTextField } from "../../ui/LongTextField";

interface Props {
  entry: Extract<Entry, { what: "block" }>;
  actions: ComposeActions;
  focusLabel: boolean;
}

export function ContentSettings({ entry, actions, focusLabel }: Props) {
  const block = entry.part;
  const label = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!focusLabel) return;
    label.current?.focus();
    label.current?.select();
  }, [focusLabel]);
  // A text block's text has an editor of its own.
  const setting = block.type === "text" ? null : titleSetting(block);
  const Title = setting === "label" ? TextField : LongTextField;
  return (
    <>
      {setting && (
        <Title
          inputRef={label}
          label={setting === "label" ? "Label" : "Text"}
          value={typedTitle(block)}
          slotProps={{ htmlInput: { "data-values": entry.kind ?? "" } }}
          onChange={(event) => actions.editLabel(block.id, oneLine(event.target.value))}
        />
      )}
      {"help" in block && (
        <LongTextField
          label="Help below the field"
          value={block.help}
          helperText="{ inserts a value, here and in the label"
          attributes={{ "data-values": entry.kind ?? "" }}
          onChange={(event) => actions.edit(block.id, { help: event.target.value })}
        />
      )}
      <KeySetting id={block.id} value={block.key} actions={actions} />
      {block.type === "order_summary" && <OrderSettings />}
      {block.type === "quantity" && <QuantityProduct block={block} actions={actions} />}
      {block.type === "repeat" && <RowKinds entry={entry} actions={actions} />}
    </>
  );
}

function RowKinds({ entry, actions }: Pick<Props, "entry" | "actions">) {
  const { select, parts } = useBench();
  const repeat = entry.part;
  if (repeat.type !== "repeat") return null;
  return (
    <div>
      <Heading>Kinds of rows</Heading>
      {repeat.kinds.map((kind) => (
        <Button
          key={kind.id}
          fullWidth
          color="inherit"
          onClick={() => select(kind.id)}
          sx={{ justifyContent: "flex-start" }}
        >
          {parts.get(kind.id)?.number} {kind.label || kind.key} · {kind.blocks.length} blocks
        </Button>
      ))}
      <Button onClick={() => actions.addRowKind(repeat.id)}>Add a row kind</Button>
    </div>
  );
}
