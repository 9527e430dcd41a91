"""A response as a document to print or keep: what it is of, its number and day, and what was answered, as JSON."""

from collections.abc import Iterator
from dataclasses import asdict
from typing import Any

from codexa.core.fields.moments import shown_date
from codexa.core.program.evaluate import State
from codexa.core.program.order import money
from codexa.core.program.told_answers import ToldAnswer, ToldPage, told_answers


def response_document(state: State) -> dict[str, Any]:
    """Return the document of a response that has its number.

    {"title", "number", "at" (the day it came, in words), "locale", "paper", "brand", "pages": [{"title", "answers":
    [{"label", "text", "files", "drawn"}]}]}, as told_answers has them; what was paid stands last, as a receipt.
    """
    form, context = state.program.form, state.context
    return {
        "title": form.title or form.name,
        "number": context.number,
        "at": shown_date(context.today, form.locale),
        "locale": form.locale,
        "paper": form.paper,
        "brand": form.brand.model_dump(mode="json", exclude={"header_picture", "background_picture", "saved"}),
        "pages": [asdict(each) for each in (*state.once(told_answers), *_receipt(state))],
    }


def _receipt(state: State) -> Iterator[ToldPage]:
    """Yield what was paid, under the number of the receipt; a try has none."""
    paid = state.context.payment
    if paid is None or paid.status not in ("paid", "part refunded", "refunded"):
        return
    say, region = state.program.form.say, state.program.region
    # Of a later charge it is the charge that the receipt is for.
    told = {
        "receiptPaid": money(paid.amount if paid.charge is None else paid.charge, region),
        "receiptBack": money(paid.refunded, region) if paid.refunded else "",
        "receiptPlan": paid.plan,
        "receiptBank": paid.number,
    }
    number = "" if paid.receipt is None else f" {paid.receipt}"
    answers = tuple(ToldAnswer(label=say(label), text=text) for label, text in told.items() if text)
    yield ToldPage(page="", title=say("receipt") + number, answers=answers)
