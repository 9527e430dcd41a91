"""A desk of many forms: labels, whose they are, what is found in them, filters that one keeps, and the bin."""

import uuid

import pytest
from conftest import Browser, make_person, publish_visit, save_draft, visit_document, within
from core.forms import block
from web.test_record_choice import hand_in

from codexa.services import desk, tidying


@pytest.fixture
def form(connection, mira):
    return str(publish_visit(connection, mira))


def row(agent, form):
    return next(each for each in agent.get("/api/forms").json["forms"] if each["id"] == str(form))


def names(found):
    return [(each["form_name"], each["number"], each["title"]) for each in found.json["parts"]]


def test_labels_and_owners_are_set_and_seen_on_the_desk(app, as_mira, connection, form):
    assert (row(as_mira, form)["labels"], row(as_mira, form)["owner"]) == ([], "Owner")
    place = f"/api/forms/{form}"
    assert (
        as_mira.put(f"{place}/labels", json={"labels": [" School  trips", "2027", "school trips"]}).status_code == 204
    )
    assert row(as_mira, form)["labels"] == ["school trips", "2027"]
    for wrong in (["  "], ["x" * 41], [str(each) for each in range(21)]):
        assert as_mira.put(f"{place}/labels", json={"labels": wrong}).status_code == 400
    jonas = make_person(connection, role="viewer", email="jonas@example.org")
    connection.commit()
    assert as_mira.put(f"{place}/owner", json={"person": str(jonas.person_id)}).status_code == 204
    assert row(as_mira, form)["owner_id"] == str(jonas.person_id)
    assert as_mira.put(f"{place}/owner", json={"person": str(uuid.uuid4())}).status_code == 404
    viewer = Browser(app)
    viewer.sign_in("jonas@example.org")
    assert viewer.put(f"{place}/labels", json={"labels": []}).status_code == 403
    assert viewer.get("/api/forms/bin").status_code == 403


def test_what_stands_in_forms_is_found_as_it_is_now_and_by_who_may_see_it(app, as_mira, connection, mira, form):
    other = desk.make_form(connection, who=mira, name="Night_watch")
    pages = [
        {"id": "p", "title": "At night", "blocks": [block("number", "hours", label="Hours of 100%_dark <b>sky</b>")]}
    ]
    document = {"name": "Night_watch", "title": "Night", "pages": pages}
    save_draft(connection, who=mira, form=other, revision=1, document=document)
    connection.commit()
    assert names(as_mira.get("/api/forms/find?words=dark hours")) == [("Night_watch", "1.1", "Hours of 100%_dark sky")]
    assert names(as_mira.get("/api/forms/find?words=%25_d")) == [("Night_watch", "1.1", "Hours of 100%_dark sky")]
    assert names(as_mira.get("/api/forms/find?words=_____")) == []
    assert names(as_mira.get("/api/forms/find?words=")) == []
    pages[0]["blocks"][0]["label"] = "Hours awake"
    save_draft(connection, who=mira, form=other, revision=2, document=document)
    connection.commit()
    assert names(as_mira.get("/api/forms/find?words=dark")) == []
    assert names(as_mira.get("/api/forms/find?words=AWAKE")) == [("Night_watch", "1.1", "Hours awake")]
    jonas = make_person(connection, role="viewer", email="jonas@example.org")
    connection.commit()
    hidden = {"form": str(other), "person": str(jonas.person_id), "role": "none"}
    assert as_mira.put("/api/team/exceptions", json=hidden).status_code == 204
    viewer = Browser(app)
    viewer.sign_in("jonas@example.org")
    assert names(viewer.get("/api/forms/find?words=awake")) == []
    make_person(connection, team="meridian", role="owner", email="ida@example.org")
    connection.commit()
    stranger = Browser(app)
    stranger.sign_in("ida@example.org")
    assert names(stranger.get("/api/forms/find?words=awake")) == []


def test_filters_are_ones_own_and_kept_by_name(app, as_mira, connection):
    view = {"words": "night", "state": "live", "owner": "", "labels": ["2027"], "sort": "-responses"}
    assert as_mira.put("/api/forms/views", json={"name": " School  nights ", "view": view}).status_code == 204
    assert (
        as_mira.put("/api/forms/views", json={"name": "School nights", "view": view | {"sort": ""}}).status_code == 204
    )
    assert as_mira.get("/api/forms").json["views"] == [{"name": "School nights", "view": view | {"sort": ""}}]
    assert as_mira.put("/api/forms/views", json={"name": "x", "view": {"state": "odd"}}).status_code == 400
    make_person(connection, role="viewer", email="jonas@example.org")
    connection.commit()
    viewer = Browser(app)
    viewer.sign_in("jonas@example.org")
    assert viewer.get("/api/forms").json["views"] == []
    assert as_mira.delete("/api/forms/views/School%20nights").status_code == 204
    assert as_mira.get("/api/forms").json["views"] == []


def test_the_bin_keeps_a_form_with_all_that_came_in_for_thirty_days(as_mira, connection, mira, form, tmp_path):
    assert hand_in(as_mira, form, {"people": "4"}).status_code == 201
    draft = desk.import_form(within(connection), who=mira, document=visit_document())
    connection.commit()
    for each in (form, draft):
        assert as_mira.delete(f"/api/forms/{each}").status_code == 204
    lying = as_mira.get("/api/forms/bin").json
    assert [(each["id"], each["responses"], each["live_edition"]) for each in lying["forms"]] == [
        (str(draft), 0, None), (form, 1, 1),
    ]  # fmt: skip
    assert lying["kept_days"] == 30
    connection.execute("UPDATE form SET deleted_at = deleted_at - interval '29 days'")
    tidying.tidy(connection, tmp_path)
    assert as_mira.post(f"/api/forms/{form}/restore").status_code == 204
    assert as_mira.get(f"/api/forms/{form}/responses/1").status_code == 200
    connection.execute("UPDATE form SET deleted_at = deleted_at - interval '2 days'")
    tidying.tidy(connection, tmp_path)
    assert as_mira.get("/api/forms/bin").json["forms"] == []
    assert as_mira.post(f"/api/forms/{draft}/restore").status_code == 404
    assert [each["id"] for each in as_mira.get("/api/forms").json["forms"]] == [form]
