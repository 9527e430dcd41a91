"""Ready-made palettes: twelve of our own, each read well."""

from codexa.core.definition.brand import Brand
from codexa.core.definition.palette import weak_contrasts
from codexa.core.definition.palettes import PALETTES


def test_whatever_is_drawn_with_one_reads_well_and_no_two_are_alike():
    assert len(PALETTES) == 12
    assert [each for colours in PALETTES.values() for each in weak_contrasts(Brand(**colours))] == []
    assert len({colours["accent"] for colours in PALETTES.values()}) == 12
