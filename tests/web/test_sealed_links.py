"""Links with values that nobody can bend: made of tables, opened, used, ended and sent."""

import base64
import csv
import io
import itertools
import json
import re
import threading
import uuid
import zipfile
from typing import get_args
from urllib.parse import parse_qs, urlsplit

import pytest
from conftest import Browser, make_person, publish_visit, visit_document, within
from web.mail import work

from codexa.core.form.form import Presentation
from codexa.practice.mailbox import store as mailbox
from codexa.services import desk, publishing

LINKS = [
    {"field": "school", "name": "school", "visitor": "locked", "sealed": True},
    {"field": "people", "name": "people", "visitor": "hidden", "sealed": True},
    {"field": "mail", "name": "mail"},
]
TABLE = "School,Guests,E-mail\nGlass & patience + 50 % #7,0020,ana@example.org\nSpäte Sterne,14,ben@example.org\n"
COLUMNS = {"school": "School", "people": "Guests"}


@pytest.fixture(autouse=True)
def at_once(monkeypatch):
    monkeypatch.setattr("codexa.services.admission._KNOWN_SECONDS", 0.0)


@pytest.fixture
def linked(connection, mira):
    """A published form whose links bring a school and how many come, sealed, and an address."""
    form = desk.import_form(within(connection), who=mira, document=visit_document() | {"links": LINKS})
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    return form


def asked(table=TABLE, columns=COLUMNS, **more):
    content = table.encode() if isinstance(table, str) else table
    return {"table": base64.b64encode(content).decode(), "columns": columns, **more}


def made(as_mira, form, **more):
    reply = as_mira.post(f"/api/forms/{form}/links", json=asked(**more))
    assert reply.status_code == 200, reply.json
    return as_mira.get(f"/api/forms/{form}/links/{reply.json['batch']}").json["links"]


def path_of(address):
    return address.removeprefix("http://127.0.0.1:8780")


def seal_of(address):
    return parse_qs(urlsplit(address).query)["s"][0]


def hand_in(client, form, seal, answers=None, **body):
    return client.post(
        f"/api/public/{form}/1/responses",
        json={"answers": answers or {}, "seal": seal, **body},
        headers={"Idempotency-Key": uuid.uuid4().hex},
    )


def test_a_table_becomes_links_that_fill_in_what_visitors_can_not_bend(agent, as_mira, linked, connection):
    first, second = made(as_mira, linked, email="E-mail", name="talks")
    page = agent.client.get(path_of(first["address"]))
    assert "Glass \\u0026 patience + 50 % #7" in page.text
    assert '"people":{"shown":false}' in page.text
    bent = {"school": "Mine", "people": "1"}
    assert hand_in(agent.client, linked, seal_of(first["address"]), bent, link={"school": "x"}).status_code == 201
    row = connection.execute("SELECT answers, told, sealed_link FROM response").fetchone()
    assert row["answers"] == {"school": "Glass & patience + 50 % #7", "people": "20"}
    assert row["sealed_link"] == first["id"]
    (batch,) = as_mira.get(f"/api/forms/{linked}/links").json["batches"]
    assert (batch["name"], batch["links"], batch["responses"], batch["addressed"]) == ("talks", 2, 1, 2)
    assert second["given"] == {"school": "Späte Sterne", "people": "14"}


def others_seal(app, connection):
    """A seal of another team's form."""
    stranger = make_person(connection, team="harbour")
    document = visit_document() | {"links": LINKS}
    form = desk.import_form(within(connection), who=stranger, document=document)
    publishing.publish(within(connection), who=stranger, form=form, revision=1)
    connection.commit()
    browser = Browser(app)
    browser.sign_in(stranger.email)
    return seal_of(made(browser, form)[0]["address"])


