"""Who may fill in a form and when: at the second, across a clock change."""

import datetime

import pytest

from codexa.core.errors import DefinitionError
from codexa.core.form.access import Access, closing, moment_in, opening, require_fitting, standing
from codexa.core.form.form import read_form

BERLIN = "Europe/Berlin"


def at(text):
    return datetime.datetime.fromisoformat(text)


@pytest.mark.parametrize(
    ("now", "stands"),
    [
        ("2026-05-01T08:59:59.999999+02:00", "early"),
        ("2026-05-01T09:00:00+02:00", "open"),
        ("2026-05-31T17:59:59.999999+02:00", "open"),
        ("2026-05-31T18:00:00+02:00", "over"),
        ("2026-05-31T16:00:00+00:00", "over"),
    ],
)
def test_a_form_opens_and_closes_at_the_second(now, stands):
    access = Access(opens="2026-05-01T09:00", closes="2026-05-31T18:00")
    assert standing(access, BERLIN, at(now)) == stands


def test_taken_off_line_comes_before_all_else():
    assert standing(Access(online=False, opens="2999-01-01T00:00"), BERLIN, at("2026-01-01T00:00+01:00")) == "offline"


def test_where_clocks_go_back_it_opens_with_the_first_of_two_times_and_closes_with_the_last():
    # On 25 October 2026 clocks in Berlin show half past two twice.
    access = Access(opens="2026-10-25T02:30", closes="2026-10-26T02:30")
    assert opening(access, BERLIN) == at("2026-10-25T02:30+02:00")
    assert closing(Access(closes="2026-10-25T02:30"), BERLIN) == at("2026-10-25T02:30+01:00")
    assert standing(access, BERLIN, at("2026-10-25T00:30:00+00:00")) == "open"
    assert standing(Access(closes="2026-10-25T02:30"), BERLIN, at("2026-10-25T01:29:59+00:00")) == "open"


def test_a_time_that_clocks_pass_over_is_refused_with_what_to_do():
    form = read_form({"name": "F", "time_zone": BERLIN, "pages": []})
    with pytest.raises(DefinitionError, match="does not exist in Europe/Berlin"):
        require_fitting(Access(opens="2026-03-29T02:30"), form)
    with pytest.raises(DefinitionError, match="does not exist"):
        moment_in("2026-03-29T02:30", BERLIN)


@pytest.mark.parametrize(
    "wrong",
    [
        {"opens": "2026-05-02T09:00", "closes": "2026-05-01T09:00"},
        {"opens": "2026-05-01T09:00", "closes": "2026-05-01T09:00"},
        {"opens": "tomorrow"},
        {"opens": "2026-05-01"},
        {"opens": "2026-05-01T09:00+02:00"},
        {"most": 0},
        {"most_each": 1},
        {"each": "mail"},
    ],
)
def test_what_can_not_be_meant_is_refused(wrong):
    with pytest.raises(ValueError, match=r"\w"):
        Access.model_validate(wrong)


def test_a_person_is_told_by_a_field_that_is_there():
    form = read_form({"name": "F", "pages": []})
    with pytest.raises(DefinitionError, match="this field is gone"):
        require_fitting(Access(most_each=1, each="mail"), form)
