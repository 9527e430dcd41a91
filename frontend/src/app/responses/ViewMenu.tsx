// Saved views of the team: opened, saved anew or under another name, one of them first.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Divider from "@mui/material/Divider";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import MenuList from "@mui/material/MenuList";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { ViewReply } from "../../api/generated/wire";
import { AskFirst } from "../../ui/AskFirst";
import { PopoverButton } from "../../ui/PopoverButton";
import { mayEdit, useSignedIn } from "../signed_in";
import { Feeds } from "./Feeds";
import { contentOf, type Look, lookOfContent } from "./look";

interface Props {
  formId: string;
  views: readonly ViewReply[];
  look: Look;
  onLook: (changes: Partial<Look>) => void;
}

export function ViewMenu({ formId, views, look, onLook }: Props) {
  const who = useSignedIn();
  const open = views.find((each) => each.id === look.view);
  const changed = open !== undefined && !isSame(look, open);
  return (
    <PopoverButton
      variant="outlined"
      color="inherit"
      label={`View: ${open ? open.name : "All responses"}${changed ? " · changed" : ""} ▾`}
      name="Views"
      width={380}
    >
      {() => (
        <>
          <MenuList aria-label="Saved views" sx={{ py: 0 }}>
            <MenuItem selected={!look.view} onClick={() => onLook({ ...lookOfContent(EMPTY, ""), shown: look.shown })}>
              All responses
            </MenuItem>
            {views.map((view) => (
              <MenuItem
                key={view.id}
                selected={view.id === look.view}
                onClick={() => onLook(lookOfContent(view.content, view.id))}
              >
                {view.name}
                {view.opens_first && (
                  <Box component="span" sx={{ color: "text.secondary", ml: 1 }}>
                    opens first
                  </Box>
                )}
              </MenuItem>
            ))}
          </MenuList>
          <Divider sx={{ my: 1 }} />
          <Saving formId={formId} open={open} changed={changed} look={look} onLook={onLook} />
          {open && mayEdit(who) && (
            <>
              <Divider sx={{ my: 1 }} />
              <Feeds formId={formId} view={open} />
            </>
          )}
        </>
      )}
    </PopoverButton>
  );
}

const EMPTY: ViewReply["content"] = {
  shown: "table",
  filter: { match: "all", conditions: [], words: "" },
  columns: [],
  fixed: 0,
  widths: {},
  sorts: [],
  board_by: "",
  cards: [],
  charts: [],
  apart: "width",
  window: "",
  presentation: "",
};

/** Whether what is looked at is what the view keeps. */
const isSame = (look: Look, view: ViewReply): boolean =>
  JSON.stringify(contentOf(look)) === JSON.stringify(contentOf(lookOfContent(view.content, view.id)));

interface SavingProps extends Omit<Props, "views"> {
  open: ViewReply | undefined;
  changed: boolean;
}

function Saving({ formId, open, changed, look, onLook }: SavingProps) {
  const queryClient = useQueryClient();
  const [name, setName] = useState(open?.name ?? "");
  const [first, setFirst] = useState(open?.opens_first ?? false);
  const refresh = () => queryClient.invalidateQueries({ queryKey: ["views", formId] });
  const save = useMutation({
    mutationFn: (view: string) =>
      api.saveView(formId, view, { name: name.trim(), content: contentOf(look), opens_first: first }),
    onSuccess: async ({ id }) => {
      await refresh();
      onLook({ view: id });
    },
  });
  const forget = useMutation({
    mutationFn: () => api.deleteView(formId, look.view),
    onSuccess: async () => {
      onLook({ view: "" });
      await refresh();
    },
  });
  const renamed = open && (name.trim() !== open.name || first !== open.opens_first);
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim()) save.mutate(open && name.trim() === open.name ? open.id : "");
      }}
      sx={{ px: 2, display: "grid", gap: 1 }}
    >
      <TextField
        label="Name of this view"
        value={name}
        onChange={(event) => setName(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 100 } }}
      />
      <FormControlLabel
        control={<Switch checked={first} onChange={(_event, on) => setFirst(on)} />}
        label="Opens first, for the whole team"
      />
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        <Button type="submit" variant="contained" disabled={!name.trim() || (open && !changed && !renamed)}>
          {open && name.trim() === open.name ? "Save it so" : "Save as a new view"}
        </Button>
        {open && name.trim() !== open.name && (
          <Button color="inherit" disabled={!name.trim()} onClick={() => save.mutate(open.id)}>
            Rename
          </Button>
        )}
      </Box>
      {open && (
        <AskFirst
          label="Remove this view"
          color="inherit"
          warning="The whole team has it no more, and its live feeds give nothing. Responses stay as they are."
          onDone={() => forget.mutate()}
        />
      )}
      {(save.isError || forget.isError) && (
        <Box role="alert" sx={{ color: "error.main" }}>
          {reasonOf(save.error ?? forget.error)}
        </Box>
      )}
    </Box>
  );
}
