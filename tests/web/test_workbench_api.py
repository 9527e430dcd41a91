"""What the workbench asks beside drafts: history, presence, trials, brands, pictures, starts, conditions."""

import io
import re

import pytest
from conftest import Browser, make_person, save_draft, visit_document, within
from PIL import Image

from codexa.services import desk, groups, publishing
from codexa.services.errors import TrialsFailError
from codexa.store import history

TRIAL = {
    "id": "t1",
    "name": "Twenty",
    "day": "2026-11-23",
    "answers": {"people": "20"},
    "expected": {"hidden": ["school"]},
}


@pytest.fixture
def draft(connection, mira):
    form = desk.import_form(within(connection), who=mira, document=visit_document())
    connection.commit()
    return form


def save(connection, who, form, revision, **changes):
    document = visit_document() | changes
    save_draft(connection, who=who, form=form, revision=revision, document=document)
    connection.commit()


class TestAddresses:
    def address(self, as_mira, form, wanted):
        return as_mira.put(f"/api/forms/{form}/address", json={"address": wanted})

    def test_go_by_the_name_until_they_are_chosen_or_live(self, as_mira, connection, mira, draft):
        save(connection, mira, draft, 1, name="School evenings")
        assert as_mira.get(f"/api/forms/{draft}").json["slug"] == "school-evenings"
        for revision, (name, slug) in enumerate([("Summer 2026", "summer-2026"), ("Summer", "summer")], 2):
            save(connection, mira, draft, revision, name=name)
            assert as_mira.get(f"/api/forms/{draft}").json["slug"] == slug
        chosen = self.address(as_mira, draft, "Evenings at the Döme!").json
        assert chosen["slug"] == "evenings-at-the-dome"
        assert chosen["address"].endswith("/f/alderlight/evenings-at-the-dome")
        save(connection, mira, draft, 4, name="Winter")
        assert as_mira.get(f"/api/forms/{draft}").json["slug"] == "evenings-at-the-dome"
        publishing.publish(within(connection), who=mira, form=draft, revision=5)
        save(connection, mira, draft, 5, name="Summer")
        assert as_mira.get(f"/api/forms/{draft}").json["slug"] == "evenings-at-the-dome"

    def test_lead_on_once_they_were_live_and_are_nobody_elses_ever(self, agent, as_mira, connection, mira, draft):
        self.address(as_mira, draft, "first")
        self.address(as_mira, draft, "second")  # nobody could have the first yet
        publishing.publish(within(connection), who=mira, form=draft, revision=1)
        connection.commit()
        self.address(as_mira, draft, "third")
        moved = agent.client.get("/f/alderlight/second/2?who=ana%20b")
        assert (moved.status_code, moved.headers["Location"]) == (302, "/f/alderlight/third/2?who=ana%20b")
        assert agent.client.get("/embed/alderlight/second").headers["Location"] == "/embed/alderlight/third"
        assert [agent.client.get(f"/f/alderlight/{each}").status_code for each in ("first", "third")] == [404, 200]
        other = desk.make_form(connection, who=mira, name="Second")
        connection.commit()
        assert as_mira.get(f"/api/forms/{other}").json["slug"] == "second-2"
        for taken in ("second", "third"):
            refused = self.address(as_mira, other, taken)
            assert (refused.status_code, refused.json["code"]) == (409, "name_taken")
        assert self.address(as_mira, draft, "second").json["slug"] == "second"
        assert agent.client.get("/f/alderlight/second").status_code == 200

    def test_are_no_signs_alone(self, as_mira, draft):
        assert self.address(as_mira, draft, " !? ").status_code == 400


def test_what_publishing_would_change_is_told_before(as_mira, connection, mira, draft):
    assert as_mira.get(f"/api/forms/{draft}/changes").json["changes"] == []
    publishing.publish(within(connection), who=mira, form=draft, revision=1)
    save(connection, mira, draft, 1, title="Another", trials=[TRIAL], brand={"accent": "#112233", "ink": "#000000"})
    words = [each["words"] for each in as_mira.get(f"/api/forms/{draft}/changes").json["changes"]]
    assert words[0] == "title was Your visit, is Another"
    assert not any("trial" in each for each in words)
    # A look is one thing that somebody changed, however much of it.
    assert as_mira.get(f"/api/forms/{draft}").json["changes"] == 2


