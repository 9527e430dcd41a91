"""From a tree back to a formula's text, with no more brackets than it needs."""

from decimal import Decimal

from codexa.core.formula import tree

# Higher binds tighter (OpenFormula 1.3, part 4, 5.5).
_BINARY = {"=": 1, "<>": 1, "<": 1, "<=": 1, ">": 1, ">=": 1, "&": 2, "+": 3, "-": 3, "*": 4, "/": 4, "^": 5}
_SIGNED, _HUNDREDTH, _ATOM = 6, 7, 8


def unparse(node: tree.Tree) -> str:
    """Return text that parses to this very tree."""
    match node:
        case tree.Number():
            return plain(node.value)
        case tree.Text():
            return '"' + node.value.replace('"', '""') + '"'
        case tree.Boolean():
            return "TRUE" if node.value else "FALSE"
        case tree.Missing():
            return ""
        case tree.Name():
            return node.text
        case tree.Unary():
            return node.operator + _inside(node.operand, _SIGNED)
        case tree.Percent():
            return _inside(node.operand, _HUNDREDTH) + "%"
        case tree.Call():
            return f"{node.function}({', '.join(map(unparse, node.arguments))})"
        case tree.Binary():
            strength = _BINARY[node.operator]
            return f"{_inside(node.left, strength)} {node.operator} {_inside(node.right, strength + 1)}"


def plain(value: Decimal) -> str:
    """Return a decimal in plain notation where that is short ("0.5"), else with an exponent."""
    return format(value, "f") if abs(value.adjusted()) <= 40 else str(value)


def _strength(node: tree.Tree) -> int:
    match node:
        case tree.Binary():
            return _BINARY[node.operator]
        case tree.Unary():
            return _SIGNED
        case tree.Percent():
            return _HUNDREDTH
    return _ATOM


def _inside(node: tree.Tree, least: int) -> str:
    text = unparse(node)
    return text if _strength(node) >= least else f"({text})"
