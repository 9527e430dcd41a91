"""Pieces of what visitors read after handing in, in a confirmation or a mail: texts, charts, pictures."""

from typing import Annotated, Literal

from pydantic import Field as Setting

from codexa.core.definition.figures import Decimals
from codexa.core.definition.parts import OptionalIdentifier, Part, PlainLabel, ShownWhen
from codexa.core.definition.rich_text import RichText
from codexa.core.fields.content import PictureSource


class ChartLook(Part):
    """How a chart shows its bars: what each says ("" is points for a score, percent for a profile) and which of them.

    `decimals` are those of its numbers (None: as many as there are, of a score's percent the figure's), `first` how
    many bars are shown (None: all), `order` whether the largest comes first, or they stand in the order of the
    profiles.
    """

    says: Literal["", "points", "percent"] = ""
    decimals: Decimals | None = None
    first: Annotated[int, Setting(ge=1, le=100)] | None = None
    order: Literal["largest", "given"] = "largest"


class Paragraph(Part):
    """A piece of a confirmation, shown when its condition holds: a text, a picture, or a chart.

    `chart` is the id of a score or profile; `picture` a data URL or a path on this server, with words for who can't
    see it.
    """

    text: RichText = ""
    shown: ShownWhen = ""
    chart: OptionalIdentifier = ""
    chart_look: ChartLook = ChartLook()
    picture: PictureSource = ""
    alternative: PlainLabel = ""
