"""Saved brands and pictures."""

from typing import Annotated, Any
from uuid import UUID

from pydantic import StringConstraints

from codexa.core.definition.brand import Brand
from codexa.web.contract.message import Message


class SavedBrandReply(Message):
    """A brand of the team, how many forms use it, and how many of those wait for their next edition with it."""

    id: UUID
    name: str
    look: Brand
    forms: int
    waiting: int


class BrandsReply(Message):
    """The team's brands by name."""

    brands: list[SavedBrandReply]


class NewBrandRequest(Message):
    """A look to keep under a name."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=100, pattern=r"\S")]
    look: dict[str, Any]


class BrandRequest(Message):
    """The look of a brand from now on."""

    look: dict[str, Any]


class PictureReply(Message):
    """A picture was kept: where it is, and its size in pixels."""

    source: str
    width: int
    height: int
