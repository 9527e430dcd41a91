"""A response as a document to print or keep: what it is of, its number and day, and what was answered, as JSON."""

from dataclasses import asdict
from typing import Any

from codexa.core.fields.moments import shown_date
from codexa.core.program.evaluate import State
from codexa.core.program.told_answers import told_answers


def response_document(state: State) -> dict[str, Any]:
    """Return the document of a response that has its number.

    {"title", "number", "at" (the day it came, in words), "locale", "paper", "brand", "pages": [{"title", "answers":
    [{"label", "text", "files", "drawn"}]}]}, as told_answers has them.
    """
    form, context = state.program.form, state.context
    return {
        "title": form.title or form.name,
        "number": context.number,
        "at": shown_date(context.today, form.locale),
        "locale": form.locale,
        "paper": form.paper,
        "brand": form.brand.model_dump(mode="json", exclude={"header_picture", "background_picture", "saved"}),
        "pages": [asdict(each) for each in told_answers(state)],
    }
