"""Brands that a team's forms share, and the pictures in them."""

from pathlib import Path
from typing import IO, Any
from uuid import UUID, uuid4

from codexa.core.definition.brand import Brand
from codexa.core.definition.reading import read_part
from codexa.core.form.form import Form
from codexa.services import pictures
from codexa.services.errors import FileRefusedError, NameTakenError, NotFoundError
from codexa.services.uploads import clean_name, media_type_of, private
from codexa.store import brands as store
from codexa.store.brands import Picture, SavedBrand
from codexa.store.database import Connect, Connection
from codexa.store.sessions import SignedIn

MAX_PICTURE_BYTES = 5_000_000
_LARGEST_SIDE = 2_400  # pixels; a wider picture is made smaller
# Formats that are taken, and what each is kept as: written anew, so that nothing else stays inside.
_KEPT_AS = {"image/jpeg": "JPEG", "image/png": "PNG", "image/webp": "WEBP", "image/gif": "PNG"}


def _stored(look: Any) -> dict[str, Any]:
    return _worn(look, Brand()).model_dump(mode="json")


def _worn(look: Any, by: Brand) -> Brand:
    """Return a look as a form has it that uses that brand, in its own way."""
    return read_part(Brand, look).model_copy(update={"saved": by.saved, "follows": by.follows})


def list_brands(connection: Connection, *, who: SignedIn) -> list[SavedBrand]:
    """Return the team's brands."""
    return store.list_brands(connection, team=who.team_id)


def save_brand(connection: Connection, *, who: SignedIn, name: str, look: Any) -> UUID:
    """Keep a new brand of the team. Raises NameTakenError, DefinitionError."""
    brand = store.insert_brand(connection, team=who.team_id, name=name.strip(), look=_stored(look))
    if brand is None:
        raise NameTakenError
    return brand


def change_brand(connection: Connection, *, who: SignedIn, brand: UUID, look: Any) -> None:
    """Change a brand, and with it how all forms look that use it; those that wait have it in their drafts.

    Raises NotFoundError, DefinitionError.
    """
    if not store.set_brand(connection, team=who.team_id, brand=brand, look=_stored(look)):
        raise NotFoundError
    store.give_to_waiting_drafts(connection, team=who.team_id, brand=brand, person=who.person_id)


def delete_brand(connection: Connection, *, who: SignedIn, brand: UUID) -> None:
    """Delete a brand; forms that used it keep their copy of its look. Raises NotFoundError."""
    if not store.delete_brand(connection, team=who.team_id, brand=brand):
        raise NotFoundError


def as_visitors_see_it(connect: Connect, edition: Form, *, form_id: UUID) -> Brand:
    """Return an edition's look: as it was published where the form waits with a brand, else as it is now."""
    return edition.brand if edition.brand.follows == "edition" else as_it_looks_now(connect, edition, form_id=form_id)


def as_it_looks_now(connect: Connect, form: Form, *, form_id: UUID) -> Brand:
    """Return a form's look: its saved brand's as it is now, or its own."""
    if not form.brand.saved:
        return form.brand
    with connect() as connection:
        look = store.find_look_of_form(connection, form=form_id, brand=form.brand.saved)
    return form.brand if look is None else _worn(look, form.brand)


def store_picture(connect: Connect, folder: Path, *, who: SignedIn, name: str, content: IO[bytes]) -> Picture:
    """Keep a picture of the team, at most 2400 pixels on its longer side. Raises FileRefusedError."""
    picture_id, shown_name = uuid4(), clean_name(name)
    data = content.read(MAX_PICTURE_BYTES + 1)
    if len(data) > MAX_PICTURE_BYTES:
        raise FileRefusedError(f"{shown_name} is too large; send at most {MAX_PICTURE_BYTES // 1_000_000} MB.")
    path = picture_path(folder, picture_id)
    path.parent.mkdir(parents=True, exist_ok=True)
    try:
        with open(path, "xb", opener=private) as file:
            file.write(data)
        picture = _written_anew(path, picture_id, shown_name)
        with connect() as connection:
            store.insert_picture(connection, picture, team=who.team_id)
    except BaseException:
        path.unlink(missing_ok=True)
        raise
    return picture


def _written_anew(path: Path, picture_id: UUID, name: str) -> Picture:
    media_type = media_type_of(path)
    kept_as = _KEPT_AS.get(media_type)
    if kept_as is None:
        raise FileRefusedError(f"{name} is no picture that browsers show. Send a PNG, JPEG, WebP or GIF.")
    opened = pictures.shrunk(path, name, media_type, (_LARGEST_SIDE, _LARGEST_SIDE))
    if opened is None:
        raise FileRefusedError(f"{name} has too many pixels. Send a smaller one.")
    picture = opened.convert("RGB" if kept_as == "JPEG" else "RGBA")
    picture.info.clear()  # comments, places and devices are nobody's business
    picture.save(path, kept_as, quality=86, optimize=True)
    return Picture(
        id=picture_id,
        name=name,
        media_type=f"image/{kept_as.lower()}",
        size=path.stat().st_size,
        width=picture.width,
        height=picture.height,
    )


def picture_path(folder: Path, picture: UUID) -> Path:
    """Return where a picture lies."""
    return folder / "pictures" / str(picture)