class TestHistory:
    def test_lists_states_with_who_and_editions_and_tells_changes(self, as_mira, connection, mira, draft):
        publishing.publish(within(connection), who=mira, form=draft, revision=1)
        save(connection, mira, draft, 1, title="Another title")
        states = as_mira.get(f"/api/forms/{draft}/states").json["states"]
        assert [(each["revision"], each["saved_by"], each["edition"]) for each in states] == [
            (2, "Owner", None),
            (1, "Owner", 1),
        ]
        assert [each["revision"] for each in as_mira.get(f"/api/forms/{draft}/states?before=2").json["states"]] == [1]
        changes = as_mira.get(f"/api/forms/{draft}/states/1/changes/2").json["changes"]
        assert changes == [{"part": None, "name": "the form", "words": "title was Your visit, is Another title"}]
        assert as_mira.get(f"/api/forms/{draft}/states/1").json["draft"]["title"] == "Your visit"
        assert as_mira.get(f"/api/forms/{draft}/states/9").status_code == 404

    def test_a_state_has_a_name_and_a_size_and_is_kept_for_it(self, as_mira, connection, mira, draft):
        for revision, title in enumerate(("One", "Two", "Three"), 1):
            save(connection, mira, draft, revision, title=title)
        place = f"/api/forms/{draft}/states/2/name"
        assert as_mira.put(place, json={"name": "  As   agreed "}).status_code == 204
        assert as_mira.put(f"/api/forms/{draft}/states/9/name", json={"name": "x"}).status_code == 404
        assert as_mira.put(place, json={"name": "x" * 101}).status_code == 400
        states = as_mira.get(f"/api/forms/{draft}/states").json["states"]
        assert [(each["name"], each["changes"]) for each in states] == [("", 1), ("", 1), ("As agreed", 1), ("", 1)]
        connection.execute("UPDATE saved_state SET saved_at = saved_at - interval '400 days'")
        connection.commit()
        assert history.thin_states(connection, days=30) == 1
        connection.commit()
        states = as_mira.get(f"/api/forms/{draft}/states").json["states"]
        assert [each["revision"] for each in states] == [4, 2, 1]

    def test_a_state_is_read_as_text_and_compared(self, as_mira, connection, mira, draft):
        save(connection, mira, draft, 1, title="Another <title>")
        page = as_mira.client.get(f"/api/forms/{draft}/states/2/text?against=1").get_data(as_text=True)
        assert "<ins>  title: Another &lt;title&gt;</ins>" in page
        assert re.search(r"<span>\s+1.2 People \(number\)</span>", page)
        assert "<ins>" not in as_mira.client.get(f"/api/forms/{draft}/states/2/text").get_data(as_text=True)
        assert as_mira.client.get(f"/api/forms/{draft}/states/2/text").headers["Content-Type"].startswith("text/html")

    def test_presence_names_others_and_the_revision_and_forgets_who_left(self, app, as_mira, connection, draft):
        connection.commit()
        jonas = Browser(app)
        jonas.sign_in(make_person(connection, role="editor", email="jonas@example.org") and "jonas@example.org")
        connection.commit()
        address = f"/api/forms/{draft}/presence"
        mine = {"tab": "mine", "area": "compose", "part": "people"}
        assert as_mira.post(address, json=mine).json == {"people": [], "revision": 1, "live_edition": None}
        # One's own other tabs are nobody else.
        assert as_mira.post(address, json=mine | {"tab": "second"}).json["people"] == []
        jonas.sign_in("jonas@example.org")
        heard = jonas.post(address, json={"tab": "his", "area": "rules"}).json["people"]
        assert heard == [{"name": "Owner", "area": "compose", "part": "people"}]
        for tab in ("mine", "second"):
            as_mira.post(f"{address}/end", json={"tab": tab})
        assert jonas.post(address, json={"tab": "his", "area": "rules"}).json["people"] == []


