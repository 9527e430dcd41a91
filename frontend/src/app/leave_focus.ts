// Taking the focus from something for good, such as a name once it is typed: it does not come back by itself.

/** What tells whoever watches over the focus. */
export const LEFT = "codexa-left";

export function leaveFocus(element: HTMLElement): void {
  element.blur();
  dispatchEvent(new Event(LEFT));
}
