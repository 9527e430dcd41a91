"""Arithmetic on nothing but numbers, worked out once when a formula is compiled."""

from collections.abc import Callable
from decimal import Decimal

from codexa.core.formula import tree
from codexa.core.formula.values import ARITHMETIC, HUNDREDTH, settled


def folded_number(node: tree.Tree) -> Decimal | None:
    """Return the value of arithmetic on nothing but numbers ("1 - 10%"), or None where it is not that, or fails."""
    if isinstance(node, tree.Number):
        return node.value
    try:
        match node:
            case tree.Unary(operator="-", operand=inner) if (value := folded_number(inner)) is not None:
                return ARITHMETIC.minus(value)
            case tree.Percent(operand=inner) if (value := folded_number(inner)) is not None:
                return ARITHMETIC.multiply(value, HUNDREDTH)
            case tree.Binary(operator=operator, left=left, right=right) if operator in _FOLDED:
                one, other = folded_number(left), folded_number(right)
                return None if one is None or other is None else _FOLDED[operator](one, other)
    except ArithmeticError:
        pass
    return None


_FOLDED: dict[str, Callable[[Decimal, Decimal], Decimal]] = {
    "+": lambda left, right: settled(ARITHMETIC.add(left, right), left, right.copy_negate()),
    "-": lambda left, right: settled(ARITHMETIC.subtract(left, right), left, right),
    "*": ARITHMETIC.multiply,
    "/": ARITHMETIC.divide,
}
