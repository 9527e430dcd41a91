"""Powers and logarithms, to 34 digits."""

from decimal import Decimal

from codexa.core.formula import convert
from codexa.core.formula.functions.function import Function, Parameter, Role, function
from codexa.core.formula.types import NUMBER
from codexa.core.formula.values import ARITHMETIC, ONE, ZERO, ErrorCode, fail

_NUMBER = Parameter("number", Role.NUMBER)
_TEN = Decimal(10)
_PI = Decimal("3.141592653589793238462643383279503")


def _sign(number: Decimal) -> Decimal:
    return ZERO if number.is_zero() else ONE.copy_sign(number)


def _logarithm(number: Decimal, base: Decimal = _TEN) -> Decimal:
    if number <= 0 or base <= 0:
        fail(ErrorCode.NUMBER, "Only numbers above 0 have a logarithm.")
    if base == _TEN:
        return number.log10(ARITHMETIC)
    return number.ln(ARITHMETIC) / base.ln(ARITHMETIC)


def _natural(number: Decimal) -> Decimal:
    return number.ln(ARITHMETIC) if number > 0 else _logarithm(number)


FUNCTIONS: tuple[Function, ...] = (
    function("SIGN", (_NUMBER,), NUMBER, "-1, 0 or 1.", _sign, ("SIGN(-3)", "-1"), ("SIGN(0)", "0")),
    function(
        "POWER",
        (_NUMBER, Parameter("exponent", Role.NUMBER)),
        NUMBER,
        "The number raised, as ^ does.",
        convert.power,
        ("POWER(2, 10)", "1024"),
        ("POWER(0, -1)", "#DIV/0!"),
        steps=130,
    ),
    function(
        "EXP", (_NUMBER,), NUMBER, "e raised to the number.", lambda n: n.exp(ARITHMETIC), ("EXP(0)", "1"), steps=20
    ),
    function(
        "LN", (_NUMBER,), NUMBER, "The natural logarithm.", _natural, ("LN(1)", "0"), ("LN(0)", "#NUM!"), steps=50
    ),
    function(
        "LOG",
        (_NUMBER, Parameter("base", Role.NUMBER, optional=True)),
        NUMBER,
        "The logarithm to a base, which is 10 unless given.",
        _logarithm,
        ("LOG(8, 2)", "3"),
        ("LOG(1000)", "3"),
        steps=105,
    ),
    function("LOG10", (_NUMBER,), NUMBER, "The logarithm to base 10.", _logarithm, ("LOG10(0.01)", "-2"), steps=50),
    function(
        "PI", (), NUMBER, "The ratio of a circle's circumference to its diameter.", lambda: _PI, ("INT(PI())", "3")
    ),
)
