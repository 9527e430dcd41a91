// Brands of the team: used by many forms, changed in one place.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { SavedBrandReply } from "../../api/generated/wire";
import { api } from "../../api/client";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { AskFirst } from "../../ui/AskFirst";
import { useBench } from "../workbench/bench";

export function SavedBrands() {
  const { form, act, saved: draft } = useBench();
  const queryClient = useQueryClient();
  const found = useQuery(queries.brands());
  // How many forms use each changes with what is saved of this one.
  useEffect(
    () => void queryClient.invalidateQueries({ queryKey: queries.brands().queryKey }),
    [queryClient, draft.revision],
  );
  const [name, setName] = useState("");
  const done = () => queryClient.invalidateQueries({ queryKey: queries.brands().queryKey });
  const { follows } = form.brand;
  const wear = (saved: string, look = form.brand) =>
    act({ do: "edit_form", changes: { brand: { ...look, saved, follows } } });
  const save = useMutation({
    mutationFn: () => api.saveBrand(name, form.brand),
    onSuccess: ({ id }) => {
      wear(id);
      setName("");
      return done();
    },
  });
  const change = useMutation({
    mutationFn: (brand: SavedBrandReply) => api.changeBrand(brand.id, form.brand),
    onSuccess: (_reply, brand) => {
      wear(brand.id);
      return done();
    },
  });
  const remove = useMutation({ mutationFn: (brand: SavedBrandReply) => api.deleteBrand(brand.id), onSuccess: done });
  const problem = [save, change, remove].find((each) => each.isError)?.error;
  return (
    <>
      <Typography variant="body2" color="text.secondary">
        A saved brand belongs to the team. Once it is changed, forms that use it follow: at once, live forms too, or
        with their next edition, as each form has it.
      </Typography>
      {found.data?.brands.map((brand) => {
        const used = form.brand.saved === brand.id;
        return (
          <Box
            key={brand.id}
            role="group"
            aria-label={brand.name}
            sx={{ border: 1, borderColor: used ? "primary.main" : "divider", borderRadius: 1, p: 1.5 }}
          >
            <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
              <Box aria-hidden="true" sx={{ display: "flex", width: 64 }}>
                {[brand.look.accent, brand.look.banner ?? brand.look.accent, brand.look.ground, brand.look.ink].map(
                  (colour, at) => (
                    <Box key={at} sx={{ flex: 1, height: 24 }} style={{ backgroundColor: colour }} />
                  ),
                )}
              </Box>
              <Typography sx={{ flex: 1, fontWeight: 650 }}>{brand.name}</Typography>
              <Typography variant="body2" color="text.secondary">
                {counted(brand.forms, "form")}
                {brand.waiting > 0 && `, ${brand.waiting} by edition`}
              </Typography>
            </Box>
            {used && (
              <FormControlLabel
                sx={{ mt: 1 }}
                label="This form waits for its next edition when the brand changes"
                control={
                  <Switch
                    checked={follows === "edition"}
                    onChange={(_event, waits) =>
                      act({
                        do: "edit_form",
                        changes: { brand: { ...form.brand, follows: waits ? "edition" : "at_once" } },
                      })
                    }
                  />
                }
              />
            )}
            <Box sx={{ mt: 1 }}>
              <Button disabled={used} onClick={() => wear(brand.id, brand.look)}>
                {used ? "Used by this form" : "Use it here"}
              </Button>
              {!used && (
                <AskFirst
                  label="Make it look like this form"
                  color="inherit"
                  warning={warningOf(brand)}
                  onDone={() => change.mutate(brand)}
                />
              )}
              <AskFirst
                label="Delete"
                color="error"
                warning={`${brand.name} will be gone for good. Forms that use it keep the look they were saved with.`}
                onDone={() => remove.mutate(brand)}
              />
            </Box>
          </Box>
        );
      })}
      {found.data?.brands.length === 0 && <Typography>The team has no saved brand yet.</Typography>}
      <Box sx={{ display: "flex", gap: 1 }}>
        <TextField label="Save this look as" value={name} onChange={(event) => setName(event.target.value)} />
        <Button variant="outlined" disabled={name.trim() === ""} loading={save.isPending} onClick={() => save.mutate()}>
          Save
        </Button>
      </Box>
      {problem && (
        <Typography role="alert" color="error">
          {problem.message}
        </Typography>
      )}
    </>
  );
}

/** What changing a brand does, where any form uses it. */
function warningOf({ forms, waiting }: SavedBrandReply): string | null {
  const told = [
    forms > waiting && `${counted(forms - waiting, "form")} will look like this one at once.`,
    waiting > 0 && `${counted(waiting, "form")} will with the next edition.`,
  ].filter(Boolean);
  return told.length > 0 ? told.join(" ") : null;
}
