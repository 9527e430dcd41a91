"""Orders: priced by hand in the workbench, and ordered by a visitor whose total follows every answer."""

import re

from playwright.sync_api import expect

from browser.conftest import area, axe_findings, expect_usable, saved, sign_in
from browser.making import paste_form, publish, select


def test_a_visitor_sees_the_total_follow_every_answer_and_gets_it_confirmed(page, servers):
    page.goto(f"{servers.web}/f/alderlight/star-shop-order")
    order = page.get_by_role("region", name="Your order")
    expect(order.get_by_text("Nothing yet.")).to_be_visible()
    page.get_by_role("textbox", name="Poster of the northern sky").fill("3")
    expect(order.get_by_role("row", name="3 × Poster of the northern sky €12.50 each €37.50")).to_be_visible()
    expect(order.get_by_role("status")).to_contain_text("Total €37.40")
    page.get_by_role("button", name="One more of For 54° north").press("Enter")
    expect(order.get_by_role("row", name="Star map that turns, For 54° north €9.80")).to_be_visible()
    expect(page.get_by_role("button", name="One more of For 45° north")).to_be_disabled()
    page.get_by_role("button", name="One less of For 54° north").press("Enter")
    page.get_by_label("Small · €18.00").check()
    page.get_by_role("button", name="One more of How many torches?").click()
    expect(order.get_by_role("row", name="Torch with red light, Small €18.00")).to_be_visible()
    page.get_by_role("button", name="Choose none").click()
    expect(order.get_by_role("row", name="Torch with red light")).to_have_count(0)
    page.get_by_label("A warm blanket").check()
    page.get_by_label("Do you have a code?").fill(" Polaris")
    expect(order.get_by_role("row", name="Friends of the observatory -€6.24")).to_be_visible()
    expect(order.get_by_role("status")).to_contain_text("Total €51.16")
    assert axe_findings(page) == []
    page.set_viewport_size({"width": 320, "height": 700})
    assert page.evaluate("document.documentElement.scrollWidth") == 320
    page.get_by_role("button", name="Next").click()
    page.get_by_label("First name").fill("Ingrid")
    page.get_by_label("Last name").fill("Haugen")
    page.get_by_label("E-mail").fill("ingrid@example.org")
    page.get_by_label("Street").fill("Harbour Road 12")
    page.get_by_label("Postal code").fill("49487")
    page.get_by_label("Town").fill("Alderlight")
    page.get_by_role("button", name="Order and pay").click()
    pay_by_keyboard(page, "4000000000000200")
    expect(page.get_by_text("That did not work: There is not enough on the card. Nothing was charged.")).to_be_visible()
    page.reload()  # closed and opened again, it goes on where it was
    expect(page.get_by_role("heading", name="To pay: €51.16")).to_be_focused()
    assert axe_findings(page) == []
    assert page.evaluate("document.documentElement.scrollWidth") == 320
    pay_by_keyboard(page, "4000000000000309")
    bank_of(page).get_by_role("button", name="Yes, confirm").press("Enter")
    expect(page.get_by_text("Paid: €51.16")).to_be_visible()
    assert page.evaluate("Object.keys(localStorage).filter((name) => name.startsWith('codexa-unpaid'))") == []
    expect(
        page.get_by_text(re.compile("comes to €51.16: 3 × Poster of the northern sky, 1 × A warm blanket"))
    ).to_be_visible()


def bank_of(page):
    """The bank's own page, in its frame."""
    return page.frame_locator("iframe")


def pay_by_keyboard(page, number):
    """Type a card as a person without a mouse does."""
    bank_of(page).get_by_label("Number of the card").focus()
    for typed in (number, "Tab", "11/29", "Tab", "123", "Enter"):
        page.keyboard.press(typed) if typed in {"Tab", "Enter"} else page.keyboard.type(typed)


