"""The functions of the formula language, one module per family, in the order of the reference."""

from codexa.core.formula.functions import (
    calendar_dates,
    conditional_sums,
    dates,
    facts,
    formats,
    forms,
    lists,
    logic,
    measures,
    moments,
    money,
    numbers,
    powers,
    text_edits,
    whole_numbers,
    words,
)
from codexa.core.formula.functions.function import Function

FAMILIES: dict[str, tuple[Function, ...]] = {
    "Logic": logic.FUNCTIONS,
    "Numbers": numbers.FUNCTIONS + measures.FUNCTIONS + whole_numbers.FUNCTIONS + powers.FUNCTIONS,
    "Lists": lists.FUNCTIONS + conditional_sums.FUNCTIONS,
    "Money": money.FUNCTIONS,
    "Text": words.FUNCTIONS + text_edits.FUNCTIONS + formats.FUNCTIONS,
    "Dates": dates.FUNCTIONS + calendar_dates.FUNCTIONS + moments.FUNCTIONS,
    "Facts": facts.FUNCTIONS,
    "Forms": forms.FUNCTIONS,
}

FUNCTIONS: dict[str, Function] = {function.name: function for family in FAMILIES.values() for function in family}
