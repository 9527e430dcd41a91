"""The team's brands and pictures."""

from uuid import UUID

from flask import Blueprint, Response, request, send_file

from codexa.services import brands
from codexa.services.errors import NotFoundError
from codexa.services.roles import Right
from codexa.store import brands as store
from codexa.web.contract.brands import BrandRequest, BrandsReply, NewBrandRequest, PictureReply, SavedBrandReply
from codexa.web.contract.forms import MadeReply
from codexa.web.database import connection, files_folder
from codexa.web.endpoint import endpoint
from codexa.web.files import arriving
from codexa.web.guard import may

blueprint = Blueprint("brands", __name__)
pictures = Blueprint("pictures", __name__)


@endpoint(blueprint, "GET", "/api/brands", reply=BrandsReply)
def list_all() -> BrandsReply:
    """List the team's brands."""
    who = may(Right.SEE_FORMS)
    with connection() as database:
        found = brands.list_brands(database, who=who)
    return BrandsReply(brands=[SavedBrandReply.model_validate(each) for each in found])


@endpoint(blueprint, "POST", "/api/brands", body=NewBrandRequest, reply=MadeReply)
def save(asked: NewBrandRequest) -> MadeReply:
    """Keep a look as a brand of the team."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        return MadeReply(id=brands.save_brand(database, who=who, name=asked.name, look=asked.look))


@endpoint(blueprint, "PUT", "/api/brands/<uuid:brand>", body=BrandRequest)
def change(asked: BrandRequest, brand: UUID) -> None:
    """Change a brand for all forms that use it."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        brands.change_brand(database, who=who, brand=brand, look=asked.look)


@endpoint(blueprint, "DELETE", "/api/brands/<uuid:brand>")
def delete(brand: UUID) -> None:
    """Delete a brand; forms keep their copy of its look."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        brands.delete_brand(database, who=who, brand=brand)


@endpoint(blueprint, "POST", "/api/pictures", reply=PictureReply)
def upload() -> PictureReply:
    """Take a picture for forms and brands: the body is its content, the query's `name` its name."""
    who = may(Right.EDIT_FORMS)
    request.max_content_length = brands.MAX_PICTURE_BYTES + 1024
    name, content = request.args.get("name", "picture"), arriving(Right.EDIT_FORMS)
    picture = brands.store_picture(connection, files_folder(), who=who, name=name, content=content)
    return PictureReply(source=f"/pictures/{picture.id}", width=picture.width, height=picture.height)


@pictures.get("/pictures/<uuid:picture>")
def picture(picture: UUID) -> Response:
    """A picture of a form; it never changes."""
    with connection() as database:
        media_type = store.find_picture(database, picture=picture)
    path = brands.picture_path(files_folder(), picture)
    if media_type is None or not path.exists():
        raise NotFoundError("This picture is gone.")
    response = send_file(path.absolute(), mimetype=media_type, max_age=31_536_000)
    response.headers["Content-Security-Policy"] = "default-src 'none'; sandbox"
    response.headers["Cross-Origin-Resource-Policy"] = "cross-origin"
    return response
