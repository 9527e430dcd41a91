"""One's own account: a link for a new password, another password, another address; each told by mail, none twice."""

import re

import pytest
from conftest import Browser, make_person, within
from web.mail import work

from codexa.core.sentences import Sentence
from codexa.practice.mailbox import store as mailbox
from codexa.services.accounts.mail_words import notice_to
from codexa.store import people

OLD, NEW = "a long password", "a longer password"


@pytest.fixture
def mailed(worker):
    """Do what waits, and return the mail to an address, newest first."""

    def mail_to(address):
        work(worker)
        return [each for each in mailbox.all_mail() if address in each.recipients]

    return mail_to


def token_in(mail, page):
    (token,) = re.findall(rf"/{page}#([\w-]+)", mail.html)
    assert f"/{page}#{token}" in mail.text
    return token


class TestALinkForANewPassword:
    def ask(self, agent, email="mira@example.org"):
        assert agent.client.post("/api/account/link", json={"email": email}).status_code == 204

    def set(self, agent, token, password=NEW):
        reply = agent.client.post("/api/account/password/by-link", json={"token": token, "password": password})
        return reply.status_code

    def test_works_once_ends_all_sessions_and_is_told(self, app, as_mira, mailed):
        self.ask(as_mira)
        (mail,) = mailed("mira@example.org")
        token = token_in(mail, "password")
        assert self.set(as_mira, token, "too short") == 422
        assert [self.set(as_mira, token), self.set(as_mira, token)] == [204, 410]
        assert as_mira.get("/api/forms").status_code == 401
        assert [Browser(app).sign_in("mira@example.org", each).status_code for each in (OLD, NEW)] == [401, 200]
        subjects = [each.message["Subject"] for each in mailed("mira@example.org")]
        assert subjects == ["Your password was changed", "Your password for Codexa"]

    def test_tells_nobody_who_is_known_and_comes_once_in_a_while(self, agent, mira, connection, mailed):
        connection.commit()
        for _ in range(3):
            self.ask(agent, " MIRA@example.org ")
            self.ask(agent, "stranger@example.org")
        assert len(mailed("mira@example.org")) == 1
        assert mailed("stranger@example.org") == []

    def test_ends_after_an_hour(self, as_mira, mailed, connection):
        self.ask(as_mira)
        token = token_in(mailed("mira@example.org")[0], "password")
        connection.execute("UPDATE password_link SET expires_at = now()")
        connection.commit()
        assert self.set(as_mira, token) == 410

    def test_stands_nowhere_in_clear(self, as_mira, mailed, connection):
        self.ask(as_mira)
        token = token_in(mailed("mira@example.org")[0], "password")
        for table in ("password_link", "errand", "procrastinate_jobs"):
            rows = connection.execute(f"SELECT * FROM {table}").fetchall()
            assert rows
            assert token not in str(rows)


class TestTheLanguageOfMails:
    def speak(self, agent, language):
        return agent.put("/api/account/language", json={"language": language})

    def test_is_chosen_among_those_there_are_words_in_and_mails_come_in_it(self, as_mira, mailed):
        assert self.speak(as_mira, "tlh").status_code == 400
        assert self.speak(as_mira, "de").status_code == 204
        found = as_mira.get("/api/account/language").json
        assert (found["language"], {"code": "ja", "name": "日本語"} in found["languages"]) == ("de", True)
        as_mira.post("/api/account/link", json={"email": "mira@example.org"})
        (mail,) = mailed("mira@example.org")
        assert mail.message["Subject"] == "Ihr Passwort für Codexa"
        assert 'lang="de"' in mail.html
        assert "Owner, jemand hat für diese Adresse um ein neues Passwort gebeten." in mail.text
        token_in(mail, "password")

    def test_of_who_invites_is_that_of_an_invitation_to_somebody_unknown(self, as_mira, mailed):
        self.speak(as_mira, "fr")
        as_mira.post("/api/team/invitations", json={"email": "new@example.org", "role": "reviewer"})
        (mail,) = mailed("new@example.org")
        assert mail.message["Subject"] == "Owner vous invite dans Alderlight"
        assert "vous examinez les réponses" in mail.text

    def test_of_each_is_in_a_mail_to_several_one_below_another_and_names_stay_as_they_are(self, connection, mira):
        jonas = make_person(connection, email="Jonas@example.org")
        people.set_language(connection, person=jonas.person_id, language="ar")
        to, sentence = ["mira@example.org", "jonas@example.org", "guest@example.org"], Sentence("Until {moment} UTC.")
        mail = notice_to(within(connection), to, lambda say: (say.locale, say.paragraph(sentence, moment="<3>")))
        texts = ["<p>Until &lt;3&gt; UTC.</p>", "<p>حتى &lt;3&gt; بالتوقيت العالمي.</p>"]
        assert (mail["to"], mail["subject"], [each["html"] for each in mail["pieces"]]) == (to, "en", texts)


