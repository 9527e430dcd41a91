"""A form's program in one of its further languages."""

from dataclasses import replace

from codexa.core.form.translating import in_language
from codexa.core.program.compiling import compile_form
from codexa.core.program.program import Program


def program_in_language(own: Program, locale: str) -> Program:
    """Return the program of the form as it reads in one of its further languages; itself where that is its own.

    What is worked out to be kept, and what the team is told, is worked out by the form's `own`.
    """
    form = in_language(own.form, locale)
    return own if form is own.form else replace(compile_form(form), own=own)