class TestTrials:
    def test_publishing_asks_when_one_fails(self, as_mira, connection, mira):
        form = desk.import_form(within(connection), who=mira, document=visit_document() | {"trials": [TRIAL]})
        connection.commit()
        (result,) = as_mira.get(f"/api/forms/{form}/preview/trials").json["results"]
        assert [(each["name"], each["expected"], each["came"]) for each in result["differences"]] == [
            ("1.3 School", "hidden", "shown")
        ]
        with pytest.raises(TrialsFailError):
            publishing.publish(within(connection), who=mira, form=form, revision=1)
        refused = as_mira.post(f"/api/forms/{form}/editions", json={"revision": 1})
        assert (refused.status_code, refused.json["code"]) == (409, "trials_fail")
        assert refused.json["message"] == "1 of 1 trials fails: “Twenty”."
        assert (
            as_mira.post(f"/api/forms/{form}/editions", json={"revision": 1, "despite_trials": True}).status_code == 200
        )

    def test_what_broke_one_is_found_among_the_saved_states_with_who_saved_it(self, as_mira, connection, mira, draft):
        jonas = make_person(connection, email="jonas@example.org", role="editor")
        trial = TRIAL | {"answers": {"people": "20", "show": "o1"}, "expected": {"figures": {"price": "€90.00"}}}
        save(connection, mira, draft, 1, trials=[trial])
        for revision in range(2, 8):
            save(connection, mira, draft, revision, trials=[trial], title=f"Visit {revision}")
        dearer = visit_document()["pages"]
        next(each for each in dearer[0]["blocks"] if each["id"] == "price")["formula"] = "show * people * 2"
        save(connection, jonas, draft, 8, pages=dearer, title="Dearer", trials=[trial])
        save(connection, mira, draft, 9, pages=dearer, title="Still dearer", trials=[trial])
        broken = as_mira.get(f"/api/forms/{draft}/preview/trials/{trial['id']}/broken").json
        assert (broken["fails"], broken["passed"]["revision"], broken["failed"]["revision"]) == (True, 8, 9)
        assert broken["failed"]["saved_by"] == "Editor"
        assert [each["words"] for each in broken["changes"]] == ["formula was show * people, is show * people * 2"]

    def test_one_that_passes_was_not_broken_one_that_never_did_has_no_state_and_one_that_is_gone_is_not_found(
        self, as_mira, connection, mira, draft
    ):
        good, never = TRIAL | {"id": "good", "expected": {}}, TRIAL | {"id": "never", "expected": {"hidden": ["gone"]}}
        save(connection, mira, draft, 1, trials=[good, never])

        def broken(trial):
            return as_mira.get(f"/api/forms/{draft}/preview/trials/{trial}/broken")

        assert broken("good").json == {"fails": False, "passed": None, "failed": None, "changes": []}
        assert broken("never").json == {"fails": True, "passed": None, "failed": None, "changes": []}
        assert (broken("gone").status_code, broken("gone").json["message"]) == (404, "This trial was removed.")

    def test_sample_answers_try_what_no_trial_has_tried(self, as_mira, draft):
        found = as_mira.post(f"/api/forms/{draft}/preview/untried", json={"seed": 1}).json
        assert {"owner": "school", "setting": "shown", "holds": True} in found["reached"]
        assert "school" in found["outcome"]["shown"]

    def test_an_outcome_tells_which_conditions_hold(self, as_mira, draft):
        given = {"answers": {"people": "20", "show": "o1"}, "day": "2026-11-23"}
        outcome = as_mira.post(f"/api/forms/{draft}/preview/outcome", json=given).json
        assert outcome["holding"] == {"school": {"shown": True}}
        assert (outcome["values"]["price"], outcome["outcome"]["wrong"]) == ("€90.00", ["school"])

    def test_responses_are_tried_with_the_draft_not_with_their_edition(self, as_mira, connection, mira, published):
        sent = {"answers": {"people": "3", "show": "o2"}}
        as_mira.post(
            f"/api/public/{published}/1/responses", json=sent, headers={"Idempotency-Key": "a-long-enough-key"}
        )
        blocks = visit_document()["pages"][0]["blocks"]
        blocks[4]["formula"] = "show * people * 10"
        save(connection, mira, published, 1, pages=[{"id": "p1", "title": "Visit", "blocks": blocks}])
        (tried,) = as_mira.get(f"/api/forms/{published}/preview/responses").json["responses"]
        assert (tried["answers"]["people"], tried["figures"]["price"]) == ("3", "€180.00")
        # One is tried by its number, which it has: nothing is kept of that.
        blocks[4] |= {"format": "text", "formula": '"VR-" & TEXT(response.number, "00000")'}
        save(connection, mira, published, 2, pages=[{"id": "p1", "title": "Visit", "blocks": blocks}])
        one = as_mira.get(f"/api/forms/{published}/preview/responses/1").json
        assert (one["figures"]["price"], one["figures"]["people"]) == ("VR-00001", "3")
        assert as_mira.get(f"/api/forms/{published}/preview/responses/2").status_code == 404
        assert as_mira.get(f"/api/forms/{published}/responses/1").json["row"]["cells"]["price"] == "€18.00"


