/** What the events of a decision are called. */
export const SAID: Record<string, string> = {
  "decision asked": "Asked for a decision",
  approved: "Approved",
  denied: "Denied",
  "step approved": "Approved a step",
  "asked back": "Asked back",
  "sent again": "Sent once more by the visitor",
  remark: "Remarked",
};
