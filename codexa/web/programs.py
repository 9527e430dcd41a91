"""The API for programs: forms and their schemas, responses with filters and cursors, and handing in."""

from uuid import UUID

from flask import Blueprint, Response, current_app, request

from codexa.core.errors import Problem
from codexa.core.program.accept import Refused
from codexa.core.program.by_key import entered_by_key, path_of
from codexa.core.program.evaluate import FieldError
from codexa.core.program.program import Program
from codexa.services import received
from codexa.services.answering import Given, link_of
from codexa.services.errors import ClosedError, NotFoundError, TermsChangedError, TooBusyError
from codexa.services.keys import KeyRight
from codexa.services.payments import asking as paying
from codexa.services.receiving import Incoming, Received, receive
from codexa.services.response_set import documents, looking
from codexa.settings import Settings
from codexa.store import forms as forms_store
from codexa.store import responses as responses_store
from codexa.web.contract.programs import ApiForm, ApiForms, ApiReceived, ApiResponses, ApiSubmission
from codexa.web.database import admissions, connection, editions, own_pages
from codexa.web.endpoint import error_reply, json_reply
from codexa.web.limits import limiter
from codexa.web.operations import PLACE, RATE, holder, openapi_of_operations, operation, what_is_counted
from codexa.web.payments import way
from codexa.web.public import MOST_ANSWERS
from codexa.web.reading import BadRequestError, query_number
from codexa.web.response_set import look_of_query

blueprint = Blueprint("programs", __name__, url_prefix=PLACE)
limiter.limit(RATE, key_func=what_is_counted)(blueprint)

_MOST_PAGE = 200
_TRIES = 3
_FILTER = {
    "where": 'Conditions as a JSON list, such as [["guests","at_least","9"]]: a column by id, how, and values.',
    "match": "all or any of the conditions.",
    "words": "Words that the responses have.",
}


@blueprint.get("/openapi.json")
def openapi() -> Response:
    """What can be asked for, as OpenAPI 3.1; anybody may read it."""
    settings: Settings = current_app.config["SETTINGS"]
    return json_reply(openapi_of_operations(settings.public_address))


@operation(blueprint, "GET", "/forms", KeyRight.READ_FORMS, reply=ApiForms)
def list_forms() -> ApiForms:
    """List the forms that the key may read."""
    return ApiForms(forms=_forms(holder().form_id))


@operation(blueprint, "GET", "/forms/<uuid:form>", KeyRight.READ_FORMS, reply=ApiForm)
def show_form(form: UUID) -> ApiForm:
    """Return one form."""
    return _form(form)


@operation(blueprint, "GET", "/forms/<uuid:form>/schema", KeyRight.READ_FORMS)
def form_schema(form: UUID) -> Response:
    """Return the JSON Schema (2020-12) of the answers to a form's live edition, by key."""
    edition = _form(form).edition
    if edition is None:
        raise NotFoundError("This form has no edition yet, and so no answers. Publish it first.")
    return json_reply(documents.schema(editions().form(form, edition)))


@operation(
    blueprint,
    "GET",
    "/forms/<uuid:form>/responses",
    KeyRight.READ_RESPONSES,
    reply=ApiResponses,
    query={
        **_FILTER,
        "sort": "Up to four columns by id with commas between, - before one that goes down. Newest first without it.",
        "limit": f"How many, at most {_MOST_PAGE}; 50 without it.",
        "after": "The cursor that a page gave as its next.",
    },
)
def list_responses(form: UUID) -> ApiResponses:
    """Return a page of a form's responses, by keys.

    What is complete and no practice, unless conditions ask for response.stage or response.practice.
    """
    found = looking.page_of_documents(
        connection,
        editions(),
        who=holder(),
        form=form,
        look=look_of_query(),
        limit=query_number("limit", 50, _MOST_PAGE),
        after=request.args.get("after", ""),
    )
    return ApiResponses(responses=found.responses, next=found.next)


@operation(blueprint, "GET", "/forms/<uuid:form>/responses/<number:number>", KeyRight.READ_RESPONSES)
def show_response(form: UUID, number: int) -> Response:
    """Return one response, by keys."""
    with connection() as database:
        found = responses_store.find_response(database, team=holder().team_id, form=form, number=number)
    if found is None or found.stage == "removed":
        raise NotFoundError("This form has no response of that number.")
    return json_reply(documents.document(editions(), form, found))


@operation(
    blueprint,
    "POST",
    "/forms/<uuid:form>/responses",
    KeyRight.SUBMIT,
    body=ApiSubmission,
    reply=ApiReceived,
    headers={"Idempotency-Key": "8 to 100 characters, new for each response: the same once more is the same response."},
    most=MOST_ANSWERS,
)
def submit(asked: ApiSubmission, form: UUID) -> Response:
    """Hand in a response to a form's live edition, as a visitor would.

    Rules, limits and opening times hold; what is wrong is told by the path of its keys (422).
    """
    key = request.headers.get("Idempotency-Key", "")
    if not 8 <= len(key) <= 100 or not key.isprintable():
        raise BadRequestError("Send the header Idempotency-Key with 8 to 100 characters, new for each response.")
    edition = _form(form).edition
    if edition is None:
        raise ClosedError
    program = editions().program(form, edition)
    entered = entered_by_key(program, asked.answers)
    if entered.wrong:
        return _wrong(entered.wrong)
    result = _received(
        program,
        Incoming(
            form=form,
            edition=edition,
            key=key,
            given=Given(answers=entered.answers, link=link_of(program, asked.link, None)),
            came={"way": "program", "page": "", "seconds": None},
            pages=own_pages(),
        ),
    )
    if isinstance(result, Refused):
        return _wrong({path_of(program, address): error for address, error in result.errors.items()})
    page = received.address_of(form, result.number, current_app.config["SETTINGS"])
    due = (
        paying.payment_of(way(), form=form, number=result.number, program=program) if program.form.payment.on else None
    )
    to_pay = due.amount if due is not None and due.state == "due" else ""
    base = current_app.config["SETTINGS"].public_address
    return json_reply(
        ApiReceived(number=result.number, page=f"{base}{page}", to_pay=to_pay), 200 if result.repeated else 201
    )


def _received(program: Program, incoming: Incoming) -> Received | Refused:
    """Take it by what holds at this moment; that may be changed meanwhile."""
    for _ in range(_TRIES):
        terms = admissions().terms(incoming.form, fresh=True)
        if terms is None:
            raise ClosedError
        try:
            with connection() as database:
                return receive(database, program, incoming, terms=terms)
        except TermsChangedError:
            continue
    raise TooBusyError


def _wrong(wrong: dict[str, FieldError]) -> Response:
    problems = [Problem(path=f"answers.{path}", message=error.message) for path, error in wrong.items()]
    first = problems[0]
    return error_reply("answers_wrong", f"{first.path}: {first.message}", 422, problems)


def _form(form: UUID) -> ApiForm:
    found = _forms(form)
    if not found:
        raise NotFoundError("There is no such form for this key.")
    return found[0]


def _forms(form: UUID | None) -> list[ApiForm]:
    base = current_app.config["SETTINGS"].public_address
    with connection() as database:
        found = forms_store.list_for_programs(database, team=holder().team_id, form=form)
    return [
        ApiForm(
            id=each.id,
            name=each.name,
            address=None if each.edition is None else f"{base}{each.address}",
            edition=each.edition,
            responses=each.responses,
            changed_at=each.changed_at,
        )
        for each in found
    ]
