"""What every request and reply is, and how an error is told."""

from pydantic import BaseModel, ConfigDict

from codexa.core.errors import Problem


class Message(BaseModel):
    """A request or reply; unknown keys are refused."""

    model_config = ConfigDict(extra="forbid", from_attributes=True, json_schema_serialization_defaults_required=True)


class ErrorReply(Message):
    """What went wrong: a stable code, a sentence for people, and the places where known."""

    code: str
    message: str
    problems: list[Problem] = []
