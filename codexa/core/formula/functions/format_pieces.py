"""What formats of numbers and of dates have in common: text as it is, and errors at a place."""


class FormatError(ValueError):
    """A format can't be read from `place` on, counted from 0; the message says why, and what to write."""

    def __init__(self, place: int, message: str) -> None:
        super().__init__(message)
        self.place = place
        self.message = message


def quoted(code: str, at: int) -> tuple[str, int]:
    """Return the text that is meant as it is, in quotation marks or after a backslash, and where it ends."""
    if code[at] == "\\":
        if at + 1 == len(code):
            raise FormatError(at, "Nothing follows the backslash.")
        return code[at + 1], at + 2
    end = code.find('"', at + 1)
    if end < 0:
        raise FormatError(at, "This quotation mark is never closed.")
    return code[at + 1 : end], end + 1
