"""The public face of a program: what a visitor's browser needs, and nothing more.

Built by picking what may be known, never by taking away what may not: conditions, formulas, limits, codes, numbers
that options count as, keys and internal names are not in it.
"""

from typing import TYPE_CHECKING, Annotated, Union

from pydantic import BaseModel, ConfigDict, Discriminator

from codexa.core.definition.form import Brand, Wording
from codexa.core.definition.parts import BlockFace, Identifier
from codexa.core.fields import BLOCK_TYPES, type_of
from codexa.core.program.evaluate import State
from codexa.core.program.program import Place, Program

if TYPE_CHECKING:
    AnyFace = BlockFace
else:
    AnyFace = Annotated[Union[tuple(each.face for each in BLOCK_TYPES)], Discriminator("type")]  # noqa: UP007


class _Face(BaseModel):
    model_config = ConfigDict(
        frozen=True, extra="forbid", from_attributes=True, json_schema_serialization_defaults_required=True
    )


class PageFace(_Face):
    """A page as visitors see it."""

    id: Identifier
    title: str
    blocks: tuple[AnyFace, ...]


class FormFace(_Face):
    """A form as visitors see it. `asks` are the fields after whose change the browser asks for the new state."""

    title: str
    lead: str
    locale: str
    brand: Brand
    wording: Wording
    pages: tuple[PageFace, ...]
    asks: tuple[Identifier, ...]


class ErrorFace(_Face):
    """What is wrong with an answer."""

    code: str
    message: str


class BlockState(_Face):
    """What is true of a block now; `value` only for calculated fields."""

    shown: bool
    required: bool = False
    value: str | None = None
    error: ErrorFace | None = None


class FormState(_Face):
    """What is true of every block now, by id."""

    blocks: dict[str, BlockState]


def form_face(program: Program) -> FormFace:
    """Return what the browser may know of the form."""
    form = program.form
    pages = tuple(
        PageFace(
            id=page.id, title=page.title, blocks=tuple(_block_face(program.places[each.id]) for each in page.blocks)
        )
        for page in form.pages
    )
    return FormFace(
        title=form.title,
        lead=form.lead,
        locale=form.locale,
        brand=form.brand,
        wording=form.wording,
        pages=pages,
        asks=tuple(
            place.block.id
            for place in program.answered_places
            if place.block.id in program.depended_on or (place.field_type and place.field_type.can_be_wrong)
        ),
    )


def _block_face(place: Place) -> BlockFace:
    face = type_of(place.block).face
    # Taking what the face names, at every depth, leaves the rest behind.
    return face.model_validate(place.block.model_dump(include=set(face.model_fields)), extra="ignore")


def form_state(state: State) -> FormState:
    """Return what the browser may know of the state; nothing of a hidden block but that it is hidden."""
    return FormState(blocks={block_id: _block_state(state, place) for block_id, place in state.program.places.items()})


def _block_state(state: State, place: Place) -> BlockState:
    if not state.shown(place):
        return BlockState(shown=False)
    calculated = place.field_type is not None and not place.field_type.answered
    error = state.error(place)
    return BlockState(
        shown=True,
        required=state.required(place),
        value=state.presented(place) if calculated else None,
        error=ErrorFace.model_validate(error) if error else None,
    )
