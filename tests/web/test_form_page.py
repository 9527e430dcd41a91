"""The page of a form before its script has come: painted by itself, packed, with what the script will want at once."""

import gzip
import re

import pytest
from conftest import visit_document, within

from codexa.services import desk, publishing
from codexa.web.form_page import MORE_TYPES
from launch import ROOT

INPUTS = ROOT / "frontend" / "src" / "fields" / "inputs.ts"


def test_the_page_knows_which_inputs_its_script_fetches_by_themselves():
    index = INPUTS.read_text(encoding="utf-8")
    assert set(re.findall(r"^  (\w+): (?:more\(|\{\s*\.\.\.more\()", index, re.MULTILINE)) == MORE_TYPES


def test_it_is_packed_where_that_is_taken_and_asks_for_no_styles(agent, published):
    plain = agent.client.get("/f/alderlight/visit")
    packed = agent.client.get("/f/alderlight/visit", headers={"Accept-Encoding": "br, gzip"})
    assert (plain.headers.get("Content-Encoding"), packed.headers["Content-Encoding"]) == (None, "gzip")
    assert "Accept-Encoding" in packed.headers["Vary"]
    page = gzip.decompress(packed.data).decode()
    assert "<h1>Your visit</h1>" in page
    assert 'rel="stylesheet"' not in page
    assert ".cx-banner" in page
    nonces = set(re.findall(r'nonce="([^"]+)"', page))
    assert len(nonces) == 1
    assert f"'nonce-{nonces.pop()}'" in packed.headers["Content-Security-Policy"]


@pytest.mark.parametrize("inside", [False, True])
def test_it_asks_at_once_for_inputs_that_few_forms_have(agent, connection, mira, inside):
    rating = {"type": "rating", "id": "stars", "key": "stars", "label": "Stars"}
    block = {"type": "group", "id": "group", "key": "group", "blocks": [rating]} if inside else rating
    document = visit_document()
    for name, blocks, asked in (("Visit", [], False), ("Stars", [block], True)):
        document["pages"][0]["blocks"] += blocks
        form = desk.import_form(within(connection), who=mira, document=document | {"name": name})
        publishing.publish(within(connection), who=mira, form=form, revision=1)
        connection.commit()
        page = agent.client.get(f"/f/alderlight/{name.lower()}").text
        assert ("more_inputs" in " ".join(re.findall(r'modulepreload" href="([^"]+)"', page))) is asked
