"""Follow-ups: which are due, to whom and with which words; and what one lacks is found."""

from codexa.core.program.accept import accept, numbered
from codexa.core.program.follow_ups import due, follow_up_findings
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
        assert mail.told == "mail to i@example.org, deck@example.org, MIRA@example.org: For Ingrid, no. 7"

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
