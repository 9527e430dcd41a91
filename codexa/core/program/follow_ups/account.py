"""An account: whoever a response names becomes a member, once; whoever is signed in is one."""

from collections.abc import Iterator
from typing import Any

from codexa.core.form.follow_ups import AccountFollowUp
from codexa.core.form.form import FORM
from codexa.core.formula import convert
from codexa.core.formula.types import Kind
from codexa.core.formula.values import Failed
from codexa.core.program.evaluate import State
from codexa.core.program.findings import Finding, error
from codexa.core.program.follow_ups.kind import FollowUpKind, holds
from codexa.core.program.program import Program

_TEXTS = (Kind.TEXT, Kind.ANY, Kind.BLANK)
_SETTINGS = {"email": ("an e-mail address", "no_address"), "name_of": ("a name", "no_name")}


class AccountKind(FollowUpKind[AccountFollowUp]):
    """Account."""

    kind_name = "account"
    title = "Account"

    def content(self, state: State, follow_up: AccountFollowUp) -> dict[str, Any] | None:
        """For whom, in which groups; nothing without an address. It is their own where somebody is signed in."""
        visitor = state.context.visitor
        email = visitor.get("email") or _text(state, follow_up, "email")
        if not email:
            return None
        name = visitor.get("name") or _text(state, follow_up, "name_of") or email
        known = {"groups": list(follow_up.groups), "mail": follow_up.mail, "locale": state.program.form.locale}
        return {"email": email, "name": name, **known}

    def told(self, content: dict[str, Any]) -> str:
        """Whose account."""
        groups = f", in {', '.join(content['groups'])}" if content["groups"] else ""
        return f"an account for {content['name']}, {content['email']}{groups}"

    def findings(self, program: Program, follow_up: AccountFollowUp) -> Iterator[Finding]:
        """What is needed of a member, and not said."""
        for setting, (what, code) in _SETTINGS.items():
            formula = program.formula(follow_up.id, setting)
            if formula is None:
                message = f"An account needs {what}, and it is not said from where."
                yield error(code, message, "Pick a field that asks for it.", follow_up.id, setting)
            elif formula.compiled.type.kind not in _TEXTS:
                gives = formula.compiled.type.name
                message = f"An account needs {what}, and this gives {gives}."
                yield error("wrong_type", message, "Pick a field of text.", follow_up.id, setting)


def _text(state: State, follow_up: AccountFollowUp, setting: str) -> str:
    formula = state.program.formula(follow_up.id, setting)
    value = None if formula is None else formula.compiled.run(state.values, state.context)
    return "" if value is None or isinstance(value, Failed) else convert.text(value).strip()


def addresses_of_accounts(state: State) -> Iterator[tuple[str, str]]:
    """Yield for whom a response would make accounts, with the address of the field where it was typed, "" elsewhere."""
    for each in state.program.active_follow_ups:
        if isinstance(each, AccountFollowUp) and holds(state, each.id, "only_when"):
            address = _text(state, each, "email")
            if address:
                yield address, _field(state.program, each.email)


def _field(program: Program, formula: str) -> str:
    key = formula.strip().lower()
    found = (place.block.id for place in program.questions.values() if place.block.key == key)
    return next(found, FORM)
