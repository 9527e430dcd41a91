"""Places of records: so many as a column says, of all forms together, and never one more."""

import threading
import uuid

import pytest
from conftest import within
from core.forms import block
from core.records import MemoryTable
from core.test_record_choice import choice
from web.test_record_choice import hand_in, labels, made, state
from web.test_tables import put

from codexa.services import desk, publishing
from codexa.services.response_set import removing

TALKS = MemoryTable(
    "talks",
    {
        "name": "Talks",
        "columns": [
            {"type": "short_text", "id": "title", "key": "title", "label": "Title"},
            {"type": "number", "id": "seats", "key": "seats", "label": "Seats", "decimals": 1},
        ],
    },
    ({"title": "Comets", "seats": "3"}, {"title": "Dust", "seats": "0.5"}, {"title": "Open air"}),
)


@pytest.fixture
def talks(as_mira):
    return made(as_mira, TALKS)


def publish(connection, mira, known, *blocks, name="Seats"):
    document = {"name": name, "title": name, "tables": [known], "pages": [{"id": "p1", "blocks": list(blocks)}]}
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    return form


@pytest.fixture
def seats(connection, mira, talks):
    _, known = talks
    asked = block("number", "count", minimum="1")
    talk = choice("talk", known["id"], places="seats", taking="count", required="TRUE")
    return publish(connection, mira, known, talk, asked)


@pytest.fixture
def walk(connection, mira, talks):
    """Another form, in whose rows each takes one."""
    _, known = talks
    talk = choice("talk", known["id"], places="seats", left_shown=False)
    rows = {
        "type": "repeat", "id": "rows", "key": "rows", "label": "People", "kinds": [
            {"id": "kind", "key": "kind", "label": "Person", "blocks": [talk]}
        ],
    }  # fmt: skip
    return publish(connection, mira, known, rows, name="Walk")


def offered(agent, form):
    return labels(state(agent, form, {})["talk"])


def test_what_is_left_is_told_and_what_is_gone_is_not_offered(as_mira, talks, seats):
    address, _ = talks
    assert offered(as_mira, seats) == ["Comets (3 left)", "Open air"]
    refused = hand_in(as_mira, seats, {"talk": "1", "count": "4"})
    assert refused.json["errors"]["talk"] == {"code": "only_left", "message": "There are only 3 left."}
    assert hand_in(as_mira, seats, {"talk": "1", "count": "2"}).status_code == 201
    assert offered(as_mira, seats) == ["Comets (1 left)", "Open air"]
    assert hand_in(as_mira, seats, {"talk": "3", "count": "500"}).status_code == 201
    # Fewer than are taken already: nothing is left, and nothing is taken away.
    put(as_mira, address, {"number": 1, "cells": {"seats": "1"}})
    assert offered(as_mira, seats) == ["Open air"]
    assert hand_in(as_mira, seats, {"talk": "1", "count": "1"}).json["errors"]["talk"]["code"] == "dropped"
    put(as_mira, address, {"number": 1, "cells": {"seats": "4"}})
    assert offered(as_mira, seats) == ["Comets (2 left)", "Open air"]


def test_forms_of_one_table_take_of_the_same(as_mira, seats, walk):
    assert hand_in(as_mira, seats, {"talk": "1", "count": "1"}).status_code == 201
    rows = {"rows": [{"id": name, "kind": "kind", "values": {"talk": "1"}} for name in ("a", "b")]}
    too_many = {"rows": [*rows["rows"], {"id": "c", "kind": "kind", "values": {"talk": "1"}}]}
    refused = hand_in(as_mira, walk, too_many).json["errors"]
    assert {each["code"] for each in refused.values()} == {"too_few"}
    assert hand_in(as_mira, walk, rows).status_code == 201
    assert offered(as_mira, seats) == ["Open air"]


def test_what_a_response_gives_back_is_free_again(as_mira, connection, mira, seats):
    assert hand_in(as_mira, seats, {"talk": "1", "count": "2"}).status_code == 201
    place = f"/api/forms/{seats}/responses/1"
    opened = as_mira.get(f"{place}/correction").json
    # The same record, and more of it than is left beside what it has.
    more = {"answers": {**opened["answers"], "count": "4"}, "version": opened["version"]}
    assert as_mira.post(f"{place}/correction", json=more).status_code in (409, 422)
    fewer = {"answers": {**opened["answers"], "count": "1"}, "version": opened["version"]}
    assert as_mira.post(f"{place}/correction", json=fewer).status_code == 200
    assert offered(as_mira, seats) == ["Comets (2 left)", "Open air"]
    known = {"who": mira, "form": seats, "numbers": [1]}
    removing.remove(within(connection), **known)
    connection.commit()
    assert offered(as_mira, seats) == ["Comets (3 left)", "Open air"]
    removing.bring_back(within(connection), **known)
    connection.commit()
    assert offered(as_mira, seats) == ["Comets (2 left)", "Open air"]
    removing.remove(within(connection), **known)
    connection.commit()
    # A form that is gone for good takes nothing along.
    assert hand_in(as_mira, seats, {"talk": "1", "count": "3"}).status_code == 201
    connection.execute("DELETE FROM form WHERE id = %s", [seats])
    assert connection.execute("SELECT sum(taken) AS taken FROM record_taken").fetchone()["taken"] == 0


def test_of_many_at_once_so_many_get_a_place_as_there_are(app, seats):
    codes = []

    def send():
        body = {"answers": {"talk": "1", "count": "1"}}
        headers = {"Idempotency-Key": uuid.uuid4().hex}
        reply = app.test_client().post(f"/api/public/{seats}/1/responses", json=body, headers=headers)
        codes.append(reply.status_code)

    threads = [threading.Thread(target=send) for _ in range(8)]
    for each in threads:
        each.start()
    for each in threads:
        each.join(timeout=60)
    assert sorted(codes) == [201] * 3 + [422] * 5
