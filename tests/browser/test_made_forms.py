"""Six forms of the observatory made from nothing as a new user would, published, and filled in with exact results."""

import re

from playwright.sync_api import expect

from browser.making import (
    any_of,
    bands,
    choose,
    done,
    figure,
    fill_in,
    formula,
    go_to,
    note,
    paragraph,
    paste_form,
    press,
    publish,
    question,
    rows,
    select,
    show_when,
    type_text,
)


def confirmation(page, name):
    page.get_by_role("button", name="Add a confirmation").click()
    page.get_by_role("textbox", name="Name", exact=True).fill(name)
    heading = page.get_by_role("textbox", name="Heading", exact=True)
    heading.fill("")
    return heading


def by_result(page, figure_name):
    page.get_by_role("button", name="+ Confirmations by a result …").click()
    choose(page, "The result", figure_name)


def test_a_paged_sign_up_skips_the_page_that_is_not_meant(desk):
    page = desk
    paste_form(
        page,
        "Evening sign-up",
        """# Who comes
Your name*
E-mail*
How many adults?* number 1..20
How many children? number 0..20
Names of the children long text
Do you come by coach?* yes/no
# The coach
Plate number* text
# The evening
Which evening?*: Friday, Saturday""",
    )
    choose(page, "Shown", "Page by page")
    show_when(page, "Names of the children", ("How many children", "is more than", "0"))
    show_when(page, "The coach", ("Do you come by coach", "is yes"))
    heading = confirmation(page, "For all")
    type_text(page, heading, "Until ", "<Which evening?: its words>")
    paragraph(page, 1, "<How many adults?>", " adults and ", "<How many children?>", " children.")
    visitor = publish(page)
    fill_in(
        visitor,
        {"First name": "Ingrid", "Last name": "Haugen", "E-mail": "ingrid@example.org", "How many adults?": "2"},
    )
    expect(visitor.get_by_label("Names of the children")).to_be_hidden()
    fill_in(visitor, {"How many children?": "3", "Names of the children": "Ola, Kari, Per"})
    fill_in(visitor, {"Do you come by coach?": "No"})
    press(visitor, "Next")
    expect(visitor.get_by_role("heading", name="The evening")).to_be_visible()
    fill_in(visitor, {"Which evening?": "Saturday"})
    press(visitor, "Send")
    expect(visitor.get_by_role("heading", name="Until Saturday")).to_be_visible()
    expect(visitor.get_by_text("2 adults and 3 children.")).to_be_visible()


def test_a_tree_of_questions_asks_only_its_branch(desk):
    page = desk
    paste_form(
        page,
        "What is broken?",
        """# The fault
What does not work?*: The mount, The camera, The dome
What does the mount do?*: Nothing at all, It slips, It hums
Which fuse did you try?*: Left, Right, Neither
What does the camera show?*: A black picture, Stripes
How far does the dome turn?* number 0..360
text: Close the dome by hand before you leave.
Your name*""",
    )
    show_when(page, "What does the mount do", ("What does not work", "is", "The mount"))
    show_when(page, "Which fuse", ("What does the mount do", "is", "Nothing at all"))
    show_when(page, "What does the camera show", ("What does not work", "is", "The camera"))
    show_when(page, "How far does the dome", ("What does not work", "is", "The dome"))
    select(page, "Close the dome by hand")
    note(page, "always shown; add a rule")
    rows(page, ("How far does the dome", "is less than", "360"), ("What does the camera", "is", "Stripes"))
    any_of(page)
    done(page)
    heading = confirmation(page, "For all")
    type_text(page, heading, "We look at it tonight")
    heading = confirmation(page, "Fuse")
    type_text(page, heading, "A fuse is on its way")
    note(page, "Always, unless one above it follows")
    rows(page, ("Which fuse", "is", "Neither"))
    done(page)
    visitor = publish(page)
    fill_in(visitor, {"What does not work?": "The dome", "How far does the dome turn?": "90"})
    expect(visitor.get_by_text("Close the dome by hand")).to_be_visible()
    expect(visitor.get_by_role("radiogroup", name="What does the mount do?")).to_be_hidden()
    fill_in(visitor, {"What does not work?": "The mount", "What does the mount do?": "Nothing at all"})
    expect(visitor.get_by_text("Close the dome by hand")).to_be_hidden()
    fill_in(visitor, {"Which fuse did you try?": "Neither", "First name": "Kofi", "Last name": "Mensah"})
    press(visitor, "Send")
    expect(visitor.get_by_role("heading", name="A fuse is on its way")).to_be_visible()


