"""Files that visitors send: what is taken, what is refused, and who may have them."""

import io
import json
import struct
import uuid
import zlib

import pytest
from conftest import make_person, within
from PIL import Image

from codexa.services import desk, publishing
from codexa.services.tidying import tidy
from codexa.web.errors import _STATUSES

DOCUMENT = {
    "name": "Photos",
    "title": "Photos",
    "pages": [
        {
            "id": "p",
            "blocks": [
                {
                    "id": "photo",
                    "type": "file_upload",
                    "key": "photo",
                    "label": "Photo",
                    "kinds": ["picture"],
                    "megabytes": 1,
                },
                {"id": "any", "type": "file_upload", "key": "any", "label": "Any", "kinds": ["document", "pdf"]},
                {"id": "name", "type": "short_text", "key": "name", "label": "Name"},
            ],
        }
    ],
}


def picture(kind="PNG", size=(40, 30)):
    buffer = io.BytesIO()
    Image.new("RGB", size, "navy").save(buffer, kind)
    return buffer.getvalue()


def bomb(side=40_000):
    """A picture of 1.6 thousand million pixels in a few bytes."""

    def chunk(kind, data):
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = struct.pack(">IIBBBBB", side, side, 1, 0, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"\0" * 9)) + chunk(b"IEND", b"")


@pytest.fixture
def photos(connection, mira):
    form = desk.import_form(within(connection), who=mira, document=DOCUMENT)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    return form


@pytest.fixture
def folder(app, tmp_path):
    return tmp_path


@pytest.fixture
def send(agent, photos, folder):
    def send(content, name="dome.png", block="photo"):
        address = f"/api/public/{photos}/1/files/{block}"
        return agent.client.post(address, query_string={"name": name}, data=content)

    return send


def hand_in(agent, form, answers):
    address = f"/api/public/{form}/1/responses"
    return agent.client.post(address, json={"answers": answers}, headers={"Idempotency-Key": uuid.uuid4().hex})


def test_a_photo_is_kept_shown_small_and_given_to_the_team_as_an_attachment(agent, as_mira, photos, send):
    taken = send(picture("JPEG", (900, 600)), "../../Dome <1>.jpg").json
    assert taken["name"] == "Dome <1>.jpg"
    with agent.client.get(taken["thumbnail"]) as small:
        assert Image.open(io.BytesIO(small.data)).size == (320, 213)
        assert "sandbox" in small.headers["Content-Security-Policy"]
    assert hand_in(agent, photos, {"photo": [taken["id"]]}).status_code == 201
    single = as_mira.get(f"/api/forms/{photos}/responses/1").json
    assert single["row"]["cells"] == {"photo": "Dome <1>.jpg"}
    assert [(each["id"], each["type"]) for each in single["files"]["photo"]] == [(taken["id"], "image/jpeg")]
    with as_mira.get(f"/api/forms/{photos}/files/{taken['id']}/picture") as seen:
        assert Image.open(io.BytesIO(seen.data)).size == (900, 600)
        assert (seen.content_type, "sandbox" in seen.headers["Content-Security-Policy"]) == ("image/jpeg", True)
    with as_mira.get(f"/api/forms/{photos}/files/{taken['id']}") as whole:
        assert whole.headers["Content-Disposition"].startswith("attachment")
        assert whole.content_type == "application/octet-stream"
    assert agent.client.application.test_client().get(f"/api/forms/{photos}/files/{taken['id']}").status_code == 401


@pytest.mark.parametrize(
    "case",
    [
        (b"", "empty.png", "photo", "is empty"),
        (b"<svg onload=alert(1)>", "a.png", "photo", "another kind"),
        (b"<html><script>alert(1)</script>", "a.txt", "any", "another kind"),
        (b"MZ\x90\x00" + b"\0" * 100, "a.pdf", "any", "another kind"),
        (picture() + b"\0" * 1_000_000, "big.png", "photo", "too large"),
        (picture()[:40], "cut.png", "photo", "damaged"),
        (bomb(), "bomb.png", "photo", "too many pixels"),
    ],
    ids=lambda case: case[1],
)
def test_what_is_no_such_file_is_refused_in_words_and_leaves_nothing(send, folder, case):
    content, name, block, words = case
    reply = send(content, name, block)
    assert reply.status_code == _STATUSES["file_refused"]
    assert words in reply.json["message"]
    assert list(folder.iterdir()) == []


@pytest.fixture
def heic_form(connection, mira):
    document = json.loads(json.dumps(DOCUMENT))
    document["pages"][0]["blocks"][0] |= {"heic_as_jpeg": True, "picture_types": ["heic"]}
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    return form


def test_a_photo_in_heic_is_kept_as_jpeg_where_the_author_wants_it(agent, send, heic_form, folder):
    assert send(picture("HEIF"), "dome.heic").json["name"] == "dome.heic"
    address = f"/api/public/{heic_form}/1/files/photo?name=dome.heic"
    taken = agent.client.post(address, data=picture("HEIF", (90, 60))).json
    assert taken["name"] == "dome.jpg"
    with Image.open(folder / taken["id"]) as kept:
        assert (kept.format, kept.size) == ("JPEG", (90, 60))
    assert "HEIC" in agent.client.post(address, data=picture("PNG")).json["message"]


@pytest.mark.parametrize("block", ["name", "nothing"])
def test_a_field_that_takes_no_files_takes_none(send, block):
    assert send(picture(), block=block).status_code == 404


def test_a_file_belongs_to_its_field_and_to_one_response(agent, photos, send):
    photo = send(picture()).json["id"]
    for answers in (
        {"any": [photo]},
        {"photo": [str(uuid.uuid4())]},
        {"photo": [{"id": photo, "size": 1}]},
        {"photo": "x"},
    ):
        reply = hand_in(agent, photos, answers)
        assert reply.status_code == 422
        assert next(iter(reply.json["errors"].values()))["code"] == "not_files"
    assert hand_in(agent, photos, {"photo": [photo]}).status_code == 201
    assert hand_in(agent, photos, {"photo": [photo]}).status_code == 422


def test_another_team_gets_no_file(agent, as_mira, connection, photos, send):
    photo = send(picture()).json["id"]
    hand_in(agent, photos, {"photo": [photo]})
    make_person(connection, team="other", email="stranger@example.org")
    connection.commit()
    agent.sign_in("stranger@example.org")
    assert agent.get(f"/api/forms/{photos}/files/{photo}").status_code == 404


def test_what_no_response_names_is_deleted_after_a_while(agent, connection, photos, send, folder):
    kept, left = send(picture()).json["id"], send(picture()).json["id"]
    hand_in(agent, photos, {"photo": [kept]})
    assert tidy(connection, folder, hours=1).uploads == 0
    assert tidy(connection, folder, hours=0).uploads == 1
    assert sorted(path.name for path in folder.iterdir()) == sorted([kept, f"{kept}.small"])
    assert left not in {path.name for path in folder.iterdir()}
