"""The Travelling dome quote, made from nothing by the interface alone; it computes what the shipped one does."""

import datetime
import json
import re
from random import Random
from zoneinfo import ZoneInfo

from conftest import EXAMPLES
from playwright.sync_api import expect

from browser.conftest import area, saved
from browser.making import bands, choose, press_publish
from browser.test_slice import add
from codexa.core.context import Context
from codexa.core.definition.reading import read_part
from codexa.core.form.form import Form
from codexa.core.program.compiling import compile_form
from codexa.core.program.samples import sample_answers
from codexa.core.program.trials import outcome_of, state_on

SHIPPED = json.loads((EXAMPLES / "travelling_dome_quote.json").read_text(encoding="utf-8"))


def settings(page):
    return page.get_by_role("complementary", name="Inspector")


def tab(page, name):
    page.get_by_role("tab", name=name).click()


def key(page, name):
    field = page.get_by_role("textbox", name="Key", exact=True)
    field.fill(name)
    field.press("Enter")


def required(page):
    tab(page, "Behaviour")
    page.get_by_role("switch", name="Must be answered").check()


def write(page, name, formula):
    """Type a formula; name is its setting's title."""
    editor = page.get_by_role("textbox", name=f"Formula: {name}")
    editor.press("ControlOrMeta+a")
    editor.press_sequentially(formula)
    expect(editor).to_have_text(formula)


def write_note(page, absent, name, formula, *, condition=False):
    """Open a note that says that there is nothing yet, and write its formula."""
    page.get_by_role("button", name=absent).first.click()
    if condition:
        page.get_by_role("button", name="as formula").click()
    write(page, name, formula)
    page.get_by_role("button", name="Done").click()


def options(page, *rows):
    """Paste options as a spreadsheet gives them: label, code, number."""
    tab(page, "Answers")
    page.get_by_role("button", name="All as text").click()
    page.get_by_role("textbox", name="Label, code, number and price, with tabs between").fill(
        "\n".join("\t".join(row) for row in rows)
    )
    page.get_by_role("button", name="As a table").click()
    expect(page.get_by_role("textbox", name="Label of option 1")).to_have_value(rows[0][0])


def fill_setting(page, at, values):
    tab(page, at)
    for name, value in values.items():
        page.get_by_role("textbox", name=name, exact=True).fill(value)


def figure(page, kind, name, its_key, *, shown_as=None, decimals=None, visitors=False):
    page.get_by_role("button", name="Add a figure").click()
    page.get_by_role("menuitem", name=kind).click()
    field = page.get_by_role("textbox", name="Name", exact=True)
    expect(field).to_be_focused()
    field.fill(name)
    key(page, its_key)
    if shown_as:
        choose(page, "Shown as", shown_as)
    if decimals:
        page.get_by_role("textbox", name="Decimals shown").fill(decimals)
    if visitors:
        page.get_by_role("switch", name="Visitors may see it").check()


def test_the_quote_is_rebuilt_by_the_interface_and_computes_the_same(desk, tmp_path):
    page = desk
    page.get_by_role("button", name="New form", exact=True).click()
    page.get_by_role("menuitem", name="Blank form").click()
    page.get_by_role("textbox", name="Name of the form").fill("Quote rebuilt")
    page.keyboard.press("Enter")
    page.get_by_role("textbox", name="Title for visitors").fill(SHIPPED["title"])
    first_page(page)
    second_page(page)
    figures(page)
    third_page(page)
    confirmations(page)
    saved(page)
    expect(page.get_by_role("button", name=re.compile("^Proof: "))).to_have_text(re.compile("no errors"))
    press_publish(page, 1)
    expect(page.get_by_text("Edition 1 is live.")).to_be_visible()
    page.keyboard.press("Control+k")
    page.get_by_role("combobox", name="Find a block, an area or an action").fill("save the form as a file")
    with page.expect_download() as download:
        page.keyboard.press("Enter")
    download.value.save_as(tmp_path / "rebuilt.json")
    compare(json.loads((tmp_path / "rebuilt.json").read_text(encoding="utf-8")))


