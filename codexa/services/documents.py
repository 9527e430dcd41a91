"""Whether every stored form can still be read by this version: found out when a new version is brought in."""

from uuid import UUID

from codexa.core.errors import DefinitionError
from codexa.core.form.upgrades import read_stored
from codexa.store import forms
from codexa.store.database import Connect


def check_documents(connect: Connect) -> int:
    """Read every draft and live edition, note what can't be read, and return how many forms that are.

    The desk shows such a form as what it is; opening it says why.
    """
    with connect() as connection:
        ids = forms.all_ids(connection)
    return sum(_check(connect, form) for form in ids)


def _check(connect: Connect, form: UUID) -> bool:
    with connect() as connection:
        documents = forms.documents(connection, form=form)
    problem = next((found for document in documents if (found := _problem(document)) is not None), None)
    with connect() as connection:
        forms.set_unreadable(connection, form=form, problem=problem)
    return problem is not None


def _problem(document: object) -> str | None:
    try:
        read_stored(document)
    except DefinitionError as error:
        return f"{error.problems[0].path}: {error.problems[0].message}"[:500]
    return None
