"""A form in further languages: all that visitors read, and one set of responses."""

from dataclasses import replace
from random import Random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as some

from codexa.core.definition.formulas import INSERTION
from codexa.core.definition.translation import FurtherLanguage, Translation
from codexa.core.errors import DefinitionError
from codexa.core.form.comparing import describe_changes
from codexa.core.form.form import read_form
from codexa.core.form.renaming import rename_key
from codexa.core.form.translating import in_language, translations, values_in, visitor_texts
from codexa.core.program.accept import Accepted, accept, in_own_language, numbered
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.follow_ups import due
from codexa.core.program.kept import entered_in_language
from codexa.core.program.proof import proof
from codexa.core.program.public import confirmation_face, form_face, form_state
from codexa.core.program.samples import sample_answers
from codexa.core.program.translated import program_in_language
from core.any_form import forms
from core.forms import block, options, program_of
from core.formulas import CONTEXT

GERMAN = replace(CONTEXT, locale="de")
FORMS = forms().map(read_form)


def marked(text):
    """A translation that shows itself as one, with all values of the text."""
    return "«" + text.replace("<p>", "").replace("</p>", "") + "»"


def translated(form, **texts):
    """The form with every text translated into German, but for those given by address ("" for none)."""
    known = {each.at: {"of": each.text, "text": texts.get(each.at, marked(each.text))} for each in visitor_texts(form)}
    language = FurtherLanguage.model_validate({"locale": "de", "texts": known})
    return form.model_copy(update={"languages": (language,)})


def pair(form):
    own = compile_form(translated(form))
    return own, program_in_language(own, "de")


@settings(max_examples=40, deadline=None)
@given(form=FORMS, seed=some.integers(0, 1000))
def test_whoever_fills_in_whichever_form_in_another_language_gives_the_same_response(form, seed):
    own, german = pair(form)
    assert own.own is None
    answers = sample_answers(own, Random(seed), CONTEXT)
    typed = entered_in_language(evaluate(own, answers, CONTEXT), german)
    one, other = accept(own, answers, CONTEXT), accept(german, typed, GERMAN)
    if not isinstance(one, Accepted):
        assert one.errors.keys() == other.errors.keys()
        return
    one, other = numbered(one, 7), numbered(other, 7)
    for name in ("answers", "computed", "path", "confirmation"):
        assert getattr(one, name) == getattr(other, name)
    # Typed back, it is what was typed first, or means the same.
    back = accept(own, entered_in_language(evaluate(german, typed, GERMAN), own), CONTEXT)
    assert back.answers == one.answers


@settings(max_examples=40, deadline=None)
@given(form=FORMS)
def test_nothing_that_visitors_read_is_left_out(form):
    _, german = pair(form)
    face = form_face(german).model_dump()
    state = form_state(evaluate(german, {}, GERMAN))
    titles = [face["title"], *(each["title"] for each in face["pages"] if each["title"])]
    titles += [each["label"] for page in face["pages"] for each in page["blocks"] if each.get("label")]
    filled = [each.get("texts", {}) for each in state["blocks"].values()]
    titles += [texts["label"] for texts in filled if "label" in texts]
    # One question at a time what is looked over comes with the form's own words.
    usual = {german.form.say("lookOver")}
    assert titles
    assert all(each.startswith("«") for each in set(titles) - usual)
    assert [each["locale"] for each in face["languages"]] == ["en", "de"]


def visit(**more):
    checks = [{"formula": "adults < 60", "message": "Too many"}, {"formula": "adults > 0", "message": "Nobody"}]
    adults = block("number", "adults", checks=checks, help="With {day}")
    topic = block("single_choice", "topic", options=options("dome", "deck"))
    pages = [{"id": "p1", "title": "One", "blocks": [adults, topic, block("date", "day")]}]
    return read_form({"name": "Visit", "title": "Visit", "pages": pages, **more})


def standing(form):
    return {each.site.at: (each.text, each.standing) for each in translations(form, form.languages[0])}


def codes(form):
    found = proof(compile_form(form))
    return [(each.code, each.block) for each in found if (each.setting or "").startswith("languages")]


