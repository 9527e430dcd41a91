"""A second factor: set up, asked for on every way in, recovered from; passkeys of another origin, and copies."""

import time

import pyotp
import pytest
from conftest import Browser
from web.passkeys import Passkey

PASSWORD = {"password": "a long password"}


def set_up_codes(agent):
    begun = agent.post("/api/account/factors/codes", json={**PASSWORD, "name": "Phone"}).json
    codes = pyotp.TOTP(begun["secret"])
    assert begun["picture"].startswith("data:image/svg+xml")
    reply = agent.post(f"/api/account/factors/codes/{begun['id']}", json={"code": codes.now()})
    assert reply.status_code == 200, reply.json
    return codes, reply.json["codes"]


def set_up_passkey(agent, passkey):
    options = agent.post("/api/account/factors/passkeys/asked", json=PASSWORD).json["options"]
    return agent.post("/api/account/factors/passkeys", json={"name": "Laptop", "credential": passkey.made(options)})


def code_at(codes, step):
    """A code that was not used while it was set up: of the step after it, which is taken too."""
    return codes.generate_otp(int(time.time()) // 30 + step)


def with_password(app):
    browser = Browser(app)
    reply = browser.sign_in("mira@example.org")
    assert (reply.status_code, reply.json) == (202, {"second_factor": True})
    assert browser.client.get("/api/session").status_code == 204
    return browser


def by_passkey(browser, passkey):
    options = browser.client.post("/api/session/passkey/asked").json["options"]
    return browser.client.post("/api/session/passkey", json={"credential": passkey.shown(options)})


def test_codes_are_asked_for_after_the_password_and_taken_once(app, as_mira):
    assert as_mira.post("/api/account/factors/codes", json={"password": "another"}).json["code"] == "wrong_password"
    codes, _ = set_up_codes(as_mira)
    code = code_at(codes, 1)
    waiting = with_password(app)
    wrong = waiting.client.post("/api/session/code", json={"code": "000000"})
    assert (wrong.status_code, wrong.json["code"]) == (422, "factor_refused")
    assert waiting.client.post("/api/session/code", json={"code": code}).status_code == 200
    assert waiting.client.get("/api/session").json["email"] == "mira@example.org"
    # Neither the code nor the way in works twice.
    again = with_password(app)
    assert again.client.post("/api/session/code", json={"code": code}).status_code == 422
    assert Browser(app).client.post("/api/session/code", json={"code": code}).json["code"] == "step_over"


def test_codes_for_recovery_stand_in_once_each(app, as_mira):
    _, recovery = set_up_codes(as_mira)
    assert len(set(recovery)) == 10
    used = recovery[0]
    assert with_password(app).client.post("/api/session/code", json={"code": used.upper()}).status_code == 200
    assert with_password(app).client.post("/api/session/code", json={"code": used}).status_code == 422
    assert as_mira.get("/api/account/factors").json["codes_left"] == 9
    others = as_mira.post("/api/account/factors/recovery", json=PASSWORD).json["codes"]
    assert with_password(app).client.post("/api/session/code", json={"code": recovery[1]}).status_code == 422
    assert with_password(app).client.post("/api/session/code", json={"code": others[1]}).status_code == 200
    told = [each["told"] for each in as_mira.get("/api/team/audit?area=sign-ins").json["entries"]]
    assert told.count("used a recovery code") == 2
    [factor] = as_mira.get("/api/account/factors").json["factors"]
    assert as_mira.post(f"/api/account/factors/{factor['id']}/away", json=PASSWORD).status_code == 204
    assert Browser(app).sign_in("mira@example.org").status_code == 200


def test_tries_of_codes_are_counted_and_wait(app, as_mira):
    set_up_codes(as_mira)
    waiting = with_password(app)
    statuses = [waiting.client.post("/api/session/code", json={"code": "000000"}).status_code for _ in range(15)]
    assert statuses[0] == 422
    assert statuses[-1] == 429


def test_a_passkey_signs_in_with_a_password_or_alone(app, as_mira):
    passkey = Passkey()
    made = set_up_passkey(as_mira, passkey)
    assert len(made.json.get("codes", [])) == 10, made.json
    alone = Browser(app)
    assert by_passkey(alone, passkey).json["email"] == "mira@example.org"
    assert by_passkey(with_password(app), passkey).status_code == 200
    # A number of uses that was seen already is a copy's.
    passkey.uses = 0
    assert by_passkey(Browser(app), passkey).json["code"] == "factor_refused"
    assert set_up_passkey(as_mira, passkey).status_code == 422


@pytest.mark.parametrize("wrong", [{"origin": "https://other.example.org"}, {"host": "other.example.org"}])
def test_a_passkey_of_another_origin_is_refused(app, as_mira, wrong):
    assert set_up_passkey(as_mira, Passkey(**wrong)).json["code"] == "factor_refused"
    assert as_mira.get("/api/account/factors").json["factors"] == []
    passkey = Passkey()
    set_up_passkey(as_mira, passkey)
    for name, value in wrong.items():
        setattr(passkey, name, value)
    assert by_passkey(Browser(app), passkey).json["code"] == "factor_refused"


def test_what_a_passkey_signed_works_once_and_for_its_own_way_in(app, as_mira):
    passkey = Passkey()
    set_up_passkey(as_mira, passkey)
    browser, other = Browser(app), Browser(app)
    options = browser.client.post("/api/session/passkey/asked").json["options"]
    other.client.post("/api/session/passkey/asked")
    sent = {"credential": passkey.shown(options)}
    assert other.client.post("/api/session/passkey", json=sent).json["code"] == "factor_refused"
    assert browser.client.post("/api/session/passkey", json=sent).status_code == 200
    assert browser.client.post("/api/session/passkey", json=sent).json["code"] == "step_over"
    for broken in ({}, {"id": "x"}, {"id": 1, "rawId": [], "response": {}, "type": "public-key"}):
        browser.client.post("/api/session/passkey/asked")
        assert browser.client.post("/api/session/passkey", json={"credential": broken}).status_code == 422
