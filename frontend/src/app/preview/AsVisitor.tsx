// As whom a draft is looked at: a guest, oneself, or a member, found by name. Nobody is signed out for it.
import Autocomplete from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { TrialVisitor } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { useSignedIn } from "../signed_in";
import { GUEST as NOBODY } from "../workbench/bench";

export interface As {
  /** What the server knows them by: "" for a guest. */
  known: string;
  name: string;
  /** What formulas know of them. */
  facts: TrialVisitor;
}

export const GUEST: As = { known: "", name: "A guest", facts: NOBODY };
const MOST = 30;

interface Props {
  label: string;
  value: As;
  onChange: (as: As) => void;
  disabled?: boolean;
}

export function AsVisitor({ label, value, onChange, disabled }: Props) {
  const who = useSignedIn();
  const [words, setWords] = useState("");
  const table = useQuery(queries.roll()).data?.table ?? null;
  const searched = words === value.name ? "" : words;
  const found = useQuery({
    ...queries.records(table ?? "", { words: searched, sort: "name", first: "0", most: String(MOST) }),
    enabled: table !== null,
    placeholderData: keepPreviousData,
  });
  const groups = useQuery(queries.groups()).data?.groups ?? [];
  // A name may have a comma in it.
  const codesIn = (labels = "") =>
    groups.filter(({ name }) => `, ${labels}, `.includes(`, ${name}, `)).map(({ code }) => code);
  const members = (found.data?.records ?? []).map(({ number, name, cells }): As => ({
    known: `member.${number}`,
    name,
    facts: { email: cells.email ?? "", name, groups: codesIn(cells.groups) },
  }));
  const inside = groups.filter(({ people }) => people.includes(who.person_id)).map(({ code }) => code);
  const me: As = {
    known: "me",
    name: `You, ${who.person_name}`,
    facts: { email: who.email, name: who.person_name, groups: inside },
  };
  return (
    <Autocomplete
      options={[GUEST, me, ...members]}
      value={value}
      disableClearable
      disabled={disabled}
      getOptionKey={({ known }) => known}
      getOptionLabel={({ name }) => name}
      isOptionEqualToValue={(one, other) => one.known === other.known}
      onInputChange={(_event, typed) => setWords(typed)}
      onChange={(_event, chosen) => onChange(chosen)}
      slotProps={{ popper: { style: { width: 260 }, placement: "bottom-start" } }}
      sx={{ width: 150 }}
      renderInput={(params) => <TextField {...params} label={label} />}
    />
  );
}
