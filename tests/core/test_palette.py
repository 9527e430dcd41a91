"""Colours that follow from a brand's own: they read well on every brand, or proof names the pair and a remedy."""

import json
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.definition.brand import Brand
from codexa.core.definition.colour import MIN_CONTRAST, contrast
from codexa.core.definition.palette import contrasts, mixed, palette, readable, weak_contrasts
from codexa.core.definition.palettes import PALETTES
from codexa.core.program.proof import proof
from core.forms import block, program_of

CASES = json.loads((Path(__file__).parents[1] / "cases" / "palettes.json").read_text())
COLOUR = some.integers(0, 0xFFFFFF).map(lambda number: f"#{number:06X}")
BRAND = some.builds(Brand, accent=COLOUR, banner=some.none() | COLOUR, ground=COLOUR, paper=COLOUR, ink=COLOUR)


@pytest.mark.parametrize("case", CASES, ids=lambda case: case["accent"] + case["paper"])
def test_the_browser_and_the_core_draw_with_the_same_colours(case):
    colours = {name: case[name] for name in ("accent", "banner", "paper", "ink")}
    assert palette(Brand(**colours)) == case["drawn"]


@given(BRAND)
def test_every_pair_of_any_brand_reads_well_or_is_named_by_the_proof(brand):
    weak = weak_contrasts(brand)
    found = [each for each in proof(program_of(block("short_text", "a"), brand=brand)) if each.code == "low_contrast"]
    assert [each.setting for each in found] == [f"brand.{setting}" for setting, _, _ in weak]
    # What text stands on is chosen so that it reads; only ink and paper are the author's alone.
    assert {setting for setting, _, _ in weak} <= {"ink", "paper"}
    drawn = palette(brand)
    for text, ground in (
        ("on_accent", brand.accent),
        ("on_banner", brand.banner or brand.accent),
        ("on_deep", drawn["deep"]),
    ):
        assert contrast(drawn[text], ground) >= MIN_CONTRAST
    if contrast("#000000", brand.paper) > 6 or contrast("#FFFFFF", brand.paper) > 6:
        # On a paper that is clearly light or dark links, hints and errors read, however the accent was chosen.
        assert {setting for setting, _, _ in weak} <= {"ink"}


@given(BRAND, COLOUR, COLOUR)
def test_what_is_set_by_hand_is_drawn_so_and_named_where_it_does_not_read(brand, on_accent, on_banner):
    by_hand = brand.model_copy(update={"on_accent": on_accent, "on_banner": on_banner})
    drawn = palette(by_hand)
    assert (drawn["on_accent"], drawn["on_banner"]) == (on_accent, on_banner)
    weak = {setting for setting, _, _ in weak_contrasts(by_hand)}
    assert ("on_accent" in weak) == (contrast(on_accent, brand.accent) < MIN_CONTRAST)
    assert ("on_banner" in weak) == (contrast(on_banner, brand.banner or brand.accent) < MIN_CONTRAST)


def test_what_reads_well_stays_as_it_is_and_a_dark_paper_gets_lighter_errors():
    assert readable("#A62B14", ("#FFFFFF",)) == "#A62B14"
    dark = Brand(accent="#D4A72C", banner=None, ground="#0B1020", paper="#12182B", ink="#EEF0F7")
    assert weak_contrasts(dark) == []
    drawn = palette(dark)
    assert contrast(drawn["wrong"], dark.paper) >= MIN_CONTRAST > contrast("#A62B14", dark.paper)
    # White on gold is 2.25 to 1; the paper's own colour reads best.
    assert drawn["on_accent"] == dark.paper
    assert mixed("#000000", "#FFFFFF", 0.5) == "#808080"
    assert len(list(contrasts(dark))) == 10


def test_whatever_is_drawn_with_a_ready_made_one_reads_well_and_no_two_are_alike():
    assert len(PALETTES) == 12
    assert [each for colours in PALETTES.values() for each in weak_contrasts(Brand(**colours))] == []
    assert len({colours["accent"] for colours in PALETTES.values()}) == 12