def test_a_quote_by_points_and_bands_is_exact(desk):
    page = desk
    paste_form(
        page,
        "School quote",
        """# Your visit to us
Which programme?*: Planets = 6, Deep sky = 9.5
Extras several choices: Telescope = 3, Meteorites = 1.5
How many shows?* number 1..6
How far is it in km?* number 0..400
Do you teach at a school?* yes/no""",
    )
    go_to(page, "Figures")
    figure(page, "Formula", "Points")
    formula(page, "= is worked out by", "<Which programme?>", " + ", "<Extras>", " + ", "<How many shows?>", " * 2")
    figure(page, "Bands", "Price", shown_as="Money in the form’s currency")
    formula(page, "= is worked out by", "<Points>")
    bands(page, ("", "small", "240"), ("10", "usual", "390"), ("16.5", "festival", "820"))
    figure(page, "Formula", "In all", shown_as="Money in the form’s currency")
    km = "<How far is it in km?>"
    discounted = ("ROUND(", "<Price>", " * IF(", "<Do you teach at a school?>", ", 80%, 1)")
    formula(page, "= is worked out by", *discounted, " + IF(", km, " > 40, (", km, " - 40) * 0.85, 0), 2)")
    go_to(page, "Compose")
    heading = confirmation(page, "For all")
    type_text(page, heading, "Our offer: ", "<In all>")
    paragraph(page, 1, "A ", "<Price: name of the band>", " evening, ", "<Points>", " points.")
    visitor = publish(page)
    fill_in(
        visitor,
        {
            "Which programme?": "Deep sky",
            "Extras": ["Telescope"],
            "How many shows?": "2",
            "How far is it in km?": "93",
            "Do you teach at a school?": "Yes",
        },
    )
    press(visitor, "Send")
    # 9.5 + 3 + 4 = 16.5 points: 820, a fifth less is 656, and 53 km at 0.85 are 45.05.
    expect(visitor.get_by_role("heading", name="Our offer: €701.05")).to_be_visible()
    expect(visitor.get_by_text("A festival evening, 17 points.")).to_be_visible()


def test_a_quiz_of_two_parts_tells_what_was_right_and_ends_by_score(desk):
    page = desk
    paste_form(
        page,
        "Moon quiz",
        """# Easy ones
Which way does the moon rise?*: East, West, North
How many days from full moon to full moon?* number 1..60
# Hard ones
Which of these are lunar seas?* several choices: Serenity, Nectar, Honey
Your nickname*""",
    )
    choose(page, "Shown", "Page by page")
    go_to(page, "Figures")
    figure(page, "Score", "Easy points")
    rise = question(page, "Which way does the moon rise?")
    rise.get_by_role("checkbox", name="East").check()
    days = question(page, "How many days from full moon")
    days.get_by_role("textbox", name="Right answers").fill("29; 30")
    figure(page, "Score", "All points")
    question(page, "Which way does the moon rise?").get_by_role("checkbox", name="East").check()
    question(page, "How many days from full moon").get_by_role("textbox", name="Right answers").fill("29; 30")
    seas = question(page, "Which of these are lunar seas?")
    for each in ("Serenity", "Nectar"):
        seas.get_by_role("checkbox", name=each).check()
    seas.get_by_role("textbox", name="Worth").fill("3")
    go_to(page, "Compose")
    page.keyboard.press("Escape")
    choose(page, "Tell visitors what was right", "When a page is left")
    show_when(page, "Hard ones", ("Easy points", "is at least", "1"))
    by_result(page, "All points")
    expect(page.get_by_text("It goes from 0 to 5.")).to_be_visible()
    for at, name in enumerate(("New moon", "Half moon", "Full moon")):
        page.get_by_role("textbox", name=f"Name of range {at + 1}").fill(name)
    page.get_by_role("button", name="Make 3 confirmations").click()
    visitor = publish(page)
    fill_in(visitor, {"Which way does the moon rise?": "East", "How many days from full moon to full moon?": "28"})
    press(visitor, "Next")
    expect(visitor.get_by_text("That is right.")).to_be_visible()
    expect(visitor.get_by_text("Right: 29")).to_be_visible()
    press(visitor, "Next")
    fill_in(visitor, {"Which of these are lunar seas?": ["Serenity", "Nectar"], "Your nickname": "Luna"})
    press(visitor, "Send")
    expect(visitor.get_by_text("That is right.")).to_be_visible()
    press(visitor, "Send")
    expect(visitor.get_by_role("heading", name="Full moon")).to_be_visible()
    expect(visitor.get_by_text("4 / 5")).to_be_visible()


