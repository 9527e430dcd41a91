"""Powers and logarithms, to 34 digits."""

from decimal import Decimal

from codexa.core.formula.exponents import exponential, logarithm, natural_logarithm, power
from codexa.core.formula.functions.function import Function, Parameter, Role, function
from codexa.core.formula.types import NUMBER
from codexa.core.formula.values import ONE, ZERO

_NUMBER = Parameter("number", Role.NUMBER)
_PI = Decimal("3.141592653589793238462643383279503")


def _sign(number: Decimal) -> Decimal:
    return ZERO if number.is_zero() else ONE.copy_sign(number)


FUNCTIONS: tuple[Function, ...] = (
    function("SIGN", (_NUMBER,), NUMBER, "-1, 0 or 1.", _sign, ("SIGN(-3)", "-1"), ("SIGN(0)", "0")),
    function(
        "POWER",
        (_NUMBER, Parameter("exponent", Role.NUMBER)),
        NUMBER,
        "The number raised, as ^ does.",
        power,
        ("POWER(2, 10)", "1024"),
        ("POWER(0, -1)", "#DIV/0!"),
    ),
    function("EXP", (_NUMBER,), NUMBER, "e raised to the number.", exponential, ("EXP(0)", "1")),
    function(
        "LN",
        (_NUMBER,),
        NUMBER,
        "The natural logarithm.",
        natural_logarithm,
        ("LN(1)", "0"),
        ("LN(0)", "#NUM!"),
    ),
    function(
        "LOG",
        (_NUMBER, Parameter("base", Role.NUMBER, optional=True)),
        NUMBER,
        "The logarithm to a base, which is 10 unless given.",
        logarithm,
        ("LOG(8, 2)", "3"),
        ("LOG(1000)", "3"),
    ),
    function("LOG10", (_NUMBER,), NUMBER, "The logarithm to base 10.", logarithm, ("LOG10(0.01)", "-2")),
    function(
        "PI", (), NUMBER, "The ratio of a circle's circumference to its diameter.", lambda: _PI, ("INT(PI())", "3")
    ),
)