class TestChanges:
    """What becomes of translations while the form changes."""

    def test_options_and_checks_that_change_their_places_keep_their_translations(self):
        form = translated(visit())
        document = form.model_dump(mode="json")
        adults, topic = document["pages"][0]["blocks"][:2]
        adults["checks"].reverse()
        topic["options"].reverse()
        turned = in_language(read_form(document), "de").pages[0].blocks
        assert [each.message for each in turned[0].checks] == ["«Nobody»", "«Too many»"]
        assert [each.label for each in turned[1].options] == ["«Deck»", "«Dome»"]

    def test_a_text_that_was_changed_shows_its_old_translation_and_is_told(self):
        document = translated(visit()).model_dump(mode="json")
        document["title"] = "A visit"
        form = read_form(document)
        assert standing(form)["whole-form.title"] == ("«Visit»", "changed")
        assert in_language(form, "de").title == "«Visit»"
        assert codes(form) == [("old_translation", None)]

    def test_a_check_that_is_new_takes_no_translation_of_another(self):
        document = translated(visit()).model_dump(mode="json")
        document["pages"][0]["blocks"][0]["checks"].insert(0, {"formula": "adults <> 13", "message": "Unlucky"})
        form = read_form(document)
        assert standing(form)["adults.checks.0.message"] == ("", "missing")
        assert standing(form)["adults.checks.1.message"] == ("«Too many»", "done")
        assert codes(form) == [("no_translation", "adults")]

    def test_renaming_a_field_renames_it_in_translations_too(self):
        form = rename_key(translated(visit()), "day", "when")
        assert values_in(in_language(form, "de").pages[0].blocks[0].help) == {"when"}
        assert codes(form) == []

    def test_what_is_not_translated_is_read_in_the_form_s_own_words(self):
        form = translated(visit(), **{"adults.label": "", "topic.options.odeck.label": ""})
        blocks = in_language(form, "de").pages[0].blocks
        assert (blocks[0].label, [each.label for each in blocks[1].options]) == ("Adults", ["«Dome»", "Deck"])
        assert [each.message for each in proof(compile_form(form)) if each.code == "no_translation"] == [
            "Deutsch: 2 texts have no translation, the first is “Adults”."
        ]


def test_what_changed_between_two_states_is_told_by_language():
    before = visit(languages=[{"locale": "de"}, {"locale": "fr"}])
    kept = {"whole-form.title": {"of": "Visit", "text": "Besuch"}}
    after = visit(languages=[{"locale": "de", "texts": kept}, {"locale": "ja"}])
    assert [each.words for each in describe_changes(before, after)] == [
        "Deutsch: 1 translation changed",
        "language removed: Français",
        "language added: 日本語",
    ]


class TestProof:
    """What is doubtful or wrong in a translation."""

    @pytest.mark.parametrize(
        ("help_", "code"), [("Mit einem Tag", "lost_value"), ("Mit {day} und {nobody}", "unknown_value")]
    )
    def test_values_that_are_lost_or_mean_nothing_are_found(self, help_, code):
        assert codes(translated(visit(), **{"adults.help": help_})) == [(code, "adults")]

    def test_a_way_on_to_any_website_is_refused_and_not_followed(self):
        ending = {"id": "e1", "redirect": "https://www.example.org/{topic}"}
        form = translated(visit(confirmations=[ending]), **{"e1.redirect": "https://{topic}.example.org/"})
        assert ("open_redirect", "e1") in codes(form)
        assert in_language(form, "de").confirmations[0].redirect == ending["redirect"]

    def test_a_formula_that_compares_words_of_options_is_doubted(self):
        text = block("calculated", "told", formula='topic.label = "Dome"', format="text")
        pages = [{"id": "p1", "blocks": [*visit().model_dump(mode="json")["pages"][0]["blocks"], text]}]
        found = proof(compile_form(translated(visit(pages=pages))))
        assert [each.block for each in found if each.code == "label_compared"] == ["told"]

    @pytest.mark.parametrize("locale", ["xx-nowhere", "", "klingon"])
    def test_a_language_that_is_none_is_refused(self, locale):
        with pytest.raises(DefinitionError, match="no language we know"):
            visit(languages=[{"locale": locale}])

    def test_a_language_is_there_once(self):
        with pytest.raises(DefinitionError, match="twice"):
            visit(languages=[{"locale": "de"}, {"locale": "de"}])

    def test_html_of_a_translation_is_made_harmless(self):
        text = block("text", "words", text="<p>Hello</p>")
        form = read_form({"name": "Any", "pages": [{"id": "p1", "blocks": [text]}]})
        shown = in_language(translated(form, **{"words.text": "<p>Hallo<script>alert(1)</script></p>"}), "de")
        assert shown.pages[0].blocks[0].text == "<p>Hallo</p>"


