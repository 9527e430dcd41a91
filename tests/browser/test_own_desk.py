"""One's own: a second factor that is asked for, a passkey, and a desk from which a form moves to the team."""

import re
import time

import pyotp
from playwright.sync_api import expect

from browser.conftest import expect_usable
from browser.test_team import menu


def as_jonas(page, servers, host="127.0.0.1"):
    page.goto(f"{servers.web.replace('127.0.0.1', host)}/sign-in")
    page.get_by_label("E-mail").fill("jonas@alderlight.example.org")
    page.get_by_label("Password").fill("alderlight")
    page.get_by_role("button", name="Sign in", exact=True).press("Enter")


def add(page, what, button):
    page.get_by_role("button", name=button).press("Enter")
    page.get_by_label("What you call it").fill(what)
    page.get_by_role("region", name="Second factor").get_by_label("Your password").fill("alderlight")
    page.get_by_role("form", name=button).get_by_role("button", name=button).press("Enter")


def take_away(page, what):
    page.get_by_role("button", name=f"Take away: {what}").press("Enter")
    page.get_by_role("region", name="Second factor").get_by_label("Your password").fill("alderlight")
    page.get_by_role("button", name="Take it away").press("Enter")
    expect(page.get_by_role("button", name=f"Take away: {what}")).to_have_count(0)


def test_a_second_factor_is_asked_for_and_a_passkey_signs_in_alone(page, servers, browser):
    # A passkey can't belong to an address of numbers.
    as_jonas(page, servers, host="localhost")
    expect(page.get_by_role("link", name="Plan a visit", exact=True).first).to_be_visible()
    keys = page.context.new_cdp_session(page)
    keys.send("WebAuthn.enable")
    device = {"protocol": "ctap2", "transport": "internal", "hasResidentKey": True, "hasUserVerification": True}
    known = {**device, "isUserVerified": True, "automaticPresenceSimulation": True}
    keys.send("WebAuthn.addVirtualAuthenticator", {"options": known})
    menu(page, "Your account")
    add(page, "Phone", "Add an app’s codes")
    secret = page.get_by_role("form", name="Confirm the codes").get_by_text(re.compile(r"^[A-Z2-7]{32}$")).inner_text()
    codes = pyotp.TOTP(secret)
    expect_usable(page)
    page.get_by_label("Code", exact=True).fill(codes.now())
    page.keyboard.press("Enter")
    expect(page.get_by_role("list", name="Codes for recovery").get_by_role("listitem")).to_have_count(10)
    expect_usable(page)
    add(page, "Laptop", "Add a passkey")
    expect(page.get_by_role("button", name="Take away: Laptop")).to_be_visible()
    menu(page, "Sign out")
    as_jonas(page, servers, host="localhost")
    expect(page.get_by_role("heading", name="One thing more")).to_be_visible()
    expect_usable(page)
    page.get_by_label("Code").fill(codes.generate_otp(int(time.time()) // 30 + 1))
    page.keyboard.press("Enter")
    expect(page.get_by_role("link", name="Plan a visit", exact=True).first).to_be_visible()
    menu(page, "Sign out")
    page.get_by_role("button", name="Use a passkey").press("Enter")
    expect(page.get_by_role("link", name="Plan a visit", exact=True).first).to_be_visible()
    menu(page, "Your account")
    take_away(page, "Laptop")
    take_away(page, "Phone")


def test_a_form_moves_from_ones_own_desk_to_the_team(page, servers):
    as_jonas(page, servers)
    menu(page, "To your own desk")
    row = page.get_by_role("row").filter(has_text="Become a volunteer")
    expect(row).to_be_visible()
    row.get_by_role("button", name=re.compile("^What to do with")).press("Enter")
    page.get_by_role("menuitem", name="Move to another team …").press("Enter")
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("Alderlight Observatory")
    expect_usable(page)
    dialog.get_by_role("button", name="Move it").press("Enter")
    expect(row).to_have_count(0)
    menu(page, "To the team Alderlight Observatory")
    expect(page.get_by_role("row").filter(has_text="Become a volunteer")).to_be_visible()
