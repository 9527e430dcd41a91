// Forms and what stands in them, found by typing from anywhere.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import { useNavigate } from "react-router";
import { api } from "../../api/client";
import { queries } from "../../api/queries";
import type { Doable } from "../../ui/FindDialog";
import { useSignedIn } from "../signed_in";
import { ALL, chosen, sorted } from "./choosing";
import { openedLately } from "./opened_lately";
import { stateOf } from "./state";

const MOST_FORMS = 12;
const FEWEST_LETTERS = 2;

/** What a search finds in all forms but one; without words the forms that were open lately. */
export function useFormsFound(search: string, without = ""): Doable[] {
  const navigate = useNavigate();
  const who = useSignedIn();
  const words = useDeferredValue(search.trim());
  const forms = useQuery(queries.forms()).data?.forms ?? [];
  const parts = useQuery({
    queryKey: ["parts of forms", words],
    queryFn: () => api.findParts(words),
    enabled: words.length >= FEWEST_LETTERS,
    placeholderData: keepPreviousData,
  });
  const others = chosen(forms, { ...ALL, words }).filter(({ id }) => id !== without);
  const named = sorted(others, "opened", openedLately(who.person_id))
    .slice(0, MOST_FORMS)
    .map((form): Doable => ({
      id: `form-${form.id}`,
      group: "Forms",
      title: form.name,
      detail: stateOf(form),
      run: () => void navigate(`/forms/${form.id}/compose`),
    }));
  const inside = (words.length >= FEWEST_LETTERS ? (parts.data?.parts ?? []) : [])
    .filter(({ form }) => form !== without)
    .map((each): Doable => ({
      id: `part-${each.form}-${each.part}`,
      group: "In forms",
      title: `${each.number} ${each.title || each.key}`.trim(),
      detail: each.form_name,
      run: () => void navigate(`/forms/${each.form}/compose`, { state: { part: each.part } }),
    }));
  return [...named, ...inside];
}
