"""Takes the pictures in docs/screenshots from a running demo: .venv/bin/python -m docs.take_screenshots."""

import re
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from codexa.services.demo import PASSWORD, PEOPLE
from launch.machine import CHROMIUM

FOLDER = Path(__file__).parent / "screenshots"
CODEXA, WEBSITE = (f"http://127.0.0.1:{port}" for port in (8780, 8790))
SETTLED = 600  # milliseconds


def take(page: Page, name: str) -> None:
    """Save what the page shows."""
    page.wait_for_timeout(SETTLED)
    page.screenshot(path=FOLDER / f"{name}.png")


def workbench(page: Page) -> None:
    """Walk through the areas of the demo form."""
    page.goto(CODEXA)
    page.get_by_label("E-mail").fill(PEOPLE[0][1])
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    form = page.get_by_role("link", name="Plan a visit", exact=True).first
    form.wait_for()
    take(page, "desk")
    form.click()
    page.get_by_role("button", name="1.1 What would you like to see?, Single choice").click()
    page.get_by_role("tab", name="Answers").click()
    page.get_by_role("combobox", name="Answers on the sheet").click()
    page.get_by_role("option", name="Sample answers").click()
    page.mouse.move(640, 780)
    take(page, "compose")
    area(page, "Responses")
    page.get_by_role("button", name=re.compile("^View:")).click()
    page.get_by_role("menuitem", name="Large groups to answer").click()
    page.keyboard.press("Escape")
    page.get_by_role("status").filter(has_text=re.compile("of 300 responses")).wait_for()
    page.wait_for_timeout(SETTLED)
    page.get_by_role("row", name=re.compile("^Response ")).nth(2).get_by_role("gridcell").nth(2).click()
    page.get_by_role("complementary", name=re.compile("^Response ")).get_by_label("Status").wait_for()
    take(page, "responses")
    page.goto(CODEXA)
    page.get_by_role("link", name="Talk feedback", exact=True).first.click()
    area(page, "Responses")
    page.get_by_role("region", name="1.5 It was, by 1.1 Talk").get_by_role("img").wait_for()
    take(page, "charts")


def area(page: Page, name: str) -> None:
    """Go to an area of the workbench."""
    page.get_by_role("navigation", name="Areas").get_by_role("link", name=re.compile(f"^{name}")).click()


def publish(page: Page) -> None:
    """Sealed links, with the form as one of them opens it."""
    page.goto(CODEXA)
    page.get_by_role("link", name="Talk feedback", exact=True).first.click()
    area(page, "Publish")
    page.get_by_role("region", name="Sections").get_by_role("button", name="Links with values").click()
    page.get_by_label("talk", exact=True).fill("The quiet Sun")
    page.get_by_label("number", exact=True).fill("0007")
    page.get_by_label("speaker", exact=True).fill("M. Adeyemi")
    page.get_by_role("button", name="talks.csv").click()
    page.get_by_role("link", name="XLSX").wait_for()
    page.get_by_role("region", name="Live picture").get_by_text("As it opens").wait_for()
    page.get_by_role("heading", name="Links with values", level=2).scroll_into_view_if_needed()
    take(page, "publish")


def areas(page: Page) -> None:
    """The areas around Compose, with the quote and one of its trials tried."""
    page.goto(CODEXA)
    page.get_by_role("link", name="Travelling dome quote", exact=True).first.click()
    area(page, "Trials")
    page.get_by_role("button", name=re.compile("festival far away")).click()
    take(page, "trials")
    area(page, "Rules")
    page.get_by_role("combobox", name="Answers").click()
    page.get_by_role("option", name=re.compile("festival far away")).click()
    take(page, "rules")
    area(page, "Figures")
    page.get_by_role("button", name="Surcharge for the way", exact=True).click()
    take(page, "figures")
    area(page, "Brand")
    take(page, "brand")


def payment(page: Page) -> None:
    """How the patron programme asks for money, with a trial's answers: now, and later."""
    page.goto(CODEXA)
    page.get_by_role("link", name="Patron programme", exact=True).first.click()
    area(page, "Payment")
    page.get_by_role("combobox", name="A visitor with").click()
    page.get_by_role("option", name=re.compile("Each month, with a card")).click()
    page.get_by_text("30 Dec 2026").wait_for()
    take(page, "payment")


def tables(page: Page) -> None:
    """Sightings as a worksheet, of which some wait to be published, with one of them beside it."""
    page.goto(f"{CODEXA}/tables")
    page.get_by_role("link", name="Sightings").click()
    page.get_by_role("grid").focus()
    page.get_by_role("gridcell", name="Light pillars").wait_for()
    for key in ("ArrowDown", *["ArrowDown"] * 6):
        page.keyboard.press(key)
    page.get_by_role("button", name="Record beside").click()
    page.get_by_text("What happened").wait_for()
    take(page, "tables")


