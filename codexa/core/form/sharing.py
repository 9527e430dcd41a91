"""How a link to the form looks in other programs: what they show of it before anybody opens it."""

from typing import Annotated

from pydantic import StringConstraints

from codexa.core.definition.parts import Label, Part, Words

# One of the team's pictures: other programs fetch it, and read none that stands in an address.
_Stored = Annotated[str, StringConstraints(pattern=r"^(/pictures/[0-9a-f-]{36})?$")]


class Sharing(Part):
    """A title, a description and a picture; "" stands for the form's own title and lead, and for no picture."""

    title: Label = ""
    description: Words = ""
    picture: _Stored = ""
