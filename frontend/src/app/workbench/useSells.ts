// Whether a form sells anything.
import type { Block } from "../../model/blocks";
import { useBench } from "./bench";

/** Whether anything in the form has a price, or its order has settings. */
export function useSells(): boolean {
  const { form, parts } = useBench();
  const { discounts, shipping, taxes, refuse_empty } = form.order;
  const priced = (block: Block): boolean =>
    block.type === "order_summary" ||
    block.type === "product" ||
    ("options" in block && block.options.some((option) => "price" in option && option.price !== null)) ||
    (block.type === "number" && block.price !== null);
  const set = discounts.length > 0 || taxes.length > 0 || shipping !== "" || refuse_empty;
  return set || [...parts.values()].some((entry) => entry.what === "block" && priced(entry.part));
}
