"""Follow-ups: which are due, to whom and with which words; and what one lacks is found."""

from dataclasses import replace
from zoneinfo import ZoneInfo

import pytest

from codexa.core.errors import DefinitionError
from codexa.core.program.accept import accept, numbered
from codexa.core.program.evaluate import evaluate
from codexa.core.program.explain import explain_all
from codexa.core.program.follow_ups import due, follow_up_findings, told
from codexa.core.program.renaming_words import renamed
from codexa.core.program.trials import run_trials
from core.forms import block, figure, options, program_of
from core.formulas import CONTEXT

BLOCKS = [
    block("short_text", "who"),
    block("email", "mail"),
    block("single_choice", "site", options=options("dome", "deck")),
    block("number", "secret_number", shown="FALSE"),
    block("repeat", "lines", kinds=[{"id": "k", "key": "line", "label": "Line", "blocks": [block("number", "count")]}]),
]
MAIL = {
    "id": "u1",
    "kind": "email",
    "name": "Thanks",
    "only_when": "NOT(ISBLANK(mail))",
    "recipients": [
        {"field": "mail"},
        {"role": "cc", "address": "deck@example.org", "when": 'site = "deck"'},
        {"role": "bcc", "address": "MIRA@example.org"},
    ],
    "subject": "For {who}, no. {response.number}",
    "paragraphs": [
        {"text": "<p>Dear {who}</p>"},
        {"text": "<p>By the water</p>", "shown": 'site = "deck"'},
        {"chart": "gquiz"},
    ],
    "all_answers": True,
}
HOOK = {"id": "u2", "kind": "webhook", "on": "handed in", "address": "https://www.example.org/in"}
QUIZ = figure("quiz", "score", shown_to_visitors=True, questions=[{"field": "site", "right": ["dome"]}])


def program(*follow_ups):
    return program_of(*BLOCKS, figures=[QUIZ], follow_ups=list(follow_ups))


def due_of(follow_ups, answers, moment="complete"):
    kept = numbered(accept(program(*follow_ups), answers, CONTEXT), 7)
    return due(kept.state, moment)


def codes(*follow_ups):
    return [each.code for each in follow_up_findings(program(*follow_ups), None)]


class TestMail:
    def test_has_its_recipients_words_and_pieces_worked_out(self):
        (mail,) = due_of([MAIL], {"who": "Ingrid", "mail": "i@example.org", "site": "odeck"})
        assert (mail.content["to"], mail.content["cc"]) == (["i@example.org"], ["deck@example.org"])
        assert mail.content["subject"] == "For Ingrid, no. 7"
        pieces = mail.content["pieces"]
        assert [each.get("html") for each in pieces[:2]] == ["<p>Dear Ingrid</p>", "<p>By the water</p>"]
        assert pieces[2]["bars"][0]["text"] == "0 / 1"
        assert pieces[3]["answers"] == [["Who", "Ingrid"], ["Mail", "i@example.org"], ["Site", "Deck"]]
        assert told(mail, "en") == "mail to i@example.org, deck@example.org, MIRA@example.org: For Ingrid, no. 7"

    def test_is_not_due_where_its_condition_or_its_moment_is_another(self):
        assert due_of([MAIL], {"who": "Ingrid"}) == []
        assert due_of([MAIL], {"mail": "i@example.org"}, "handed in") == []
        assert due_of([MAIL | {"active": False}], {"mail": "i@example.org"}) == []

    def test_goes_to_each_address_once_and_to_nobody_without_one(self):
        twice = MAIL | {"recipients": [{"address": "mira@example.org"}, *MAIL["recipients"]]}
        (mail,) = due_of([twice], {"mail": "Mira@example.org"})
        assert (mail.content["to"], mail.content["bcc"]) == (["mira@example.org"], [])
        nobody = MAIL | {"only_when": "", "recipients": [{"field": "mail"}]}
        assert due_of([nobody], {"who": "x"}) == []

    def test_no_answer_can_begin_another_header_or_be_html(self):
        (mail,) = due_of([MAIL], {"who": "A\r\nBcc: all@example.org <b>", "mail": "i@example.org"})
        assert "\n" not in mail.content["subject"]
        assert "&lt;b&gt;" in mail.content["pieces"][0]["html"]

    def test_rows_are_told_one_by_one(self):
        rows = [{"kind": "k", "id": f"r{n}", "values": {"count": str(n)}} for n in (2, 5)]
        (mail,) = due_of([MAIL], {"mail": "i@example.org", "lines": rows})
        assert mail.content["pieces"][-1]["answers"][-2:] == [["Lines 1", "Count: 2"], ["Lines 2", "Count: 5"]]

    def test_says_what_it_lacks(self):
        assert codes(MAIL) == []
        assert codes(MAIL | {"recipients": []}) == ["no_recipient"]
        assert codes(MAIL | {"recipients": [{"address": "mira.example"}]}) == ["no_recipient"]
        assert codes(MAIL | {"recipients": [{"field": "gone"}]}) == ["no_recipient"]
        assert codes(MAIL | {"recipients": [{"field": "who"}]}) == ["no_recipient"]
        assert codes(MAIL | {"only_when": ""}) == ["may_have_no_recipient"]
        assert codes(MAIL | {"subject": " "}) == ["no_subject"]
        assert codes(MAIL | {"paragraphs": [], "all_answers": False}) == ["no_words"]
        assert codes(MAIL | {"recipients": [], "active": False}) == []


