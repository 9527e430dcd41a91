"""Whatever a specialist makes, every address answers: the workbench, the preview, and what visitors get."""

import uuid

from core.any_form import forms, provable_forms
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as some

from codexa.core.form.form import read_form

PARTS = some.sampled_from(["form", "p1", "b0", "brows", "btext", "gfee"])


@settings(max_examples=9, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(document=some.one_of(forms(), provable_forms()), seed=some.integers(0, 1000), part=PARTS)
def test_every_draft_is_shown_tried_explained_and_published_or_refused_in_words(as_mira, document, seed, part):
    form = as_mira.post("/api/forms", json={"document": document}).json["id"]
    address = f"/api/forms/{form}"
    opened = as_mira.get(address).json
    answers = as_mira.post(f"{address}/preview/sample", json={"seed": seed}).json["answers"]
    assert as_mira.get(f"/preview/{form}").status_code == 200
    outcome = as_mira.post(f"{address}/preview/outcome", json={"answers": answers}).json["outcome"]
    trial = {"id": "t1", "name": "Kept", "day": "2026-11-23", "answers": answers, "expected": outcome}
    saved = as_mira.put(f"{address}/draft", json={"revision": 1, "draft": document | {"trials": [trial]}})
    assert saved.status_code == 200
    assert as_mira.get(f"{address}/states/1/changes/2").json["changes"] == [
        {"part": "t1", "name": "Kept", "words": "trial added"}
    ]
    assert len(as_mira.get(f"{address}/preview/trials").json["results"]) == 1
    why = as_mira.post(f"{address}/preview/explain", json={"answers": answers, "part": part})
    assert why.status_code == (404 if part not in known_parts(document) else 200)
    published = as_mira.post(f"{address}/editions", json={"revision": 2, "despite_trials": True})
    wrong = [each for each in opened["analysis"]["findings"] if each["severity"] == "error"]
    assert published.status_code == (422 if wrong else 200)
    if not wrong:
        hand_in(as_mira, form, answers)


def known_parts(document):
    form = read_form(document)
    figures = [figure.id for figure in form.figures]
    return {"form", *form.numbers(), *figures}


def hand_in(agent, form, answers):
    """Send answers as a visitor, and read them as the team does."""
    assert agent.get(f"/api/forms/{form}/editions").json["editions"][0]["number"] == 1
    public = f"/api/public/{form}/1"
    assert agent.client.post(f"{public}/state", json={"answers": answers, "changed": list(answers)}).status_code == 200
    key = {"Idempotency-Key": uuid.uuid4().hex}
    sent = agent.client.post(f"{public}/responses", json={"answers": answers}, headers=key)
    assert sent.status_code in (201, 422)
    kept = sent.status_code == 201
    assert agent.get(f"/api/forms/{form}/responses").json["count"] == kept
    assert len(agent.get(f"/api/forms/{form}/responses.csv").get_data(as_text=True).splitlines()) >= 1 + kept
    assert len(agent.get(f"/api/forms/{form}/preview/responses").json["responses"]) == kept
