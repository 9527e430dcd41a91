"""Where an author who knows spreadsheets would be surprised: what concerns no single function.

What concerns one is said by the function itself (`Function.differs`); the reference and the formula editor show both.
"""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Difference:
    """One difference; `signs` are the operators beside which the editor says it, in this order of precedence."""

    spreadsheet: str
    here: str
    signs: tuple[str, ...] = ()


DIFFERENCES: tuple[Difference, ...] = (
    Difference(
        "a blank cell is 0 in a comparison",
        '`<` `<=` `>` `>=` with a blank are FALSE; `blank = 0` is FALSE, `blank = ""` is TRUE; in sums a blank is 0',
        ("<=", ">=", "<>", "<", ">", "="),
    ),
    Difference(
        "binary numbers of 15 digits",
        "decimals of 34 digits: `0.1 + 0.2 = 0.3`; compared, rounded and counted by 28 of them: `1/3*3` is 1",
    ),
    Difference(
        "a subtraction may leave 1E-17 over",
        "numbers that are equal when compared leave nothing over: `p - p/3 - p/3 - p/3` is 0",
        ("-",),
    ),
    Difference(
        "a date is a number of days",
        'a date is a date: date ± number is a date, date − date a number of days, `date & ""` is 2026-03-05; a date '
        "less a blank one is an error",
        ("+", "-"),
    ),
    Difference(
        "text may become a number or a date by itself",
        "in arithmetic only plain decimal text is a number, in a comparison no text is; dates are read from 2026-03-05",
    ),
    Difference("TRUE in a sum of cells counts for nothing", "TRUE is 1 in arithmetic and joins as TRUE"),
    Difference("text is compared by the computer's language", "text is compared without regard to case, by Unicode"),
    Difference("`0^-1` differs from program to program", "`0^-1` divides by zero, `0^0` is no number", ("^",)),
    Difference(
        "AND, OR, CHOOSE and IFERROR may compute everything",
        "AND and OR stop where it is decided; IF, IFS, SWITCH, CHOOSE, IFERROR and IFNA compute only what they need",
    ),
    Difference(
        "an error in a condition is an error",
        "in a condition of a form an error counts as FALSE, and the proof tells of it",
    ),
    Difference(
        "criteria find text that looks like the number",
        'a criterion in quotation marks finds both (`"5"`), a number only numbers; an error in a list is passed over',
    ),
    Difference("a choice is its text", "a choice is its code beside text and the number it counts as in arithmetic"),
)
