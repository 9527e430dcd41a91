// Whether two values of a form say the same, whatever the order in which their settings are written.
import equal from "fast-deep-equal";

export const same = (one: unknown, other: unknown): boolean => one === other || equal(one, other);
