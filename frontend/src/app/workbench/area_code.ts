// The code of the areas beside Compose: it comes when one is gone to, and begins to when its tab is pointed at.
export const AREA_CODE = {
  slots: () => import("../slots/SlotsArea"),
  rules: () => import("../rules/Rules"),
  figures: () => import("../figures/Figures"),
  brand: () => import("../brand/BrandArea"),
  languages: () => import("../languages/LanguagesArea"),
  payment: () => import("../payment/PaymentArea"),
  "follow-ups": () => import("../follow_ups/FollowUps"),
  trials: () => import("../trials/Trials"),
  rehearsal: () => import("../trials/Rehearsal"),
  history: () => import("../history/HistoryArea"),
  preview: () => import("../preview/Preview"),
  responses: () => import("../responses/Responses"),
};

/** Has an area's code come, where it has code of its own. */
export const fetchArea = (area: string): void => void AREA_CODE[area as keyof typeof AREA_CODE]?.();

/** The areas that begin with what comes out of the answers that are tried. */
export const BEGINS_WITH_OUTCOME: ReadonlySet<string> = new Set(["rules", "figures"]);