def test_a_seal_that_is_not_whole_opens_nothing(app, agent, as_mira, linked, connection):
    own, other = (seal_of(each["address"]) for each in made(as_mira, linked))
    foreign = others_seal(app, connection)
    crossed = own[:12] + other[12:]
    letters = [own[:at] + ("A" if own[at] != "A" else "B") + own[at + 1 :] for at in range(0, len(own), 3)]
    for seal in [*letters, own[:-1], own + "A", own.lower(), crossed, foreign, "x", "' OR 1=1", "\x00", own[::-1]]:
        page = agent.client.get("/f/alderlight/visit", query_string={"s": seal})
        assert (page.status_code, "This link is not whole" in page.text) == (403, True), seal
        assert "form-data" not in page.text
        assert hand_in(agent.client, linked, seal, {"people": "3"}).status_code in (400, 410)
    assert connection.execute("SELECT count(*) FROM response").fetchone()["count"] == 0


@pytest.mark.parametrize(
    ("query", "opens"),
    [
        ("s={s}", True),
        ("campaign=poster&s={s}", True),
        ("mail=ana@example.org&s={s}", True),
        ("s={s}&s={s}", False),
        ("s={s}&school=Mine", False),
        ("school=Mine&s={s}", False),
        ("school=Mine", False),
        ("people=3", False),
        ("mail=a@example.org&mail=b@example.org", False),
        ("", True),
    ],
)
def test_nothing_is_added_doubled_or_told_beside_a_seal(agent, as_mira, linked, query, opens):
    seal = seal_of(made(as_mira, linked)[0]["address"])
    page = agent.client.get(f"/f/alderlight/visit?{query.format(s=seal)}")
    assert ("form-data" in page.text, page.status_code) == (opens, 200 if opens else 403)


@pytest.mark.parametrize("way", get_args(Presentation))
def test_a_seal_holds_in_every_way_of_presenting(agent, as_mira, linked, way):
    seal = seal_of(made(as_mira, linked)[0]["address"])
    page = agent.client.get(f"/f/alderlight/visit?s={seal}&codexa-shown={way}")
    data = json.loads(re.search(r'id="form-data">(.*?)</script>', page.text, re.DOTALL)[1])
    school = data["state"]["blocks"]["school"]
    assert (data["face"]["presentation"], school["fill"], school["locked"]) == (way, "Glass & patience + 50 % #7", True)
    assert data["state"]["blocks"]["people"] == {"shown": False}
    sent = {"answers": {"school": "Another", "mail": "ana@example.org"}, "seal": seal}
    state = agent.client.post(f"/api/public/{linked}/1/state?codexa-shown={way}", json=sent).json["state"]
    assert state["blocks"]["school"]["fill"] == "Glass & patience + 50 % #7"


def test_a_link_that_was_ended_or_is_over_or_used_says_which(agent, as_mira, linked):
    def words(link):
        return agent.client.get(path_of(link["address"])).text

    ended, kept = made(as_mira, linked)
    assert as_mira.delete(f"/api/forms/{linked}/links/one/{ended['id']}").status_code == 204
    assert as_mira.delete(f"/api/forms/{linked}/links/one/{ended['id']}").status_code == 404
    assert "The time of this link is over" in words(ended)
    assert hand_in(agent.client, linked, seal_of(ended["address"])).status_code == 410
    over = made(as_mira, linked, until="2020-01-01T00:00")[0]
    assert "The time of this link is over" in words(over)
    once = made(as_mira, linked, uses=1)[0]
    assert hand_in(agent.client, linked, seal_of(once["address"])).status_code == 201
    assert "This link has been used" in words(once)
    assert "form-data" in words(kept)
    assert as_mira.post(f"/api/forms/{linked}/links/key", json={"end_others": False}).json == {"key": 2}
    assert "form-data" in words(kept)
    as_mira.post(f"/api/forms/{linked}/links/key", json={"end_others": True})
    assert "The time of this link is over" in words(kept)
    assert "form-data" in words(made(as_mira, linked)[0])