class TestBrands:
    LOOK = {"accent": "#1B4D3E", "typeface": "lora"}

    def test_a_brand_is_changed_in_one_place_for_live_forms_too(self, as_mira, connection, mira, draft):
        brand = as_mira.post("/api/brands", json={"name": "Forest", "look": self.LOOK}).json["id"]
        save(connection, mira, draft, 1, brand={**self.LOOK, "saved": brand})
        publishing.publish(within(connection), who=mira, form=draft, revision=2)
        connection.commit()
        as_mira.put(f"/api/brands/{brand}", json={"look": {"accent": "#7A3B12"}})
        assert "#7A3B12" in as_mira.get("/f/alderlight/visit").get_data(as_text=True)
        (listed,) = as_mira.get("/api/brands").json["brands"]
        assert (listed["name"], listed["look"]["accent"], listed["forms"]) == ("Forest", "#7A3B12", 1)
        as_mira.delete(f"/api/brands/{brand}")
        assert "#1B4D3E" in as_mira.get("/f/alderlight/visit").get_data(as_text=True)

    def test_a_form_that_waits_gets_a_changed_brand_with_its_next_edition(self, as_mira, connection, mira, draft):
        brand = as_mira.post("/api/brands", json={"name": "Forest", "look": self.LOOK}).json["id"]
        save(connection, mira, draft, 1, brand={**self.LOOK, "saved": brand, "follows": "edition"})
        publishing.publish(within(connection), who=mira, form=draft, revision=2)
        connection.commit()
        as_mira.put(f"/api/brands/{brand}", json={"look": {"accent": "#7A3B12"}})
        assert "#1B4D3E" in as_mira.get("/f/alderlight/visit").text
        assert "#7A3B12" in as_mira.get(f"/preview/{draft}").text
        (listed,) = as_mira.get("/api/brands").json["brands"]
        assert (listed["forms"], listed["waiting"], listed["look"]["follows"]) == (1, 1, "at_once")
        opened = as_mira.get(f"/api/forms/{draft}").json
        assert (opened["changes"], opened["revision"], opened["draft"]["brand"]["saved"]) == (1, 3, brand)
        assert [each["revision"] for each in as_mira.get(f"/api/forms/{draft}/states").json["states"]] == [3, 2, 1]
        as_mira.post(f"/api/forms/{draft}/editions", json={"revision": 3})
        assert "#7A3B12" in as_mira.get("/f/alderlight/visit").text

    def test_two_brands_have_two_names_and_a_wrong_look_is_refused(self, as_mira):
        assert as_mira.post("/api/brands", json={"name": "Night", "look": {}}).status_code == 200
        assert as_mira.post("/api/brands", json={"name": "Night", "look": {}}).json["code"] == "name_taken"
        wrong = as_mira.post("/api/brands", json={"name": "Day", "look": {"accent": "red"}})
        assert (wrong.status_code, wrong.json["problems"][0]["path"]) == (422, "accent")

    @pytest.mark.parametrize("saved", ["-" * 36, "00000000-0000-0000-0000-000000000000"])
    def test_a_brand_that_is_none_leaves_the_form_its_own_look(self, as_mira, connection, mira, draft, saved):
        save(connection, mira, draft, 1, brand={"accent": "#123456", "saved": saved})
        assert as_mira.get(f"/api/forms/{draft}").json["draft"]["brand"]["accent"] == "#123456"

    def test_another_teams_brand_is_out_of_reach(self, app, as_mira, connection):
        brand = as_mira.post("/api/brands", json={"name": "Ours", "look": {}}).json["id"]
        stranger = Browser(app)
        make_person(connection, team="harbour", email="stranger@example.org")
        connection.commit()
        stranger.sign_in("stranger@example.org")
        assert stranger.put(f"/api/brands/{brand}", json={"look": {}}).status_code == 404
        assert stranger.get("/api/brands").json["brands"] == []


class TestPictures:
    @staticmethod
    def send(as_mira, content, name="logo.png"):
        return as_mira.client.post(f"/api/pictures?name={name}", data=content, headers=as_mira.headers)

    @pytest.mark.parametrize(("kind", "media"), [("PNG", "image/png"), ("JPEG", "image/jpeg"), ("GIF", "image/png")])
    def test_are_written_anew_made_smaller_and_served_apart(self, as_mira, kind, media):
        buffer = io.BytesIO()
        # As long and flat as somebody's banner.
        Image.new("RGB", (8000, 100), "navy").save(buffer, kind, comment=b"a secret")
        made = self.send(as_mira, buffer.getvalue()).json
        assert (made["width"], made["height"]) == (2400, 30)
        served = as_mira.get(made["source"])
        assert served.mimetype == media
        assert served.headers["Content-Security-Policy"] == "default-src 'none'; sandbox"
        assert b"a secret" not in served.data
        served.close()

    @pytest.mark.parametrize(
        ("content", "words"),
        [
            (b"<svg xmlns='http://www.w3.org/2000/svg'><script/></svg>", "no picture that browsers show"),
            (b"\x89PNG\r\n\x1a\nbroken", "damaged, or no picture"),
            (b"\x89PNG" + b"0" * 5_000_001, "too large"),
        ],
    )
    def test_what_is_none_is_refused(self, as_mira, content, words):
        reply = self.send(as_mira, content)
        assert (reply.status_code, reply.json["code"]) in ((422, "file_refused"), (413, "http_413"))
        assert words in reply.json["message"] or reply.status_code == 413


