"""Files of records: put in, taken out, downloaded, kept in the history, brought by responses, and tidied up."""

import io
import json

import pytest
from conftest import within
from core.forms import block
from core.test_record_choice import choice
from core.test_tables import COLUMNS
from PIL import Image
from web.mail import work
from web.test_record_choice import hand_in, state
from web.test_tables import names, put

from codexa.services import desk, publishing
from codexa.services.tidying import tidy

PHOTOS = {"id": "c8", "type": "file_upload", "key": "photos", "label": "Photos", "kinds": ["picture", "pdf"], "most": 2}


def picture(colour="red"):
    made = io.BytesIO()
    Image.new("RGB", (640, 480), colour).save(made, "PNG")
    return made.getvalue()


@pytest.fixture
def table(as_mira):
    reply = as_mira.post("/api/tables", json={"definition": {"name": "Telescopes", "columns": [*COLUMNS, PHOTOS]}})
    return f"/api/tables/{reply.json['id']}"


def add(agent, table, name, content, place="1/files/c8"):
    return agent.post(f"{table}/records/{place}?name={name}", data=content)


def test_files_are_put_in_looked_at_downloaded_and_taken_out(as_mira, table):
    put(as_mira, table, {"c1": "Nova"}, {"c1": "Lyra"})
    assert add(as_mira, table, "dome.png", picture()).status_code == 200
    assert add(as_mira, table, "plan.pdf", b"%PDF-1.7 plan").json["cells"]["c8"] == "dome.png, plan.pdf"
    [record, _] = as_mira.get(f"{table}/records").json["records"]
    dome, plan = record["files"]["c8"]
    assert ((dome["name"], dome["is_picture"]), plan["is_picture"]) == (("dome.png", True), False)
    assert "c8" not in record["typed"]
    with as_mira.get(f"{table}/files/{plan['id']}") as reply:
        assert (reply.data, reply.headers["Content-Disposition"]) == (b"%PDF-1.7 plan", "attachment; filename=plan.pdf")
    with as_mira.get(f"/api/public/files/{dome['id']}/small") as reply:
        assert reply.mimetype == "image/jpeg"
    # What is typed elsewhere leaves them; they are found by name and counted.
    put(as_mira, table, {"number": 1, "cells": {"c2": "3"}})
    assert names(as_mira, table, words="plan.pdf") == (["Nova"], 1)
    assert names(as_mira, table, where=json.dumps([["c8", "at_least", "2"]])) == (["Nova"], 1)
    for refused, words in (
        (add(as_mira, table, "more.png", picture("blue")), "at most 2 files"),
        (add(as_mira, table, "x.png", b"<html>"), "another kind"),
        (add(as_mira, table, "x.png", b""), "is empty"),
    ):
        assert (refused.status_code, words in refused.json["message"]) == (422, True), refused.json
    assert add(as_mira, table, "x.png", picture(), "1/files/c1").status_code == 404
    assert add(as_mira, table, "x.png", picture(), "9/files/c8").status_code == 404
    taken = as_mira.delete(f"{table}/records/1/files/c8/{plan['id']}")
    assert taken.json["cells"]["c8"] == "dome.png"
    changes = as_mira.get(f"{table}/records/1/history").json["changes"]
    assert changes[0]["cells"]["c8"] == "dome.png, plan.pdf"


def test_a_file_goes_with_its_record_and_not_before(as_mira, connection, tmp_path, table):
    put(as_mira, table, {"c1": "Nova"})
    add(as_mira, table, "dome.png", picture())
    [file] = as_mira.get(f"{table}/records").json["records"][0]["files"]["c8"]
    folder = tmp_path
    assert tidy(connection, folder, hours=0).uploads == 0
    as_mira.post(f"{table}/records/remove", json={"numbers": [1]})
    assert tidy(connection, folder, hours=0).uploads == 0
    connection.execute("UPDATE record SET removed_at = now() - interval '31 days'")
    tidy(connection, folder, hours=0)
    tidy(connection, folder, hours=0)
    assert not (folder / file["id"]).exists()


def test_what_a_response_has_brought_is_kept_with_the_record_and_shown_where_it_is_chosen(
    worker, as_mira, connection, mira, table
):
    known = as_mira.get(table).json["known"]
    cells = [{"column": "c1", "value": '"Comet"'}, {"column": "c8", "value": "photos"}]
    keeps = {"kind": "record", "id": "u1", "name": "Kept", "steps": [{"id": "s", "table": known["id"], "cells": cells}]}
    blocks = [block("file_upload", "photos"), choice("which", known["id"], picture="c8", look="list")]
    document = {
        "name": "Sighting", "title": "Sighting", "tables": [known], "follow_ups": [keeps],
        "pages": [{"id": "p1", "blocks": blocks}],
    }  # fmt: skip
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    sent = as_mira.client.post(f"/api/public/{form}/1/files/photos?name=comet.png&visit=abc", data=picture()).json
    assert hand_in(as_mira, form, {"photos": [sent["id"]]}, visit="abc").status_code == 201
    work(worker)
    [record] = as_mira.get(f"{table}/records").json["records"]
    [file] = record["files"]["c8"]
    assert (record["name"], file["name"]) == ("Comet", "comet.png")
    assert file["id"] != sent["id"]
    [listed] = state(as_mira, form, {})["which"]["records"]["listed"]
    assert listed == {"id": "1", "label": "Comet", "picture": file["id"]}