def test_what_was_handed_in_by_a_link_can_be_sent_again_once_that_is_used_or_ended(agent, as_mira, linked):
    once = made(as_mira, linked, uses=1)[0]

    def send():
        return agent.client.post(
            f"/api/public/{linked}/1/responses",
            json={"answers": {}, "seal": seal_of(once["address"])},
            headers={"Idempotency-Key": "the-same-key"},
        )

    assert send().status_code == 201
    assert (send().status_code, send().json["number"]) == (200, 1)
    as_mira.delete(f"/api/forms/{linked}/links/one/{once['id']}")
    assert send().status_code == 200


def test_a_link_for_once_is_used_once_by_ten_at_a_time(app, as_mira, linked, connection):
    seal = seal_of(made(as_mira, linked, uses=1)[0]["address"])
    together, statuses = threading.Barrier(10), []

    def one():
        client = app.test_client()
        together.wait()
        statuses.append(hand_in(client, linked, seal).status_code)

    threads = [threading.Thread(target=one) for _ in range(10)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(statuses) == [201] + [410] * 9


def test_a_form_may_want_a_sealed_link(agent, as_mira, connection, mira):
    document = visit_document() | {"links": LINKS, "sealed_only": True}
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    page = agent.client.get("/f/alderlight/visit")
    assert (page.status_code, "opens with a link that was sent to you" in page.text) == (403, True)
    assert hand_in(agent.client, form, "", {"people": "3"}).status_code == 410
    assert "form-data" in agent.client.get(path_of(made(as_mira, form)[0]["address"])).text


def test_what_a_plain_link_brings_and_visitors_can_not_mend_is_told_on_a_page(agent, connection, mira):
    links = [{"field": "people", "name": "people", "visitor": "locked"}]
    form = desk.import_form(within(connection), who=mira, document=visit_document() | {"links": links})
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    page = agent.client.get("/f/alderlight/visit?people=900")
    assert (page.status_code, "does not take: People. " in page.text) == (403, True)
    assert "form-data" in agent.client.get("/f/alderlight/visit?people=9").text


@pytest.mark.parametrize(
    ("table", "words"),
    [
        (b"School,Guests\nSp\xe4te,3\n", "Line 2 has a sign that is not UTF-8"),
        ("School,School\na,b\n", "Two columns are called “School”"),
        (",\na,b\n", "no headers"),
        ("", "no headers"),
        ("School,Guests\na,2,c\n", "Line 2 has more cells"),
        ('School,Guests\n"a,2\n', "can't be read"),
        ("School,Guests\n" + "a,3\n" * 100_001, "more than 100,000 lines"),
    ],
)
def test_a_table_that_can_not_be_read_is_refused_with_the_line_and_the_remedy(as_mira, linked, table, words):
    for place in ("links/plan", "links"):
        reply = as_mira.post(f"/api/forms/{linked}/{place}", json=asked(table))
        assert (reply.status_code, reply.json["code"], words in reply.json["message"]) == (422, "table_refused", True)


def test_lines_that_are_wrong_are_told_by_their_number_and_left_out(as_mira, linked):
    table = 'School,Guests\n\n"A\nB",2\nGood,20\n , \nToo many,61\nNone,\n,five\n'
    reply = as_mira.post(f"/api/forms/{linked}/links/plan", json=asked(table)).json
    assert (reply["lines"], reply["empty"], reply["links"]) == (5, 2, 2)
    assert {each["number"]: each["message"].split(":")[0].split("“")[0].strip() for each in reply["wrong"]} == {
        7: "Guests",
        8: "has no Guests, which must be there",
        9: "Guests",
    }


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16"])
@pytest.mark.parametrize("separator", [",", ";", "\t"])
def test_tables_are_read_as_spreadsheets_write_them(as_mira, linked, encoding, separator):
    content = separator.join(["School", "Guests"]) + "\r\n" + separator.join(["Späte Sterne", "3"]) + "\r\n"
    reply = as_mira.post(f"/api/forms/{linked}/links/plan", json=asked(content.encode(encoding))).json
    assert reply["first"] == [{"school": "Späte Sterne", "people": "3"}]


def test_columns_that_are_not_there_are_named(as_mira, linked):
    for columns, words in (({"moon": "School"}, "no value moon"), ({"school": "Moon"}, "no column “Moon”")):
        reply = as_mira.post(f"/api/forms/{linked}/links", json=asked(columns=columns))
        assert (reply.status_code, words in reply.json["message"]) == (422, True)


def test_links_are_taken_along_as_csv_and_as_a_spreadsheet(as_mira, linked):
    links = made(as_mira, linked, table="School,Guests\n=1+1,3\nB,4\n")
    batch = as_mira.get(f"/api/forms/{linked}/links").json["batches"][0]["id"]
    rows = list(csv.reader(io.StringIO(as_mira.get(f"/api/forms/{linked}/links/{batch}.csv").text)))
    assert rows[0] == ["school", "people", "mail", "E-mail", "Link", "Responses", "State"]
    assert rows[1][0] == "'=1+1"
    assert [row[4] for row in rows[1:]] == [each["address"] for each in links]
    book = zipfile.ZipFile(io.BytesIO(as_mira.get(f"/api/forms/{linked}/links/{batch}.xlsx").data))
    sheet = book.read("xl/worksheets/sheet1.xml").decode()
    assert ("<t>=1+1</t>" in book.read("xl/sharedStrings.xml").decode(), "<f>" in sheet) == (True, False)
    leads = book.read("xl/worksheets/_rels/sheet1.xml.rels").decode()
    assert all(f'Target="{each["address"]}"' in leads for each in links)


def test_each_link_goes_by_mail_to_its_address_once(as_mira, linked, worker):
    links = made(as_mira, linked, email="E-mail")
    batch = as_mira.get(f"/api/forms/{linked}/links").json["batches"][0]["id"]
    mail = {"subject": "Your school", "words": "Here is your link:\nBring <warm> clothes."}
    replies = [as_mira.post(f"/api/forms/{linked}/links/{batch}/mails", json=mail).json["count"] for _ in range(2)]
    assert replies == [2, 0]
    work(worker)
    sent = {each.recipients[0]: each.text for each in mailbox.all_mail()}
    assert set(sent) == {"ana@example.org", "ben@example.org"}
    text = sent["ana@example.org"]
    assert links[0]["address"] in text
    assert "Bring <warm> clothes." in text
    listed = as_mira.get(f"/api/forms/{linked}/links/{batch}").json["links"]
    assert [each["mail"] for each in listed] == ["sent", "sent"]


def test_ten_thousand_links_are_each_another_and_all_listed(as_mira, linked):
    table = "School,Guests\n" + "".join(f"School {at},{at % 60 + 1}\n" for at in range(10_000))
    batch = as_mira.post(f"/api/forms/{linked}/links", json=asked(table)).json["batch"]
    seals, after = [], 0
    while after is not None and len(seals) < 1_000:
        reply = as_mira.get(f"/api/forms/{linked}/links/{batch}?after={after}").json
        seals += [seal_of(each["address"]) for each in reply["links"]]
        after = reply["next"]
    assert len(set(seals)) == 1_000
    lines = as_mira.get(f"/api/forms/{linked}/links/{batch}.csv").text.splitlines()
    assert len(lines) == 10_001


def test_links_of_another_team_are_not_there(app, connection, as_mira, linked):
    links = made(as_mira, linked)
    stranger = make_person(connection, team="harbour")
    publish_visit(connection, stranger)
    browser = Browser(app)
    browser.sign_in(stranger.email)
    for method, place in itertools.product(("get",), ("links", "links/1", "links/1.csv", "links/1.xlsx")):
        assert getattr(browser, method)(f"/api/forms/{linked}/{place}").status_code == 404
    assert browser.delete(f"/api/forms/{linked}/links/one/{links[0]['id']}").status_code == 404