def test_numbers_and_days_are_typed_anew_and_what_is_no_answer_stays():
    rows = {"id": "k", "key": "line", "label": "Line", "blocks": [block("number", "count", decimals=2)]}
    blocks = [
        block("number", "weight", decimals=2),
        block("money", "price"),
        block("date", "day"),
        block("short_text", "who"),
    ]
    own = program_of(*blocks, block("repeat", "lines", kinds=[rows]), languages=[{"locale": "de"}])
    german = program_in_language(own, "de")
    row = {"kind": "k", "id": "r1", "values": {"count": "1,234.5"}}
    typed = {"weight": "1.5", "price": "abc", "day": "2026-12-01", "who": "1.5", "lines": [row]}
    found = entered_in_language(evaluate(own, typed, CONTEXT), german)
    assert (found["weight"], found["price"], found["who"]) == ("1,5", "abc", "1.5")
    assert found["lines"][0]["values"]["count"] == "1.234,5"
    assert (
        accept(german, found | {"price": "2,50"}, GERMAN).answers
        == accept(own, typed | {"price": "2.50"}, CONTEXT).answers
    )


class TestAfterSending:
    """What is told of a response, and to whom in which language."""

    BLOCKS = (
        block("email", "mail"),
        block("single_choice", "site", options=options("dome", "deck")),
        block("number", "weight", decimals=1),
        block("calculated", "told", formula='site.label & " " & TEXT(weight, "0.0")', format="text"),
    )
    MAILS = (
        {"id": "u1", "kind": "email", "recipients": [{"field": "mail"}], "subject": "For {site.label}: {weight}"},
        {
            "id": "u2",
            "kind": "email",
            "recipients": [{"address": "team@example.org"}],
            "subject": "{site.label}, {weight}",
        },
    )

    @pytest.fixture
    def accepted(self):
        ending = {"id": "e1", "title": "Thanks for {weight} at {site.label}"}
        form = program_of(*self.BLOCKS, follow_ups=self.MAILS, confirmations=[ending]).form
        german = pair(form)[1]
        answers = {"mail": "ana@example.org", "site": "dome", "weight": "1,5"}
        return numbered(accept(german, answers, GERMAN), 3)

    def test_visitors_read_their_language_and_the_team_the_form_s(self, accepted):
        assert confirmation_face(accepted.state).title == "«Thanks for 1,5 at «Dome»»"
        told = {each.follow_up: each.content for each in due(accepted.state, "complete")}
        assert (told["u1"]["subject"], told["u1"]["locale"]) == ("«For «Dome»: 1,5»", "de")
        assert (told["u2"]["subject"], told["u2"]["locale"]) == ("Dome, 1.5", "en")

    def test_what_is_kept_is_in_the_form_s_own_language(self, accepted):
        assert accepted.computed["told"] == "Dome 1.5"
        assert in_own_language(accepted.state).context.locale == "en"

    def test_mail_to_the_team_alone_is_not_translated(self, accepted):
        own = accepted.state.program.own
        assert {"u1.subject"} == {each.at for each in visitor_texts(own.form) if each.owner in ("u1", "u2")}


def test_every_value_of_a_text_is_known():
    assert values_in("{Name} and {{no value}} and {a.b}") == {"name", "a.b"}
    assert INSERTION.search("{{") is not None
    kept = Translation(of="a", text="b")
    assert FurtherLanguage(locale="de", texts={"x": kept}).texts["x"] is kept