def test_money_is_asked_for_in_practice_and_given_back_by_keyboard(desk, servers):
    """A form is made that asks for money; what a visitor pays is listed, and a part of it given back."""
    page = desk
    paste_form(page, "Lamp sale", "# Lamps\nRed lamp €9.50\nE-mail*\n")
    area(page, "Payment")
    page.get_by_label("Ask for a payment once the form is handed in").check()
    expect(page.get_by_text("No field asks for the payer's e-mail")).to_be_visible()
    page.get_by_label("and is written to at").click()
    page.get_by_role("option", name="E-mail").click()
    expect(page.get_by_text("no errors")).to_be_visible()
    expect(page.get_by_text("Payments are for practice")).to_be_visible()
    expect_usable(page)
    visitor = publish(page, doubts="2 doubts")  # it is for practice, and there is no summary
    visitor.get_by_role("button", name="One more of Red lamp").click()
    visitor.get_by_label("E-mail").fill("ingrid@example.org")
    visitor.get_by_role("button", name="Send").click()
    expect(visitor.get_by_text("For practice: no money moves.")).to_be_visible()
    form = visitor.url
    card = page.context.new_page()
    card.goto(visitor.locator("iframe").get_attribute("src"))
    assert axe_findings(card) == []
    card.close()
    pay_by_keyboard(visitor, "4000000000000002")
    expect(visitor.get_by_text("Paid: €9.50")).to_be_visible()
    page.reload()
    payments = page.get_by_role("region", name="Payments")
    expect(payments.get_by_text("For practice: €9.50 from 1 payment")).to_be_visible()
    payments.get_by_role("button", name="Give back of payment 1").press("Enter")
    payments.get_by_label("How much, in EUR").fill("10")
    payments.get_by_role("button", name="Give it back").press("Enter")
    payments.get_by_role("button", name="Yes, give 10 EUR back").press("Enter")
    expect(payments.get_by_text("At most 9.50 EUR can be given back.")).to_be_visible()
    payments.get_by_label("How much, in EUR").fill("4.50")
    payments.get_by_role("button", name="Give it back").press("Enter")
    payments.get_by_role("button", name="Yes, give 4.50 EUR back").press("Enter")
    expect(payments.get_by_text("partly given back")).to_be_visible()
    assert axe_findings(page) == []
    assert form.startswith(f"{servers.web}/received/")


def test_the_bank_is_usable_by_everybody(page, servers):
    page.goto(servers.bank)
    assert axe_findings(page) == []
    expect(page.get_by_role("heading", name="Practice bank")).to_be_visible()


def test_prices_are_set_where_options_are_and_what_sending_costs_where_the_order_is(desk):
    page = desk
    paste_form(page, "Map sale", "# Maps\nHow many maps? number 0..20\nPaper: Plain, Heavy")
    select(page, "How many maps?")
    page.get_by_role("tab", name="Answers").click()
    page.get_by_label("Price of each").fill("9.80")
    expect(page.get_by_text("each costs 9.8").locator("visible=true").first).to_be_visible()
    select(page, "Paper")
    page.get_by_role("tab", name="Answers").click()
    page.get_by_label("Price of option 2").fill("1.50")
    expect(page.get_by_text("costs not sold · 1.5").locator("visible=true").first).to_be_visible()
    page.get_by_role("button", name="Add a block").click()
    page.get_by_role("combobox", name="Find a kind of block").fill("order")
    page.keyboard.press("Enter")
    select(page, "Your order")
    settings = page.get_by_role("group", name="The order", exact=True)
    settings.get_by_label("Or begin with").click()
    page.get_by_role("option", name="bands of the amount").click()
    expect(settings.get_by_role("textbox", name="Formula: shipping costs")).to_have_text("shipping")
    settings.get_by_role("button", name="Add a discount").click()
    settings.get_by_label("Name, as visitors read it").fill("Early birds")
    settings.get_by_role("button", name="Add a tax").click()
    expect(page.get_by_text("no errors")).to_be_visible()
    expect_usable(page)
    visitor = publish(page)
    visitor.get_by_label("How many maps?").fill("2")
    visitor.get_by_label("Heavy").check()
    order = visitor.get_by_role("region", name="Your order")
    expect(order.get_by_role("row", name="Early birds -€2.11")).to_be_visible()
    expect(order.get_by_role("status")).to_contain_text("Total €25.49")
    visitor.get_by_role("button", name="Send").click()
    expect(visitor.get_by_role("heading", name="Thank you")).to_be_visible()
    area(page, "Responses")
    expect(page.get_by_role("gridcell", name="€25.49")).to_be_visible()