class TestWebhook:
    def test_carries_the_response_by_keys(self):
        (hook,) = due_of([HOOK], {"who": "Ingrid", "site": "odome"}, "handed in")
        body = hook.content["body"]
        assert (body["event"], body["number"], body["answers"]["site"]) == ("handed in", 7, "dome")
        assert (body["answers"]["mail"], body["answers"]["lines"], body["figures"]["quiz"]["points"]) == (None, [], "1")

    def test_needs_an_address(self):
        assert codes(HOOK | {"address": ""}) == ["no_address"]


def test_a_trial_expects_what_is_done_and_with_which_words():
    trial = {"id": "t", "name": "Ingrid", "day": "2026-03-02", "answers": {"who": "Ingrid", "mail": "i@example.org"}}
    said = "mail to i@example.org, MIRA@example.org: For Ingrid, no. 1"
    expected = {"u1": said, "u2": "response to https://www.example.org/in"}

    def result_of(wanted, *follow_ups):
        trials = [trial | {"expected": {"follow_ups": wanted}}]
        form = program_of(*BLOCKS, figures=[QUIZ], follow_ups=list(follow_ups), trials=trials)
        return run_trials(form).results[0]

    assert result_of(expected, MAIL, HOOK).passed
    assert result_of(None, MAIL).passed
    (difference,) = result_of(expected, MAIL).differences
    assert (difference.expected, difference.came) == ("response to https://www.example.org/in", "nothing")


def test_its_words_follow_a_key_that_is_renamed():
    changed = renamed(program(MAIL).form, "who", "key", "guest").follow_ups[0]
    assert (changed.subject, changed.paragraphs[0].text) == (
        "For {guest}, no. {response.number}",
        "<p>Dear {guest}</p>",
    )


NOW = CONTEXT.now.astimezone(ZoneInfo("Europe/Berlin"))
MIRA = "5b0c1c1e-1111-4222-8333-944445555666"
DATED = [*BLOCKS, block("date", "visit"), block("file_upload", "photos", kinds=["picture"])]


def due_with(follow_up, answers, moment="complete", people=None):
    form = program_of(*DATED, follow_ups=[follow_up])
    kept = numbered(accept(form, answers, replace(CONTEXT, now=NOW, people=people or {})), 7)
    return due(kept.state, moment)


class TestPeopleOfTheTeam:
    TO_MIRA = MAIL | {"only_when": "", "recipients": [{"person": MIRA}], "all_answers": False}

    def test_are_written_to_where_they_are_reached_now(self):
        (mail,) = due_with(self.TO_MIRA, {}, people={MIRA: "mira@example.org"})
        assert mail.content["to"] == ["mira@example.org"]
        assert due_with(self.TO_MIRA, {}) == []

    def test_who_left_is_found(self):
        form = program(self.TO_MIRA)
        assert [each.code for each in follow_up_findings(form, {})] == ["no_recipient"]
        assert list(follow_up_findings(form, {MIRA: "mira@example.org"})) == []
        assert form.form.people == {MIRA}


