"""What goes along with a mail: pictures that it shows, files that visitors sent, the response as PDF."""

import io
import uuid

import pytest
from conftest import within
from PIL import Image
from pypdf import PdfReader
from web.mail import work
from web.test_uploads import picture

from codexa.practice.mailbox import store as mailbox
from codexa.practice.mailbox.server import application as mailbox_pages
from codexa.services import desk, publishing
from codexa.services.accounts.mail_words import notice
from codexa.services.follow_ups import mailing
from codexa.services.follow_ups.outcomes import NeverError
from codexa.services.response_pdf import response_pdf

BLOCKS = [
    {"id": "who", "type": "short_text", "key": "who", "label": "Who"},
    {"id": "photos", "type": "file_upload", "key": "photos", "label": "Photos", "kinds": ["picture"], "megabytes": 5},
    {"id": "sign", "type": "signature", "key": "sign", "label": "Signature"},
]
MAIL = {
    "id": "u1",
    "kind": "email",
    "recipients": [{"address": "log@example.org"}],
    "subject": "A log",
    "paragraphs": [{"text": "<p>Hello</p>"}],
    "pdf": True,
    "files": True,
    "megabytes": 1,
}


def form_of(connection, mira, **changes):
    pages = [{"id": "p", "title": "The night", "blocks": BLOCKS}]
    document = {"name": "Log", "title": "Log of a night", "pages": pages, "follow_ups": [MAIL], **changes}
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    return form


def hand_in(agent, form, *contents):
    sent = [
        agent.client.post(
            f"/api/public/{form}/1/files/photos", query_string={"name": f"sky {at}.png", "visit": "v1"}, data=content
        ).json["id"]
        for at, content in enumerate(contents)
    ]
    answers = {"who": "Ola", "photos": sent, "sign": {"strokes": [[10, 10, 90, 60]]}}
    reply = agent.client.post(
        f"/api/public/{form}/1/responses",
        json={"answers": answers, "visit": "v1"},
        headers={"Idempotency-Key": uuid.uuid4().hex},
    )
    assert reply.status_code == 201
    return reply.json


def noise(side):
    """A picture that can't be made smaller than its pixels."""
    buffer = io.BytesIO()
    Image.effect_noise((side, side), 90).save(buffer, "PNG")
    return buffer.getvalue()


def test_files_go_along_as_far_as_they_fit_and_the_rest_is_named(as_mira, connection, mira, worker):
    form = form_of(connection, mira)
    hand_in(as_mira, form, picture(), noise(1_200))
    work(worker)
    (mail,) = mailbox.all_mail()
    assert [each.get_filename() for each in mail.attachments] == ["Log of a night 1.pdf", "sky 0.png"]
    assert mail.attachments[1].get_payload(decode=True) == picture()
    assert "Too large to go along; Codexa has them: sky 1.png" in mail.text
    pages = mailbox_pages().test_client()
    assert "sky 0.png" in pages.get(f"/mail/{mail.id}").text
    with pages.get(f"/mail/{mail.id}/file/0") as reply:
        text = "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(reply.data)).pages)
    assert all(words in text for words in ("Log of a night", "The night", "Who", "Ola", "sky 0.png, sky 1.png"))
    assert pages.get(f"/mail/{mail.id}/file/7").status_code == 404


def test_a_file_that_is_gone_ends_the_mail_with_a_reason(as_mira, connection, mira, worker, tmp_path):
    form = form_of(connection, mira)
    hand_in(as_mira, form, picture())
    for path in tmp_path.glob("*-*-*-*-*"):
        path.unlink()
    work(worker)
    (run,) = as_mira.get(f"/api/forms/{form}/responses/1/runs").json["runs"]
    assert (run["state"], run["result"]) == ("failed", "sky 0.png is not there any more, so that it can't go along.")


def test_pictures_are_parts_of_the_mail_and_those_that_are_not_shown_are_words(box, as_mira):
    kept = as_mira.post("/api/pictures?name=dome.webp", data=picture("WEBP")).json["source"]
    pieces = [
        {"picture": kept, "alternative": "The dome"},
        {"picture": "data:image/svg+xml;base64,PHN2Zy8+", "alternative": "A drawing"},
        {"picture": f"/pictures/{uuid.uuid4()}", "alternative": "One that is gone"},
    ]
    content = notice(to=["a@example.org"], subject="Pictures", text="") | {"pieces": pieces}
    mailing.send(content, key="pictures", settings=box)
    (mail,) = mailbox.all_mail()
    assert mail.html.count('src="cid:') == 1
    assert all(words in mail.html for words in ("A drawing</p>", "One that is gone</p>", 'alt="The dome"'))
    assert "[The dome]" in mail.text
    pages = mailbox_pages().test_client()
    shown = pages.get(f"/mail/{mail.id}/html").text
    source = shown.split('<img src="')[1].split('"')[0]
    with pages.get(source) as reply:
        assert Image.open(io.BytesIO(reply.data)).format == "PNG"
    assert pages.get(f"/mail/{mail.id}/picture/none").status_code == 404


@pytest.fixture
def document():
    answers = [{"label": "Who", "text": "Zoë\nŁódź", "files": (), "drawn": ""}]
    answers.append({"label": "Signature", "text": "drawn", "files": (), "drawn": "M10 10 90 60"})
    brand = {
        "accent": "#2B3A8C",
        "ink": "#16202B",
        "typeface": "lora",
        "heading_typeface": "bitter",
        "logo": "",
        "logo_alternative": "",
    }
    pages = [{"title": "The <night>", "answers": answers}]
    head = {"title": 'Log "A"', "number": 7, "at": "1 May 2026", "locale": "en_GB", "paper": "Letter"}
    return {**head, "brand": brand, "pages": pages}


def test_a_pdf_is_tagged_on_the_form_s_paper_with_text_to_select(document, tmp_path):
    read = PdfReader(io.BytesIO(response_pdf(document, tmp_path)))
    assert [round(side) for side in read.pages[0].mediabox[2:]] == [612, 792]
    assert read.trailer["/Root"]["/MarkInfo"]["/Marked"]
    assert (read.trailer["/Root"]["/Lang"], read.metadata.title) == ("en-GB", 'Log "A" · 7')
    text = read.pages[0].extract_text()
    assert all(words in text for words in ('Log "A"', "The <night>", "Zoë", "Łódź"))


def test_a_pdf_of_more_than_a_document_holds_has_the_beginning_and_says_so(document, tmp_path, monkeypatch):
    monkeypatch.setattr("codexa.services.response_pdf.making._MOST_SIGNS", 30)
    text = PdfReader(io.BytesIO(response_pdf(document, tmp_path))).pages[0].extract_text()
    assert "Zoë" in text
    assert "Signature" in text
    document["pages"][0]["answers"][0]["text"] = "x" * 40
    text = PdfReader(io.BytesIO(response_pdf(document, tmp_path))).pages[0].extract_text()
    assert "longer than a document holds" in text
    assert "Signature" not in text


def test_a_pdf_reads_nothing_from_elsewhere(document, tmp_path):
    (tmp_path / "secret").write_text("secret")
    for logo in ("file:///etc/hostname", "http://127.0.0.1:9/x.png", "/../secret", "/pictures/none"):
        document["brand"]["logo"] = logo
        assert not list(PdfReader(io.BytesIO(response_pdf(document, tmp_path))).pages[0].images)


def test_an_address_that_is_none_ends_the_mail(box):
    with pytest.raises(NeverError):
        mailing.send(notice(to=["a@b@c"], subject="x", text=""), key="k", settings=box)
