// As whom a draft is looked at: a guest, oneself, or a member, found by name. Nobody is signed out for it.
import Autocomplete from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { queries } from "../../api/queries";
import { useSignedIn } from "../signed_in";

export interface As {
  /** What the server knows it by: "" for a guest. */
  visitor: string;
  name: string;
}

export const GUEST: As = { visitor: "", name: "A guest" };
const MOST = 30;

export function AsVisitor({ value, onChange }: { value: As; onChange: (as: As) => void }) {
  const who = useSignedIn();
  const [words, setWords] = useState("");
  const table = useQuery(queries.roll()).data?.table ?? null;
  const searched = words === value.name ? "" : words;
  const found = useQuery({
    ...queries.records(table ?? "", { words: searched, sort: "name", first: "0", most: String(MOST) }),
    enabled: table !== null,
    placeholderData: keepPreviousData,
  });
  const members = (found.data?.records ?? []).map(({ number, name }) => ({ visitor: `member.${number}`, name }));
  return (
    <Autocomplete
      options={[GUEST, { visitor: "me", name: `You, ${who.person_name}` }, ...members]}
      value={value}
      disableClearable
      getOptionKey={({ visitor }) => visitor}
      getOptionLabel={({ name }) => name}
      isOptionEqualToValue={(one, other) => one.visitor === other.visitor}
      onInputChange={(_event, typed) => setWords(typed)}
      onChange={(_event, chosen) => onChange(chosen)}
      slotProps={{ popper: { style: { width: 260 }, placement: "bottom-start" } }}
      sx={{ width: 150 }}
      renderInput={(params) => <TextField {...params} label="Seen by" />}
    />
  );
}
