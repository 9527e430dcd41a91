// The payments of all forms, on a page of their own.
import { Single } from "../Single";
import { Payments } from "./Payments";

export const AllPayments = () => (
  <Single title="Payments of all forms">
    <Payments form={null} />
  </Single>
);
