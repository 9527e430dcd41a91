"""Signing in: many tries wait, strangers keep nobody out, and sessions end."""

import threading

import pytest
from conftest import Browser, make_person, within

from codexa.services import signing_in
from codexa.services.errors import TooManyAttemptsError, WrongSignInError
from codexa.services.signing_in import Attempt, folded
from codexa.settings import Settings
from codexa.store.database import Database
from codexa.web.app import create_app
from codexa.web.network import network_of

HOME, ELSEWHERE = "192.0.2.1", "198.51.100.7"


def attempt(email="mira@example.org", password="a long password", network=HOME, **known):
    return Attempt(email=email, password=password, network=network, **known)


@pytest.fixture
def sign_in(connection, mira):
    """Try to sign in; what happens in words."""

    def sign_in(tried, attempts=3):
        try:
            signing_in.sign_in(within(connection), tried, attempts=attempts)
        except WrongSignInError:
            return "wrong"
        except TooManyAttemptsError as error:
            assert "Wait" in error.message
            return "wait"
        return "in"

    return sign_in


def later(connection, seconds):
    connection.execute("UPDATE sign_in_try SET next_at = next_at - make_interval(secs => %s)", (seconds,))


def test_wrong_passwords_wait_longer_and_longer(sign_in, connection):
    wrong = attempt(password="wrong")
    assert [sign_in(wrong) for _ in range(4)] == ["wrong", "wrong", "wrong", "wait"]
    for seconds in (1, 2, 4):
        later(connection, seconds)
        assert [sign_in(wrong), sign_in(attempt())] == ["wrong", "wait"]
    later(connection, 8)
    assert [sign_in(attempt()), sign_in(wrong)] == ["in", "wrong"]


def test_a_stranger_locks_nobody_out_where_they_have_been_before(sign_in):
    assert sign_in(attempt()) == "in"
    assert {sign_in(attempt(password="wrong", network=f"198.51.100.{at}")) for at in range(40)} >= {"wrong", "wait"}
    assert sign_in(attempt()) == "in"
    # From somewhere new a person waits at most a minute, however many strangers tried.
    assert sign_in(attempt(network=ELSEWHERE)) == "wait"


def test_one_fold_for_all_so_that_no_spelling_tries_twice(sign_in, connection):
    make_person(connection, email="İngrid@example.org")
    assert folded("İngrid@example.org") == folded("  i̇ngrid@EXAMPLE.org")
    spellings = ["İngrid@example.org", "i̇ngrid@example.org", "İNGRID@example.org"]
    assert [sign_in(attempt(email=each, password="wrong"), attempts=2) for each in spellings] == [
        "wrong",
        "wrong",
        "wait",
    ]
    assert sign_in(attempt(email="x" * 5_000)) == "wrong"


def test_sixty_at_once_are_counted_before_a_password_is_looked_at(database, connection, mira):
    connection.commit()
    pool, results = Database(database, 8), []

    def once():
        try:
            signing_in.sign_in(pool.connection, attempt(password="wrong"), attempts=5)
        except (WrongSignInError, TooManyAttemptsError) as error:
            results.append(type(error))

    threads = [threading.Thread(target=once) for _ in range(60)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    pool.close()
    assert len(results) == 60
    # The fifth makes the next ones wait a second; hashing all sixty may take longer than that.
    assert results.count(WrongSignInError) <= 8


@pytest.mark.parametrize(
    ("address", "network"),
    [
        ("192.0.2.1", "192.0.2.1"),
        ("2001:db8:1:2:3:4:5:6", "2001:db8:1:2::/64"),
        ("2001:db8:1:2::9", "2001:db8:1:2::/64"),
        ("::ffff:192.0.2.1", "192.0.2.1"),
        ("fe80::1%eth0", "fe80::/64"),
        ("nonsense", "nonsense"),
    ],
)
def test_who_asks_is_a_network(address, network):
    assert network_of(address) == network


class TestSessions:
    def test_one_that_was_idle_is_over_and_a_page_that_polls_is_idle(self, as_mira, connection, published):
        def age(minutes):
            connection.execute("UPDATE session SET seen_at = now() - make_interval(mins => %s)", (minutes,))
            connection.commit()

        age(119)
        here = {"tab": "abc", "area": "compose"}
        assert as_mira.post(f"/api/forms/{published}/presence", json=here).status_code == 200
        age_seen = "SELECT now() - seen_at > interval '1 hour' AS old FROM session"
        assert connection.execute(age_seen).fetchone()["old"]
        connection.commit()
        assert as_mira.get("/api/forms").status_code == 200
        assert not connection.execute(age_seen).fetchone()["old"]
        age(121)
        assert as_mira.get("/api/forms").status_code == 401

    def test_a_new_one_ends_the_old_one_of_the_browser(self, as_mira, connection):
        old = as_mira.client.get_cookie("codexa_session").value
        as_mira.sign_in("mira@example.org")
        other = as_mira.client.application.test_client()
        other.set_cookie("codexa_session", old)
        assert other.get("/api/forms").status_code == 401
        assert as_mira.get("/api/forms").status_code == 200

    def test_another_password_ends_them_all(self, as_mira, connection):
        signing_in.change_password(connection, email="Mira@Example.org", password="quite another one")
        connection.commit()
        assert as_mira.get("/api/forms").status_code == 401
        assert as_mira.sign_in("mira@example.org", "quite another one").status_code == 200

    def test_over_tls_the_cookie_is_held_to_this_very_host(self, database, mira, connection):
        connection.commit()
        app = create_app(Settings(database=database, public_address="https://forms.example.org"))
        agent = Browser(app)
        cookie = agent.sign_in("mira@example.org").headers["Set-Cookie"]
        app.extensions["codexa"].close()
        assert cookie.startswith("__Host-codexa_session=")
        assert "Secure" in cookie
        assert "Path=/;" in f"{cookie};"
        assert "Domain" not in cookie