def first_page(page):
    page.get_by_role("textbox", name="Title of page 1").fill("Where and when")
    add(page, "single choice", "Who invites us?")
    key(page, "host")
    options(
        page, ("A school or nursery", "school", "1"), ("A club or village", "club", "2"), ("A company", "firm", "4")
    )
    required(page)
    add(page, "short text", "Name of the school")
    key(page, "school_name")
    required(page)
    page.get_by_role("button", name="always shown; add a rule").click()
    page.get_by_role("combobox", name="Field or figure").fill("who")
    page.get_by_role("option", name="1.1 Who invites us?").click()
    choose(page, "Value", "A school or nursery")
    page.get_by_role("button", name="Done").click()
    fill_setting(page, "Checks", {"At least so many characters": "3", "At most so many characters": "120"})
    add(page, "number", "How far is it from the Summit Dome?")
    key(page, "distance")
    fill_setting(page, "Answers", {"Unit": "km"})
    required(page)
    fill_setting(page, "Checks", {"Minimum": "0", "Maximum": "400"})
    add(page, "date", "On which day?")
    key(page, "day")
    required(page)
    tab(page, "Checks")
    write_note(page, "Any; set a limit", "not before", "TODAY() + 14")
    add(page, "yes or no", "Is there a socket within 30 metres?")
    key(page, "power")
    required(page)


def second_page(page):
    page.get_by_role("button", name="Add a page").click()
    page.get_by_role("textbox", name="Title of page 2").fill("The evening")
    add(page, "slider", "How many shows?")
    key(page, "shows")
    fill_setting(page, "Answers", {"From": "1", "To": "6"})
    required(page)
    add(page, "number", "How many people in all?")
    key(page, "guests")
    required(page)
    fill_setting(page, "Checks", {"Minimum": "5", "Maximum": "600"})
    add(page, "several choices", "What else shall we bring?")
    key(page, "extras")
    options(
        page,
        ("A telescope for after the show", "scope", "3"),
        ("The meteorite box", "meteor", "1"),
        ("A speaker for questions", "talk", "2.5"),
        ("Somebody who stays the night", "night", "4"),
    )
    page.get_by_role("button", name="More for option 4").click()
    page.get_by_role("menuitem", name="Show it by a rule").click()
    page.get_by_role("button", name="as formula").click()
    write(page, "option shown when", 'host = "school"')
    page.get_by_role("button", name="Done").click()
    add(page, "dropdown", "In which language?")
    key(page, "language")
    options(
        page,
        ("English", "english", "0"),
        ("German", "german", "0"),
        ("Another, with an interpreter", "other_tongue", "2.5"),
    )
    required(page)
    write_note(page, "Blank; give it a default", "begins as", '"english"')


def figures(page):
    area(page, "Figures")
    money = {"shown_as": "Money in the form’s currency"}
    worked_out = "= is worked out by"
    figure(page, "Formula", "Points", "points", decimals="1", visitors=True)
    points = "host + shows * 2 + extras + language + IF(guests > 100, (guests - 100) / 50, 0) + IF(power, 0, 1.5)"
    write(page, worked_out, points)
    figure(page, "Bands", "Price of the evening", "base", **money, visitors=True)
    write(page, worked_out, "points")
    evenings = [("", "a small evening", "240"), ("6", "a usual evening", "390")]
    bands(page, *evenings, ("10.5", "a long evening", "560"), ("16", "a festival", "820"))
    expect(page.get_by_text("No gaps, no overlaps")).to_be_visible()
    figure(page, "Formula", "Schools pay a fifth less", "school_discount", **money)
    write(page, worked_out, 'IF(host = "school", base * 20%, 0)')
    figure(page, "Formula", "5 % less when booked 90 days before", "early_discount", **money)
    write(page, worked_out, "IF(day >= TODAY() + 90, (base - school_discount) * 5%, 0)")
    figure(page, "Formula", "All discounts", "discount", **money, visitors=True)
    write(page, worked_out, "school_discount + early_discount")
    figure(page, "Bands", "Surcharge for the way", "surcharge", **money, visitors=True)
    write(page, worked_out, "distance")
    near, region = ("", "around the hill", "0"), ("40", "the region", "(distance - 40) * 0.85")
    bands(page, near, region, ("150", "far away", "93.50 + (distance - 150) * 0.60"))
    saved(page)


