"""Web address: a link to a page."""

from typing import Any, Literal

from codexa.core.definition.parts import FieldFace, PlainLabel, Question
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Family, Region, Sampling
from codexa.core.fields.text_value import TextFieldType
from codexa.core.web_addresses import parts_of


class WebAddressFace(FieldFace):
    """What the browser may know of a web address."""

    type: Literal["web_address"] = "web_address"
    placeholder: PlainLabel = ""


class WebAddressField(WebAddressFace, Question):
    """The address of a web page (RFC 3986, http or https); one without a scheme gets https."""

    personal: bool = True


class WebAddressType(TextFieldType[WebAddressField]):
    """Web address."""

    name = "web_address"
    title = "Web address"
    family = Family.PEOPLE
    purpose = "The address of a web page."
    face = WebAddressFace
    block = WebAddressField
    can_be_wrong = True

    def parse(self, raw: Any, block: WebAddressField, region: Region) -> str | None:
        """Return the address with its scheme."""
        text = super().parse(raw, block, region)
        if text is None:
            return None
        address = text if "://" in text else f"https://{text}"
        parts = parts_of(address)
        if (
            parts.scheme not in ("http", "https")
            or "." not in (parts.hostname or "").strip(".")
            or any(each.isspace() for each in address)
        ):
            raise AnswerError("not_an_address", "Enter a web address such as www.example.org.")
        return address

    def limits(self, block: WebAddressField) -> str:
        """The form of an address."""
        return "a web address"

    def answer_schema(self, block: WebAddressField) -> dict[str, Any]:
        """A URI."""
        return {"type": "string", "pattern": "^https?://"}

    def sample(self, block: WebAddressField, how: Sampling) -> str:
        """An invented page."""
        return (
            f"https://www.example.{how.random.choice(('org', 'com'))}/{how.random.choice(('club', 'school', 'talks'))}"
        )
