"""The functions of the formula language, one module per family, in the order of the reference."""

from codexa.core.formula.functions import dates, facts, logic, numbers, words
from codexa.core.formula.functions.function import Function

FAMILIES: dict[str, tuple[Function, ...]] = {
    "Logic": logic.FUNCTIONS,
    "Numbers": numbers.FUNCTIONS,
    "Text": words.FUNCTIONS,
    "Dates": dates.FUNCTIONS,
    "Facts": facts.FUNCTIONS,
}

FUNCTIONS: dict[str, Function] = {function.name: function for family in FAMILIES.values() for function in family}