def test_another_password_wants_the_one_before_and_leaves_this_session(app, as_mira, mailed):
    elsewhere = Browser(app)
    elsewhere.sign_in("mira@example.org")
    wrong = as_mira.post("/api/account/password", json={"old": "wrong", "new": NEW})
    assert (wrong.status_code, wrong.json["code"]) == (422, "wrong_password")
    assert as_mira.post("/api/account/password", json={"old": OLD, "new": "short"}).json["code"] == "password_refused"
    assert as_mira.post("/api/account/password", json={"old": OLD, "new": NEW}).status_code == 204
    assert (as_mira.get("/api/forms").status_code, elsewhere.get("/api/forms").status_code) == (200, 401)
    assert [each.message["Subject"] for each in mailed("mira@example.org")] == ["Your password was changed"]


class TestAnotherAddress:
    def want(self, agent, email="mira.okafor@example.org", password=OLD):
        return agent.post("/api/account/address", json={"email": email, "password": password})

    def confirm(self, agent, mail):
        return agent.client.post("/api/account/address/confirm", json={"token": token_in(mail, "address")})

    def test_is_confirmed_at_both_and_told_to_both(self, app, as_mira, mailed):
        assert self.want(as_mira).status_code == 204
        (at_old,), (at_new,) = mailed("mira@example.org"), mailed("mira.okafor@example.org")
        first = self.confirm(as_mira, at_new).json
        assert (first["changed"], first["waits_for"]) == (False, "the address that you have had")
        assert as_mira.get("/api/account/address").json == {
            "email": "mira.okafor@example.org",
            "old_confirmed": False,
            "new_confirmed": True,
        }
        assert Browser(app).sign_in("mira@example.org").status_code == 200
        assert self.confirm(as_mira, at_old).json["changed"]
        assert self.confirm(as_mira, at_old).status_code == 410
        assert Browser(app).sign_in("mira@example.org").status_code == 401
        assert Browser(app).sign_in("mira.okafor@example.org").status_code == 200
        for address in ("mira@example.org", "mira.okafor@example.org"):
            assert mailed(address)[0].message["Subject"] == "Your address was changed"

    def test_of_somebody_else_or_without_the_password_is_refused(self, as_mira, connection):
        make_person(connection, role="editor", email="jonas@example.org")
        connection.commit()
        assert self.want(as_mira, "Jonas@Example.org").json["code"] == "name_taken"
        assert self.want(as_mira, "no address").json["code"] == "address_refused"
        assert self.want(as_mira, password="wrong").json["code"] == "wrong_password"

    def test_that_somebody_else_took_meanwhile_stays_theirs(self, as_mira, mailed, connection):
        self.want(as_mira)
        at_old, at_new = mailed("mira@example.org")[0], mailed("mira.okafor@example.org")[0]
        make_person(connection, role="editor", email="mira.okafor@example.org")
        connection.commit()
        self.confirm(as_mira, at_old)
        assert self.confirm(as_mira, at_new).json["code"] == "name_taken"

    def test_that_is_wanted_instead_ends_the_links_of_the_one_before(self, as_mira, mailed):
        self.want(as_mira)
        before = mailed("mira.okafor@example.org")[0]
        self.want(as_mira, "m.okafor@example.org")
        mailed("m.okafor@example.org")
        assert self.confirm(as_mira, before).status_code == 410
