// The sections of Publish, in the order of the work.
export const SECTIONS = [
  { id: "editions", title: "Editions" },
  { id: "link", title: "Link" },
  { id: "website", title: "On a website" },
  { id: "who", title: "Who and when" },
  { id: "values", title: "Links with values" },
] as const;

export type SectionId = (typeof SECTIONS)[number]["id"];