class TestDays:
    @staticmethod
    def mail(**day):
        return MAIL | {"only_when": "", "recipients": [{"address": "a@example.org"}], "on": "day", "day": day}

    @pytest.mark.parametrize(
        ("day", "expected"),
        [
            ({"field": "visit", "days": -1, "at": "10:00"}, "2027-05-31T10:00:00+02:00"),
            ({"field": "visit", "days": 0, "at": "23:59"}, "2027-06-01T23:59:00+02:00"),
            ({"days": 300}, "2027-09-19T09:00:00+02:00"),
        ],
    )
    def test_are_counted_from_a_date_in_the_form_s_time_zone(self, day, expected):
        (mail,) = due_with(self.mail(**day), {"visit": "2027-06-01"}, "day")
        assert mail.at == expected
        assert told(mail, "en").startswith("on ")
        assert told(mail, "en").endswith(": mail to a@example.org: For , no. 7")

    def test_that_have_passed_or_have_no_date_set_nothing_off(self):
        assert due_with(self.mail(field="visit", days=-1), {"visit": CONTEXT.today.isoformat()}, "day") == []
        assert due_with(self.mail(field="visit"), {}, "day") == []
        assert due_with(self.mail(field="visit", days=1_000), {"visit": "9999-12-31"}, "day") == []
        assert due_with(self.mail(field="visit"), {"visit": "2027-06-01"}, "complete") == []

    def test_say_what_is_wrong_with_their_field(self):
        def codes_of(**day):
            form = program_of(*DATED, follow_ups=[self.mail(**day)])
            return [each.code for each in follow_up_findings(form, None)]

        assert codes_of(days=2) == []
        assert codes_of(field="visit") == ["may_have_no_day"]
        assert codes_of(field="who") == ["no_day"]
        assert codes_of(field="gone") == ["no_day"]


class TestWhatGoesAlong:
    FILES = [
        {"id": f"00000000-0000-4000-8000-00000000000{n}", "name": f"{n}.png", "size": size, "type": "image/png"}
        for n, size in enumerate((900_000, 400_000, 90_000))
    ]
    MAIL = MAIL | {"only_when": "", "recipients": [{"address": "a@example.org"}], "paragraphs": [], "megabytes": 1}

    def test_files_fill_the_room_that_there_is(self):
        (mail,) = due_with(self.MAIL | {"files": True}, {"photos": self.FILES})
        assert [each["name"] for each in mail.content["files"]] == ["0.png", "2.png"]
        assert mail.content["pieces"][-1] == {"left_out": ["1.png"]}
        assert told(mail, "en").endswith(", with 0.png, 2.png")

    def test_the_response_is_a_document_by_pages(self):
        (mail,) = due_with(self.MAIL | {"pdf": True}, {"who": "Ola", "site": "odeck", "photos": self.FILES})
        document = mail.content["pdf"]
        assert (document["number"], document["paper"]) == (7, "A4")
        (page,) = document["pages"]
        assert [(each["label"], each["text"]) for each in page["answers"]] == [
            ("Who", "Ola"),
            ("Site", "Deck"),
            ("Photos", "0.png, 1.png, 2.png"),
        ]
        assert [each["name"] for each in page["answers"][-1]["files"]] == ["0.png", "1.png", "2.png"]

    def test_files_of_a_form_without_any_field_are_doubted(self):
        assert codes(self.MAIL | {"files": True, "subject": "x"}) == ["no_files"]

    def test_a_drawing_that_mail_does_not_show_is_found(self):
        drawing = {"picture": "data:image/svg+xml;base64,PHN2Zy8+"}
        assert codes(MAIL | {"paragraphs": [drawing]}) == ["no_picture"]
        assert codes(MAIL | {"paragraphs": [{"picture": "/pictures/x"}]}) == []


def test_a_mail_to_two_hundred_people_is_no_mail():
    recipients = [{"address": f"p{n}@example.org"} for n in range(200)]
    with pytest.raises(DefinitionError, match="50"):
        program(MAIL | {"recipients": recipients})


def test_a_long_answer_makes_a_subject_of_one_line():
    form = program_of(
        block("long_text", "who"),
        block("email", "mail"),
        follow_ups=[MAIL | {"recipients": [{"field": "mail"}], "paragraphs": []}],
    )
    kept = numbered(accept(form, {"who": "A\r\n" * 1_500, "mail": "i@example.org"}, CONTEXT), 7)
    (mail,) = due(kept.state, "complete")
    assert len(mail.content["subject"]) == 200
    assert "\n" not in mail.content["subject"]


def test_why_it_is_done_or_not_is_told_by_its_rules():
    def why(answers):
        return explain_all(evaluate(program(MAIL), answers, CONTEXT), "u1")

    done, recipient, paragraph = why({"mail": "i@example.org", "site": "odome"})
    assert (done.fact, done.value) == ("only_when", "is done")
    assert done.sentence.startswith("the follow-up Thanks is done, because 1.2 Mail is i@example.org")
    assert (recipient.fact, recipient.value) == ("recipients.1.when", "does not go to this recipient")
    assert (paragraph.value, paragraph.because[0].value) == ("does not have this paragraph", "is Dome")
    assert [each.value for each in why({"site": "odeck"})] == [
        "is not done",
        "goes to this recipient",
        "has this paragraph",
    ]
