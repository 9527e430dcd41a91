"""The team's keys of the API."""

from uuid import UUID

from flask import Blueprint

from codexa.services import keys
from codexa.services.roles import Right
from codexa.web.contract.programs import KeyReply, KeysReply, NewKeyReply, NewKeyRequest
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may

blueprint = Blueprint("keys", __name__, url_prefix="/api/keys")


@endpoint(blueprint, "GET", "", reply=KeysReply)
def list_keys() -> KeysReply:
    """List the team's keys, with when each was used last."""
    found = keys.list_keys(connection, who=may(Right.KEEP_KEYS))
    return KeysReply(
        keys=[
            KeyReply(
                id=each.id,
                name=each.name,
                rights=[keys.KeyRight(right) for right in each.rights],
                form=each.form_name,
                made_by=each.made_by,
                made_at=each.made_at,
                last_used_at=each.last_used_at,
            )
            for each in found
        ]
    )


@endpoint(blueprint, "POST", "", body=NewKeyRequest, reply=NewKeyReply)
def make_key(asked: NewKeyRequest) -> NewKeyReply:
    """Make a key, which is shown this once."""
    who = may(Right.KEEP_KEYS)
    made, key = keys.make(connection, who=who, name=asked.name, rights=asked.rights, form=asked.form)
    return NewKeyReply(id=made, key=key)


@endpoint(blueprint, "DELETE", "/<uuid:key>")
def end_key(key: UUID) -> None:
    """End a key for ever."""
    keys.end(connection, who=may(Right.KEEP_KEYS), key=key)