def follow_ups(page: Page) -> None:
    """A mail with sample answers."""
    page.goto(CODEXA)
    page.get_by_role("link", name="Travelling dome quote", exact=True).first.click()
    area(page, "Follow-ups")
    page.get_by_role("combobox", name="Answers", exact=True).click()
    page.get_by_role("option", name="Sample answers").click()
    page.frame_locator("iframe[title='The mail']").get_by_text("Thank you for asking.").wait_for()
    take(page, "follow-ups")


def bookings(page: Page) -> None:
    """The slots of a form, and what waits for a decision."""
    page.goto(CODEXA)
    page.get_by_role("link", name="Dome night booking", exact=True).first.click()
    area(page, "Slots")
    page.get_by_role("grid", name="Slots of the week").get_by_role(
        "button", name=re.compile("places until")
    ).first.wait_for()
    take(page, "slots")
    page.goto(f"{CODEXA}/decisions")
    page.get_by_role("button", name="Approve").wait_for()
    take(page, "decisions")


def rehearsal(page: Page) -> None:
    """A night that is booked and approved by whoever makes the form, with the mail that nobody gets."""
    page.goto(CODEXA)
    page.get_by_role("link", name="Dome night booking", exact=True).first.click()
    area(page, "Trials")
    page.get_by_role("link", name="Rehearse the whole way …").click()
    page.get_by_role("button", name=re.compile("^Begin a")).click()
    page.wait_for_timeout(SETTLED)
    page.get_by_role("link", name="Fill it in", disabled=False).wait_for()
    with page.expect_popup() as popup:
        page.get_by_role("link", name="Fill it in").click()
    visitor = popup.value
    visitor.get_by_label("Summit Dome").check()
    visitor.get_by_role("radiogroup", name="When").get_by_role("radio").first.check()
    visitor.get_by_label("First name").fill("Runa")
    visitor.get_by_label("Last name").fill("Dahl")
    visitor.get_by_label("Your e-mail").fill("runa.dahl@example.org")
    visitor.get_by_role("button", name="Send").click()
    visitor.get_by_role("heading", name="We have your wish").wait_for()
    visitor.close()
    page.get_by_text("rehearsed: it stays here").first.wait_for()
    take(page, "rehearsal")
    page.get_by_role("button", name="Take it all away").click()
    page.get_by_role("button", name="Begin a rehearsal").wait_for()


def languages(page: Page) -> None:
    """The texts of a form beside their translations."""
    page.goto(CODEXA)
    page.get_by_role("link", name="Plan a visit", exact=True).first.click()
    area(page, "Languages")
    page.get_by_label("title, translated").first.wait_for()
    take(page, "languages")


def preview(page: Page) -> None:
    """The draft tried, and why a block is shown."""
    page.goto(CODEXA)
    page.get_by_role("link", name="Travelling dome quote", exact=True).first.click()
    page.get_by_role("link", name="Preview").click()
    page.frame_locator("iframe").get_by_text("A school or nursery").click()
    page.get_by_role("combobox", name="Block, page or figure").fill("Name of the school")
    page.get_by_role("option", name="1.2 Name of the school").click()
    page.get_by_text("1.2 Name of the school is shown").wait_for()
    take(page, "preview")


def public_form(page: Page) -> None:
    """Answer the first questions of a form that asks one at a time."""
    page.goto(f"{CODEXA}/f/alderlight/night-watcher-profile")
    for _ in range(4):
        title = page.locator(".cx-shown-single .cx-label").inner_text()
        page.locator(".cx-option").nth(1).click()
        page.locator(".cx-shown-single .cx-label").filter(has_not_text=title).wait_for()
    take(page, "public-form")


def main() -> None:
    """Take every picture."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=str(CHROMIUM), args=["--no-sandbox", "--disable-gpu"])
        wide = browser.new_page(viewport={"width": 1280, "height": 800})
        workbench(wide)
        publish(wide)
        areas(wide)
        follow_ups(wide)
        bookings(wide)
        languages(wide)
        preview(wide)
        public_form(wide)
        payment(wide)
        tables(wide)
        rehearsal(wide)
        stranger = browser.new_page(viewport={"width": 1280, "height": 800})
        stranger.goto(f"{WEBSITE}/sightings")
        stranger.get_by_role("button", name="How well do you know").click()
        form = stranger.frame_locator("iframe[title='Northern sky quiz']")
        form.get_by_role("button", name="Begin").or_(form.locator(".cx-submit")).first.click()
        for words in ("polaris", "The Little Bear"):
            form.get_by_label("Or write it here").fill(words)
            form.get_by_label("Or write it here").press("Enter")
            stranger.wait_for_timeout(700)
        take(stranger, "website")
        browser.close()


if __name__ == "__main__":
    main()