def test_a_plan_is_agreed_to_on_a_website_charged_later_and_stopped_by_keyboard(page, servers):
    page.goto(f"{servers.website}/patrons")
    form = page.frame_locator("iframe").first
    form.get_by_label("Circle of moons").check()
    form.get_by_role("radiogroup", name="I would like the patron's card").get_by_label("Yes").check()
    expect(form.get_by_role("status").filter(has_text="€25.50 now, then €18.00 each month")).to_be_visible()
    for label, typed in {"First name": "Ingrid", "Last name": "Haugen", "Your e-mail": "ingrid@example.org"}.items():
        form.get_by_label(label).fill(typed)
    for label, typed in {"Street": "Harbour Road 12", "Postal code": "49487", "Town": "Alderlight"}.items():
        form.get_by_label(label).fill(typed)
    form.get_by_role("button", name="Go on to pay").click()
    card = form.frame_locator("iframe")
    expect(card.get_by_text("The card is kept, and 18.00 EUR is charged every month.")).to_be_visible()
    card.get_by_label("Number of the card").fill("4000 0000 0000 0804")  # later charges fail at first
    card.get_by_label("Valid until").fill("11/39")
    card.get_by_label("Digits on the back").fill("123")
    card.get_by_role("button", name="Pay 25.50 EUR").press("Enter")
    expect(form.get_by_role("heading", name="Welcome, Ingrid")).to_be_visible()
    expect(form.get_by_text(re.compile("Thank you: €25.50 now, then €18.00 each month"))).to_be_visible()
    page.goto(servers.bank)
    page.get_by_label("days pass").fill("31")
    # What goes elsewhere at once may break the press off.
    with page.expect_navigation():
        page.get_by_role("button", name="Move on").press("Enter")
    sign_in(page, servers)
    page.get_by_role("link", name="Payments", exact=True).click()
    page.get_by_role("button", name=re.compile("^Open charge 1 of payment")).first.press("Enter")
    whole = page.get_by_role("group", name=re.compile("^All of payment"))
    expect(whole.get_by_text(re.compile("^Declined · charge 1 · €18.00"))).to_be_visible()
    assert axe_findings(page) == []
    whole.get_by_role("button", name="Charge €18.00 again: charge 1").press("Enter")
    expect(whole.get_by_text("Charged: it is paid now.")).to_be_visible()
    whole.get_by_role("button", name="Stop the plan …").press("Enter")
    whole.get_by_role("button", name="Yes, charge nothing more").press("Enter")
    expect(whole.get_by_text("Stopped: nothing more is charged.")).to_be_visible()
    expect(whole.get_by_text(re.compile("The plan was stopped"))).to_be_visible()


def test_plans_are_made_in_the_payment_area(desk):
    page = desk
    paste_form(page, "Lens club", "# Club\nMember's fee €30\nE-mail*\n")
    area(page, "Payment")
    page.get_by_label("Ask for a payment once the form is handed in").check()
    page.get_by_label("and is written to at").click()
    page.get_by_role("option", name="E-mail").click()
    page.get_by_role("button", name="Add a plan").click()
    plan = page.get_by_role("group", name="Plan 1")
    plan.get_by_label("How often").click()
    page.get_by_role("option", name="so many times").click()
    plan.get_by_role("textbox").last.click()
    page.keyboard.type("3")
    plan.get_by_label("Each payment is").click()
    page.get_by_role("option", name=re.compile("its share")).click()
    plan.get_by_role("button", name="no first fee").click()
    page.keyboard.type("2.50")
    saved(page)
    page.get_by_label("A visitor with").click()
    page.get_by_role("option", name="Sample answers").click()
    would = page.get_by_role("region", name="What a visitor would pay")
    expect(would.get_by_text(re.compile("^In all €"))).to_be_visible()
    assert axe_findings(page) == []
    page.get_by_role("button", name="Remove Plan 1").click()
    expect(would.get_by_text(re.compile("^In all €"))).to_have_count(0)