def third_page(page):
    area(page, "Compose")
    page.get_by_role("button", name="Add a page").click()
    page.get_by_role("textbox", name="Title of page 3").fill("Your price")
    for label, its_key, formula, shown in (
        ("The evening", "price_of_evening", "base", None),
        ("Less for schools and for early booking", "price_less", "0 - discount", "discount > 0"),
        ("Distance", "price_of_way", "surcharge", "surcharge > 0"),
        ("In all", "total", "base - discount + surcharge", None),
    ):
        add(page, "calculated", label)
        key(page, its_key)
        tab(page, "Answers")
        choose(page, "Shown as", "Money in the form’s currency")
        write_note(page, "no formula yet; write one", "= is worked out by", formula)
        if shown:
            write_note(page, "always shown; add a rule", "shown when", shown, condition=True)
    add(page, "e-mail", "Where shall we send the offer?")
    key(page, "email")
    required(page)


def confirmations(page):
    page.get_by_role("button", name="Add a confirmation").click()
    page.get_by_role("textbox", name="Name", exact=True).fill("All others")
    page.get_by_role("textbox", name="Heading", exact=True).fill("Your offer is on its way")
    page.get_by_role("button", name="Add a text").click()
    text = page.get_by_role("textbox", name="Text of paragraph 1", exact=True)
    text.click()
    page.keyboard.type("We will write to {email} with an offer of {total} for {base.label} on {day}.")
    page.get_by_role("button", name="Add a text").click()
    page.get_by_role("textbox", name="Text of paragraph 2", exact=True).click()
    page.keyboard.type("You save {discount}.")
    page.get_by_role("group", name="Paragraph 2").get_by_role("button", name="Always; add a rule").click()
    page.get_by_role("button", name="as formula").click()
    write(page, "paragraph shown when", "discount > 0")
    page.get_by_role("button", name="Done").click()
    page.get_by_role("button", name="Add a confirmation").click()
    page.get_by_role("textbox", name="Name", exact=True).fill("Festival")
    page.get_by_role("textbox", name="Heading", exact=True).fill("A festival under the dome")
    page.get_by_role("button", name="Always, unless one above it follows").click()
    page.get_by_role("button", name="as formula").click()
    write(page, "follows when", 'base.label = "a festival"')
    page.get_by_role("button", name="Done").click()


NOON = datetime.datetime(2026, 6, 1, 12, tzinfo=ZoneInfo("Europe/Berlin"))


def keys_of(form):
    """The keys of blocks and figures by id."""
    blocks = [block for page in form.pages for block in page.blocks]
    return {part.id: part.key for part in (*blocks, *form.figures)}


def codes_of(form):
    """The codes of options by id: answers name an option by either, and only codes are the same in both forms."""
    blocks = [block for page in form.pages for block in page.blocks if hasattr(block, "options")]
    return {option.id: option.code for block in blocks for option in block.options}


def in_codes(answer, codes):
    return [codes[each] for each in answer] if isinstance(answer, list) else codes.get(answer, answer)


def outcome_by_key(program, answers):
    """All that comes out of answers by key, told by keys and titles: what two forms with other ids have in common."""
    keys = keys_of(program.form)
    ids = {key: part for part, key in keys.items()}
    given = {ids[key]: answer for key, answer in answers.items()}
    found = outcome_of(state_on(program, given, {}, NOON.date()))
    pages = {page.id: page.title for page in program.form.pages}
    endings = {each.id: each.title for each in program.form.confirmations}
    return {
        "figures": {keys[part]: value for part, value in found.figures.items()},
        "shown": sorted(keys[part] for part in found.shown),
        "hidden": sorted(keys[part] for part in found.hidden),
        "wrong": sorted(keys[part] for part in found.wrong),
        "path": [pages[page] for page in found.path],
        "confirmation": endings[found.confirmation],
    }


def compare(document):
    shipped, rebuilt = (compile_form(read_part(Form, each)) for each in (SHIPPED, document))
    keys, codes = keys_of(shipped.form), codes_of(shipped.form)
    outcomes = []
    for seed in range(40):
        sample = sample_answers(shipped, Random(seed), Context(now=NOON, locale="en"))
        answers = {keys[part]: in_codes(answer, codes) for part, answer in sample.items()}
        outcomes.append(outcome_by_key(shipped, answers))
        assert outcome_by_key(rebuilt, answers) == outcomes[-1]
    # The fill-ins are worth comparing: they reach several bands and both endings.
    for figure_of_bands in ("base", "surcharge"):
        assert len({each["figures"][figure_of_bands] for each in outcomes}) >= 3
    assert {each["confirmation"] for each in outcomes} == {each.title for each in shipped.form.confirmations}
