// Which forms are looked for: words, whose, with which labels; and filters that one keeps.
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Chip from "@mui/material/Chip";
import TextField from "@mui/material/TextField";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import type { DeskView, DeskViewReply, FormRowReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { same } from "../../model/same";
import { OneOfField } from "../../ui/OneOfField";
import { PopoverButton } from "../../ui/PopoverButton";
import { ALL, labelsOf, ownersOf } from "./choosing";

const LATELY = "opened";

interface Props {
  forms: readonly FormRowReply[];
  view: DeskView;
  views: readonly DeskViewReply[];
  onChange: (changes: Partial<DeskView>) => void;
}

export function DeskFilter({ forms, view, views, onChange }: Props) {
  const [owners, labels] = [ownersOf(forms), labelsOf(forms)];
  const queryClient = useQueryClient();
  const refresh = () => queryClient.invalidateQueries({ queryKey: queries.forms().queryKey });
  const forget = useMutation({ mutationFn: (name: string) => api.deleteDeskView(name), onSuccess: refresh });
  const isUsual = same(view, ALL);
  return (
    <>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "center", mb: 1.5 }}>
        <TextField
          type="search"
          label="Find a form"
          value={view.words}
          onChange={(event) => onChange({ words: event.target.value.slice(0, 100) })}
          sx={{ width: 220 }}
        />
        {owners.size > 1 && (
          <Box sx={{ width: 170, display: "grid" }}>
            <OneOfField
              label="Whose"
              value={view.owner}
              none="everybody’s"
              choices={[...owners].map(([value, label]) => ({ value, label }))}
              gone="somebody who is gone"
              onPick={(owner) => onChange({ owner })}
            />
          </Box>
        )}
        {labels.length > 0 && (
          <Autocomplete
            multiple
            size="small"
            options={labels}
            value={view.labels}
            onChange={(_event, next) => onChange({ labels: next })}
            renderInput={(params) => <TextField {...params} label="Labels" />}
            sx={{ minWidth: 180, maxWidth: 360 }}
          />
        )}
        <Button
          color={view.sort === LATELY ? "primary" : "inherit"}
          aria-pressed={view.sort === LATELY}
          onClick={() => onChange({ sort: view.sort === LATELY ? "" : LATELY })}
        >
          Opened lately first
        </Button>
        {!isUsual && (
          <>
            <KeepFilter view={view} onKept={refresh} />
            <Button color="inherit" onClick={() => onChange(ALL)}>
              Show all
            </Button>
          </>
        )}
      </Box>
      {views.length > 0 && (
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mb: 1.5 }} role="group" aria-label="Filters you keep">
          {views.map((kept) => (
            <Chip
              key={kept.name}
              label={kept.name}
              color={same(kept.view, view) ? "primary" : "default"}
              aria-pressed={same(kept.view, view)}
              onClick={() => onChange(kept.view)}
              onDelete={() => forget.mutate(kept.name)}
            />
          ))}
        </Box>
      )}
    </>
  );
}

function KeepFilter({ view, onKept }: { view: DeskView; onKept: () => void }) {
  const [name, setName] = useState("");
  const keep = useMutation({ mutationFn: () => api.saveDeskView(name, view), onSuccess: onKept });
  return (
    <PopoverButton label="Keep this filter" name="Keep this filter" width={280} room={2} color="inherit">
      {(close) => (
        <Box
          component="form"
          sx={{ display: "grid", gap: 1.5 }}
          onSubmit={(event) => {
            event.preventDefault();
            keep.mutate(undefined, {
              onSuccess: () => {
                setName("");
                close();
              },
            });
          }}
        >
          <TextField
            autoFocus
            label="Called"
            value={name}
            error={keep.isError}
            helperText={keep.error?.message}
            slotProps={{ htmlInput: { maxLength: 60 } }}
            onChange={(event) => setName(event.target.value)}
          />
          <Button type="submit" variant="contained" disabled={!name.trim()} loading={keep.isPending}>
            Keep
          </Button>
        </Box>
      )}
    </PopoverButton>
  );
}
