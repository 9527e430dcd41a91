// What somebody of a team can be, and what that means.
import type { TeammateReply } from "../../api/generated/wire";

export type Role = TeammateReply["role"];
export const ROLES: readonly Role[] = ["owner", "editor", "reviewer", "viewer"];
export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  owner: "everything, people, money and keys too",
  editor: "makes and publishes forms, keeps tables, works with responses",
  reviewer: "looks at forms, works with responses: marks them, notes, views",
  viewer: "looks at forms, and at no response",
};
