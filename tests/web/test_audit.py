"""The audit log has what a random walk through the team did, in its order, and nothing that was refused."""

import csv
import io

from conftest import Browser, make_person, publish_visit
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as some


class Walk:
    """Does things of which each leaves an entry, and some that are refused and leave none."""

    def __init__(self, owner, form, person):
        self.owner, self.form, self.person = owner, form, person
        self.group, self.number = None, 0

    def ask(self, method, address, **options):
        reply = getattr(self.owner, method)(address, **options)
        return reply.status_code < 300

    def make_group(self):
        self.number += 1
        reply = self.owner.post("/api/team/groups", json={"name": f"Group {self.number}"})
        self.group = reply.json["code"]
        return ["group made"]

    def put_inside(self):
        address = f"/api/team/groups/{self.group}/people/{self.person}"
        done = self.ask("put", address, json={"inside": True})
        return ["put into a group"] if done else []

    def take_group_away(self):
        done = self.ask("delete", f"/api/team/groups/{self.group}")
        return ["group taken away"] if done else []

    def invite(self):
        self.ask("post", "/api/team/invitations", json={"email": "nobody", "role": "viewer"})
        # So many are too many within a minute.
        done = self.ask("post", "/api/team/invitations", json={"email": "ana@example.org", "role": "viewer"})
        return ["invited"] if done else []

    def give_role(self):
        self.ask("put", f"/api/team/people/{self.person}/role", json={"role": "reviewer"})
        return ["role given"]

    def make_exception(self):
        asked = {"form": self.form, "person": self.person, "role": "editor"}
        self.ask("put", "/api/team/exceptions", json=asked)
        return ["exception made"]

    def export(self):
        self.owner.get(f"/api/forms/{self.form}/responses.csv").get_data()
        return ["exported"]

    def set_access(self):
        access = self.owner.get(f"/api/forms/{self.form}/access").json["access"]
        self.ask("put", f"/api/forms/{self.form}/access", json={"access": {**access, "who": "groups"}})
        self.ask("put", f"/api/forms/{self.form}/access", json={"access": {**access, "most": 5}})
        return ["who and when set"]

    def make_and_end_key(self):
        made = self.owner.post("/api/keys", json={"name": "Tool", "rights": ["read forms"], "form": None}).json
        self.ask("delete", f"/api/keys/{made['id']}")
        return ["key made", "key ended"]

    def delete_and_restore(self):
        self.ask("delete", f"/api/forms/{self.form}")
        self.ask("post", f"/api/forms/{self.form}/restore")
        return ["form deleted", "form brought back"]

    def make_and_delete_table(self):
        made = self.owner.post("/api/tables", json={"definition": {"name": "Domes"}}).json["id"]
        self.ask("delete", f"/api/tables/{made}")
        return ["table deleted"]

    def sign_in_and_out(self):
        other = Browser(self.owner.client.application)
        other.sign_in("mira@example.org", "wrong")
        other.sign_in("mira@example.org")
        other.delete("/api/session")
        return ["wrong password", "signed in", "signed out"]


STEPS = some.sampled_from([name for name in vars(Walk) if not name.startswith("_") and name != "ask"])


@given(steps=some.lists(STEPS, min_size=5, max_size=14))
@settings(max_examples=12, suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow])
def test_what_a_random_walk_did_is_noted_in_its_order(as_mira, connection, mira, steps):
    connection.execute("DELETE FROM audit_entry")
    connection.execute("DELETE FROM form_exception")
    connection.execute("DELETE FROM person_in_group")
    connection.execute("DELETE FROM team_group")
    connection.execute("DELETE FROM sign_in_try")
    connection.commit()
    person = make_person(connection, role="viewer")
    form = str(publish_visit(connection, mira))
    connection.execute("DELETE FROM audit_entry")
    connection.commit()
    walk = Walk(as_mira, form, str(person.person_id))
    expected = [kind for step in steps for kind in getattr(walk, step)()]
    rows = connection.execute("SELECT kind FROM audit_entry ORDER BY id").fetchall()
    connection.commit()
    assert [row["kind"] for row in rows] == expected


def test_it_is_filtered_paged_and_given_out_by_owners_alone(app, as_mira, connection):
    viewer = make_person(connection, role="viewer", email="aylin@example.org")
    connection.commit()
    aylin = Browser(app)
    aylin.sign_in("aylin@example.org")
    as_mira.post("/api/team/groups", json={"name": "=Keepers"})
    assert aylin.get("/api/team/audit").status_code == 403
    assert aylin.get("/api/team/audit.csv").status_code == 403
    mine = as_mira.get(f"/api/team/audit?person={viewer.person_id}").json["entries"]
    assert [each["person_name"] for each in mine] == ["Viewer"]
    [rights] = as_mira.get("/api/team/audit?area=rights").json["entries"]
    assert rights["told"] == "made the group =Keepers"
    later = as_mira.get("/api/team/audit?since=2126-01-01T00:00:00Z").json
    assert later == {"entries": [], "more": False}
    before = as_mira.get(f"/api/team/audit?before={rights['id']}").json["entries"]
    assert all(each["id"] < rights["id"] for each in before)
    for wrong in ("area=x", "person=x", "since=yesterday"):
        assert as_mira.get(f"/api/team/audit?{wrong}").status_code == 400
    rows = list(csv.reader(io.StringIO(as_mira.get("/api/team/audit.csv").get_data(as_text=True))))
    assert rows[0] == ["at", "person", "area", "kind", "told"]
    # What gave it out stands in it.
    assert rows[1][3] == "audit exported"