def test_a_profile_quiz_ends_with_its_animal_and_a_chart(desk):
    page = desk
    paste_form(
        page,
        "Sky animal",
        """# Two questions
When are you awake?*: At dusk, At midnight
What do you take along?*: A chart, A blanket""",
    )
    go_to(page, "Figures")
    figure(page, "Profile", "Animal")
    for at, name in enumerate(("Owl", "Heron")):
        page.get_by_role("button", name="+ profile").click()
        page.get_by_role("textbox", name=f"Name of profile {at + 1}").fill(name)
    speaks = {
        "When are you awake?": {"At midnight speaks for Owl": "2", "At dusk speaks for Heron": "2"},
        "What do you take along?": {"A chart speaks for Owl": "1", "A blanket speaks for Heron": "2"},
    }
    for field, points in speaks.items():
        page.get_by_role("combobox", name="Add a field that counts").click()
        page.get_by_role("option", name=re.compile(re.escape(field))).click()
        for cell, value in points.items():
            page.get_by_role("textbox", name=cell).fill(value)
    go_to(page, "Compose")
    by_result(page, "Animal")
    page.get_by_role("button", name="Make 2 confirmations").click()
    select(page, "Owl")
    choose(page, "Each bar says", "Points")
    visitor = publish(page)
    fill_in(visitor, {"When are you awake?": "At midnight", "What do you take along?": "A chart"})
    press(visitor, "Send")
    expect(visitor.get_by_role("heading", name="Owl")).to_be_visible()
    expect(visitor.get_by_role("main")).to_contain_text(re.compile(r"Owl.*3.*Heron.*0", re.DOTALL))


def test_a_log_with_four_kinds_of_rows_adds_up(desk):
    page = desk
    paste_form(
        page,
        "Night log",
        """# The night
Observer name*
## What was done (rows)
Object* text
Seconds* number 0..3600""",
    )
    select(page, "What was done")
    for kind, fields in {
        "Pair": (("number", "First exposure"), ("number", "Second exposure")),
        "Sketch": (("number", "Minutes"),),
        "Cloud": (("long text", "What the sky did"),),
    }.items():
        select(page, "What was done")
        page.get_by_role("button", name="Add a row kind").click()
        page.get_by_role("textbox", name="Label", exact=True).fill(kind)
        for type_name, label in fields:
            page.get_by_role("button", name="Add a block").click()
            page.get_by_role("combobox", name="Find a kind of block").fill(type_name)
            page.keyboard.press("Enter")
            page.get_by_role("textbox", name="Label", exact=True).fill(label)
    go_to(page, "Figures")
    figure(page, "Formula", "Seconds in all")
    pair = ("SUM(", "<First exposure>", ") + SUM(", "<Second exposure>", ")")
    formula(page, "= is worked out by", "SUM(", "<Seconds>", ") + ", *pair, " + 60 * SUM(", "<Minutes>", ")")
    go_to(page, "Compose")
    heading = confirmation(page, "For all")
    type_text(page, heading, "<Seconds in all>", " seconds under the sky")
    visitor = publish(page)
    visitor.get_by_label("Observer name").fill("Jonas Lindqvist")
    adds = visitor.get_by_role("button", name=re.compile("^Add "))
    expect(adds).to_have_count(4)
    adds.nth(0).click()
    row = visitor.get_by_role("listitem").nth(0)
    fill_in(row, {"Object": "M 31", "Seconds": "90"})
    adds.nth(1).click()
    fill_in(visitor.get_by_role("listitem").nth(1), {"First exposure": "30", "Second exposure": "300"})
    adds.nth(2).click()
    fill_in(visitor.get_by_role("listitem").nth(2), {"Minutes": "5"})
    adds.nth(3).click()
    fill_in(visitor.get_by_role("listitem").nth(3), {"What the sky did": "It closed at two."})
    press(visitor, "Send")
    expect(visitor.get_by_role("heading", name="720 seconds under the sky")).to_be_visible()
