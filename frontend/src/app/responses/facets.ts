// What every response has beside its answers, as columns are named.
export const FACET = {
  status: "response.status",
  tags: "response.tags",
  person: "response.person",
} as const;
