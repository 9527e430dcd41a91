"""Conditions as rows and as formulas."""

from typing import Annotated

from pydantic import StringConstraints

from codexa.core.formula.rows import ConditionRows
from codexa.web.contract.message import Message


class RowsRequest(Message):
    """A condition as a formula."""

    formula: Annotated[str, StringConstraints(max_length=10_000)]


class RowsReply(Message):
    """The condition as rows; null where it can't be read."""

    rows: ConditionRows | None


class ConditionRequest(Message):
    """A condition as rows."""

    rows: ConditionRows


class ConditionReply(Message):
    """The condition as a formula."""

    formula: str
