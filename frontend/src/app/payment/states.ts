// How payments and plans stand, and what happens to them, in words.
export const STATES: Record<string, string> = {
  due: "not paid yet",
  paid: "paid",
  failed: "declined",
  expired: "expired",
  "part refunded": "partly given back",
  refunded: "given back",
};

export const PLAN_STATES: Record<string, string> = {
  waiting: "a plan begins with it",
  running: "its plan runs",
  stopping: "its plan is being stopped",
  stopped: "its plan was stopped",
  ended: "its plan has ended",
};
