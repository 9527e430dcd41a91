"""Conditions as rows and as formulas: two ways of writing the same."""

from flask import Blueprint

from codexa.core.formula.rows import rows_of, text_of
from codexa.services.roles import Right
from codexa.web.contract.conditions import ConditionReply, ConditionRequest, RowsReply, RowsRequest
from codexa.web.endpoint import endpoint
from codexa.web.guard import may

blueprint = Blueprint("conditions", __name__, url_prefix="/api/conditions")


@endpoint(blueprint, "POST", "/rows", body=RowsRequest, reply=RowsReply)
def rows(asked: RowsRequest) -> RowsReply:
    """Return a condition as rows."""
    may(Right.SEE_FORMS)
    return RowsReply(rows=rows_of(asked.formula))


@endpoint(blueprint, "POST", "/formula", body=ConditionRequest, reply=ConditionReply)
def formula(asked: ConditionRequest) -> ConditionReply:
    """Return rows as a formula."""
    may(Right.SEE_FORMS)
    return ConditionReply(formula=text_of(asked.rows))