class TestStarts:
    def test_an_outline_is_told_before_it_is_made(self, as_mira):
        told = as_mira.post("/api/forms/outline", json={"text": "Group size* number 1..60"}).json
        assert told["lines"][0]["makes"] == "number, must be answered, from 1 to 60"
        made = as_mira.post("/api/forms", json={"name": "Walk", "outline": "Group size* number 1..60"}).json["id"]
        (block,) = as_mira.get(f"/api/forms/{made}").json["draft"]["pages"][0]["blocks"]
        assert (block["type"], block["minimum"]) == ("number", "1")

    def test_templates_are_listed_in_numbers_and_make_forms(self, as_mira):
        listed = as_mira.get("/api/forms/templates").json["templates"]
        assert all(each["fields"] > 2 and each["pages"] for each in listed)
        made = as_mira.post("/api/forms", json={"template": listed[0]["name"]}).json["id"]
        assert as_mira.get(f"/api/forms/{made}").json["draft"]["name"] == listed[0]["title"]
        assert as_mira.post("/api/forms", json={"template": "../secret"}).status_code == 404


def test_conditions_travel_as_rows_and_as_formulas(as_mira):
    rows = as_mira.post("/api/conditions/rows", json={"formula": 'OR(people > 12, show = "deep")'}).json["rows"]
    assert [(row["name"], row["operator"], row["operands"]) for row in rows["rows"]] == [
        ("people", "more", ["12"]),
        ("show", "is", ['"deep"']),
    ]
    assert (
        as_mira.post("/api/conditions/formula", json={"rows": rows}).json["formula"] == 'OR(people > 12, show = "deep")'
    )
    wrong = {"join": "all", "rows": [{"name": "people", "operator": "more", "operands": ["12 +"]}]}
    kept = as_mira.post("/api/conditions/formula", json={"rows": wrong}).json["formula"]
    assert kept == 'people > MISSING("12 +")'
    again = as_mira.post("/api/conditions/rows", json={"formula": kept}).json["rows"]["rows"]
    assert [row["operands"] for row in again] == [["12 +"]]
    assert as_mira.post("/api/conditions/rows", json={"formula": "people >"}).json["rows"] is None


class TestOpening:
    def test_begins_with_the_page_where_the_address_is_a_forms(self, as_mira, draft):
        page = as_mira.get(f"/forms/{draft}/compose").text
        ahead = re.findall(r'<link rel="preload" as="fetch" crossorigin href="([^"]+)">', page)
        assert [as_mira.get(each).status_code for each in ahead] == [200]
        assert ahead == [f"/api/forms/{draft}"]
        scripts = re.findall(r'<link rel="modulepreload" href="([^"]+)">', page)
        assert len(scripts) == len(set(scripts))
        assert any("Workbench" in each for each in scripts)
        elsewhere = as_mira.get("/forms/none/compose").text
        assert "/api/forms/" not in elsewhere
        assert len(scripts) > elsewhere.count('"modulepreload"')

    def test_says_what_is_true_of_the_draft_and_of_the_team_now(self, as_mira, connection, mira, draft):
        def told():
            return {finding["code"] for finding in as_mira.get(f"/api/forms/{draft}").json["analysis"]["findings"]}

        (first,) = visit_document()["pages"]
        asking = {"id": "why", "type": "short_text", "key": "why", "label": "Why", "shown": 'INGROUP("keepers")'}
        as_it_was = told()
        save(connection, mira, draft, 1, pages=[first | {"blocks": [*first["blocks"], asking]}])
        assert told() == told() == as_it_was | {"no_such_group"}
        groups.make(within(connection), who=mira, name="Keepers")
        connection.commit()
        assert told() == as_it_was
        save(connection, mira, draft, 2, title="")
        assert told() == as_it_was | {"no_title"}
