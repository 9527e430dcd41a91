// What the server says once a response was received, for unit tests.
import type { ConfirmationFace, ReceivedReply } from "../api/generated/wire";

const PLAIN = {
  paragraphs: [],
  redirect: "",
  redirect_within: false,
  own_page: false,
  again: false,
  printing: false,
  sharing: false,
};

/** A reply whose confirmation has that title, and what else is said of it. */
export const receivedReply = (title = "Thank you", more: Partial<ConfirmationFace> = {}): ReceivedReply => ({
  number: 1,
  confirmation: { ...PLAIN, title, ...more },
  page: "/received/f/1/m",
  payment: null,
  order: null,
});
