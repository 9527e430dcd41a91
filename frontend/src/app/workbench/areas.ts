// The areas of the workbench, in the order of their tabs.
export const AREAS = [
  { name: "compose", title: "Compose" },
  { name: "slots", title: "Slots" },
  { name: "rules", title: "Rules" },
  { name: "figures", title: "Figures" },
  { name: "brand", title: "Brand" },
  { name: "languages", title: "Languages" },
  { name: "payment", title: "Payment" },
  { name: "follow-ups", title: "Follow-ups" },
  { name: "trials", title: "Trials" },
  { name: "publish", title: "Publish" },
  { name: "responses", title: "Responses" },
] as const;

/** What was: at the end of the tabs, for it is no step of making a form. */
export const HISTORY = { name: "history", title: "History" } as const;
