"""What a visitor says in a conversation, as the answer that the form would have been given."""

from typing import Any

from codexa.core.errors import AnswerError
from codexa.core.program.evaluate import FieldError
from codexa.core.program.program import Program
from codexa.core.sentences import in_language


def spoken_answer(program: Program, block_id: str, words: str) -> Any | FieldError:
    """Return the answer to a question outside rows that these words give (never blank), or what is wrong with them.

    Whether that answer may be given is for `evaluate` to say, as of any other. Raises KeyError for no such question.
    """
    place = program.questions[block_id]
    assert place.field_type is not None
    try:
        return place.field_type.spoken(words, place.block, program.region)
    except AnswerError as error:
        return FieldError(
            code=error.code,
            message=in_language(program.form.of_error(error.code, error.message), program.region.locale),
        )
