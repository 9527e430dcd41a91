"""A draft's further languages: its texts with their translations, and both as files."""

import base64
import binascii
from uuid import UUID

from flask import Blueprint, Response, request
from pydantic import TypeAdapter, ValidationError

from codexa.core.definition.translation import LocaleCode
from codexa.core.form.translating import translations
from codexa.services import translating
from codexa.services.roles import Right
from codexa.services.translating import ToTranslate
from codexa.services.translation_files import MOST_BYTES, as_csv, as_xliff, read_translations
from codexa.web.contract.translations import (
    FoundTranslationsReply,
    LanguageProgressReply,
    TextToTranslate,
    TranslationFileRequest,
    TranslationsReply,
)
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted
from codexa.web.reading import BadRequestError

blueprint = Blueprint("translations", __name__, url_prefix="/api/forms/<uuid:form>/translations")
_LOCALE: TypeAdapter[str] = TypeAdapter(LocaleCode)
_MOST_FILE = MOST_BYTES * 4 // 3 + 64 * 1024  # a file in base64, and what stands around it


@endpoint(blueprint, "GET", "", reply=TranslationsReply)
def show(form: UUID) -> TranslationsReply:
    """Return how far the languages of the draft are; with `language` in the query, its texts in that."""
    draft = translating.draft_of(connection, who=may(Right.SEE_FORMS), form=form)
    texts = translating.to_translate(draft, _language()) if request.args.get("language") else []
    return TranslationsReply(
        languages=[LanguageProgressReply.model_validate(each) for each in translating.progress(draft)],
        texts=[_text(each) for each in texts],
    )


def _text(each: ToTranslate) -> TextToTranslate:
    site = each.found.site
    return TextToTranslate(
        at=site.at,
        owner=site.owner,
        what=site.what,
        source=site.text,
        how=site.how,
        has_words=site.has_words,
        text=each.found.text,
        of=each.found.of,
        standing=each.found.standing,
        lost=each.lost,
        unknown=each.unknown,
        same=each.same,
    )


def _language() -> str:
    try:
        return _LOCALE.validate_python(request.args.get("language", "")[:40])
    except ValidationError:
        raise BadRequestError("language is a code such as de or fr_CH.") from None


@blueprint.get("/texts.xlf")
def xliff(form: UUID) -> Response:
    """The draft's texts in a language as XLIFF."""
    draft, locale = translating.draft_of(connection, who=may(Right.SEE_FORMS), form=form), _language()
    content = as_xliff(draft, locale, translations(draft, translating.language_of(draft, locale)))
    return _file(content, "application/xliff+xml", f"texts-{locale}.xlf")


@blueprint.get("/texts.csv")
def as_table(form: UUID) -> Response:
    """The draft's texts in a language as CSV."""
    draft, locale = translating.draft_of(connection, who=may(Right.SEE_FORMS), form=form), _language()
    content = as_csv(translations(draft, translating.language_of(draft, locale)))
    return _file(content, "text/csv; charset=utf-8", f"texts-{locale}.csv")


def _file(content: bytes | str, kind: str, name: str) -> Response:
    headers = {"Content-Disposition": f'attachment; filename="{name}"', "Cache-Control": "no-store"}
    return Response(content, headers=headers, mimetype=kind)


@endpoint(blueprint, "POST", "/file", body=TranslationFileRequest, reply=FoundTranslationsReply, most=_MOST_FILE)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def read_file(asked: TranslationFileRequest, form: UUID) -> FoundTranslationsReply:
    """Say what a file has of a language; the workbench puts it into the draft."""
    draft = translating.draft_of(connection, who=may(Right.EDIT_FORMS), form=form)
    try:
        content = base64.b64decode(asked.file, validate=True)
    except binascii.Error:
        raise BadRequestError("file is no base64; send its bytes so.") from None
    return FoundTranslationsReply.model_validate(read_translations(draft, asked.locale, content))
