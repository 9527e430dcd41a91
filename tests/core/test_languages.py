"""What a form says by itself in its language: whole catalogues, plural forms, errors, and the author's own words."""

import re

import pytest
from babel import Locale
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.definition.wording import COUNTED, MESSAGES, Wording
from codexa.core.form.form import read_form
from codexa.core.languages import LANGUAGES, _words, counted, translated
from codexa.core.languages.extracting import template
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.public import form_face, form_state
from codexa.core.sentences import Sentence, in_language
from core.formulas import CONTEXT

TEXTS = [each for each in template() if each.id]
COUNTED_TEXTS = [each for each in TEXTS if isinstance(each.id, tuple)]
OTHERS = [each for each in LANGUAGES if each != "en"]


def placeholders(text):
    return set(re.findall(r"\{\w+\}", text))


@pytest.mark.parametrize("language", OTHERS)
def test_every_text_is_there_in_every_language_with_its_values(language):
    for text in TEXTS:
        if isinstance(text.id, tuple):
            # Forms of one and two may say the number in a word.
            forms = {counted(*text.id, count, language, text.context or "") for count in range(200)}
            assert forms.isdisjoint(text.id)
            assert all(placeholders(text.id[1]) - {"{count}"} <= placeholders(form) for form in forms)
            many = counted(*text.id, 100, language, text.context or "")
            assert placeholders(many) == placeholders(text.id[1])
        else:
            found = _words(language).catalogue.get(text.id, text.context)
            assert found is not None, f"{language}.po lacks {text.context or ''} {text.id}"
            words = translated(text.id, language, text.context or "")
            assert words.strip()
            assert placeholders(words) == placeholders(text.id)


@given(language=some.sampled_from(OTHERS), count=some.integers(0, 1_000_000), text=some.sampled_from(COUNTED_TEXTS))
def test_a_count_takes_the_form_of_its_category(language, count, text):
    category = Locale.parse(language).plural_form
    like = next(each for each in (*range(200), 1_000_000) if category(each) == category(count))
    words = (counted(*text.id, each, language, text.context or "") for each in (count, like))
    assert len(set(words)) == 1


def test_the_browser_is_told_every_form_of_what_it_counts():
    for language in OTHERS:
        told = Wording().in_language(language).messages
        categories = {Locale.parse(language).plural_form(count) for count in range(200)}
        for many in COUNTED:
            assert {f"{many}#{category}" for category in categories} <= told.keys()


def form_in(locale, **wording):
    blocks = [
        {"id": "n", "type": "number", "key": "n", "label": "N", "maximum": "5"},
        {"id": "d", "type": "date", "key": "d", "label": "D"},
        {"id": "t", "type": "short_text", "key": "t", "label": "T", "pattern": "x+", "pattern_message": "Only x."},
        {"id": "r", "type": "short_text", "key": "r", "label": "R", "required": "TRUE"},
    ]
    form = {"name": "Words", "locale": locale, "pages": [{"id": "p", "blocks": blocks}], "wording": wording}
    return compile_form(read_form(form))


def errors_of(program, answers):
    blocks = form_state(evaluate(program, answers, CONTEXT))["blocks"]
    return {block: facts["error"]["message"] for block, facts in blocks.items() if "error" in facts}


def test_errors_are_in_the_language_of_the_form_and_an_authors_words_stay_as_they_are():
    wrong = {"n": "6", "d": "yesterday", "t": "y"}
    assert errors_of(form_in("de_AT"), wrong) == {
        "n": "Geben Sie 5 oder weniger ein.",
        "d": "Geben Sie ein Datum ein, etwa 25.03.26.",
        "t": "Only x.",
        "r": "Bitte beantworten Sie das.",
    }
    own = form_in("de", required="Das brauchen wir.", messages={"not_a_date": "Welcher Tag?"})
    assert errors_of(own, wrong)["d"] == "Welcher Tag?"
    assert errors_of(own, wrong)["r"] == "Das brauchen wir."


def test_a_language_that_we_have_no_words_in_says_it_in_english():
    assert errors_of(form_in("hu"), {"n": "6"}) == {"n": "Enter 5 or less.", "r": "Please answer this."}


def test_own_words_stand_in_place_of_all_forms_of_the_usual_ones():
    words = form_face(form_in("pl", submit="Hop", messages={"left": "{count} !"})).wording
    assert words.submit == "Hop"
    assert words.messages["left"] == "{count} !"
    assert not any(each.startswith("left#") for each in words.messages)
    assert words.next == translated("Next", "pl", "next")


def test_sentences_of_ours_are_said_in_a_language_and_what_people_wrote_is_not():
    assert in_language("Enter a whole number.", "de") == "Enter a whole number."
    assert in_language(Sentence("Enter a whole number."), "de") == "Geben Sie eine ganze Zahl ein."
    rows = Sentence.counted("Add at least {count} row.", "Add at least {count} rows.", count=1)
    assert rows == "Add at least 1 row."
    assert rows.said_in("de") == "Fügen Sie mindestens 1 Zeile hinzu."
    assert all(each.usual == each.usual.strip() for each in MESSAGES)
