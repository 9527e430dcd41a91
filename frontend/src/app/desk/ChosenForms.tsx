// What can be done with several forms at once.
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Paper from "@mui/material/Paper";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { FormRowReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { OneOfField } from "../../ui/OneOfField";
import { PopoverButton } from "../../ui/PopoverButton";
import { labelsOf } from "./choosing";
import type { DeskActions } from "./useDesk";

const MOST_FILES = 50;

interface Props {
  forms: readonly FormRowReply[];
  /** All forms of the desk, for the labels that there are. */
  all: readonly FormRowReply[];
  actions: DeskActions;
  onDone: (ticked: ReadonlySet<string>) => void;
}

export function ChosenForms({ forms, all, actions, onDone }: Props) {
  return (
    <Paper
      variant="outlined"
      role="group"
      aria-label="With the forms that are ticked"
      sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 1, px: 2, py: 1, mb: 1.5 }}
    >
      <Typography sx={{ fontWeight: 650, mr: 1 }} role="status">
        {counted(forms.length, "form")} ticked
      </Typography>
      <PopoverButton label="Label" name="Label them" width={280} room={2} color="inherit">
        {(close) => <LabelThem forms={forms} all={all} actions={actions} onDone={close} />}
      </PopoverButton>
      <PopoverButton label="Give to" name="Give them to somebody" width={280} room={2} color="inherit">
        {(close) => <GiveThem forms={forms} actions={actions} onDone={close} />}
      </PopoverButton>
      <Button
        color="inherit"
        disabled={forms.length > MOST_FILES}
        title={forms.length > MOST_FILES ? `At most ${MOST_FILES} at once` : ""}
        onClick={() => actions.exportFiles(forms)}
      >
        Save as files
      </Button>
      <Button color="error" onClick={() => actions.remove(forms)}>
        Delete
      </Button>
      <Box sx={{ flex: 1 }} />
      <Button color="inherit" onClick={() => onDone(new Set())}>
        Tick none
      </Button>
    </Paper>
  );
}

type Part = Pick<Props, "forms" | "actions"> & { onDone: () => void };

function LabelThem({ forms, all, actions, onDone }: Part & Pick<Props, "all">) {
  const [label, setLabel] = useState("");
  const name = label.trim().replaceAll(/\s+/g, " ");
  const put = (on: boolean) => {
    actions.label(forms, name, on);
    onDone();
  };
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <Autocomplete
        freeSolo
        options={labelsOf(all)}
        inputValue={label}
        onInputChange={(_event, next) => setLabel(next.slice(0, 40))}
        renderInput={(params) => <TextField {...params} autoFocus label="Label" />}
      />
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button variant="contained" disabled={!name} onClick={() => put(true)}>
          Put it on
        </Button>
        <Button disabled={!forms.some(({ labels }) => labels.includes(name))} onClick={() => put(false)}>
          Take it off
        </Button>
      </Box>
    </Box>
  );
}

function GiveThem({ forms, actions, onDone }: Part) {
  const people = useQuery(queries.people()).data?.people ?? [];
  const [person, setPerson] = useState("");
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <OneOfField
        label="Person"
        value={person}
        none="Choose somebody"
        choices={people.map(({ id, name }) => ({ value: id, label: name }))}
        onPick={setPerson}
      />
      <Button
        variant="contained"
        disabled={!person}
        onClick={() => {
          actions.give(forms, person);
          onDone();
        }}
      >
        Give
      </Button>
    </Box>
  );
}
