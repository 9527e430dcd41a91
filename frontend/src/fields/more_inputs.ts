// Inputs that fewer forms have, in one piece of its own; see inputs.ts.
export { AddressInput } from "./address/Input";
export { AllAnswersContent } from "./all_answers/Input";
export { DropdownInput, prefetchSearch } from "./dropdown/Input";
export { GridInput } from "./grid/Input";
export { NameInput } from "./name/Input";
export { OrderSummaryContent } from "./order_summary/Input";
export { ProductInput } from "./product/Input";
export { QuantityInput } from "./quantity/Input";
export { RatingInput } from "./rating/Input";
export { prefetchRecordSearch, RecordChoiceInput } from "./record_choice/Input";
export { RepeatInput } from "./repeat/Input";
export { ScaleInput } from "./scale/Input";
export { SlotInput } from "./slot/Input";
export { SliderInput } from "./slider/Input";
