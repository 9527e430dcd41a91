"""What visitors reach without signing in: the form's page, its state, uploads, and handing in."""

import io
from http import HTTPStatus
from typing import Any
from urllib.parse import urlsplit
from uuid import UUID

from flask import (
    Blueprint,
    Response,
    current_app,
    g,
    request,
    send_file,
    send_from_directory,
)

from codexa.core.program.accept import Refused
from codexa.core.program.evaluate import FieldError
from codexa.core.program.faces import ErrorFace, OrderFace
from codexa.core.program.news import visitor_news
from codexa.core.program.offers import Sought
from codexa.core.program.program import Program
from codexa.core.program.spoken import spoken_answer
from codexa.core.sentences import in_language
from codexa.core.web_addresses import parts_of
from codexa.services import answering, received, uploads, visits, work
from codexa.services.admission import entry_with
from codexa.services.answering import Given
from codexa.services.errors import ClosedError, FileRefusedError, NotFoundError, TermsChangedError, TooBusyError
from codexa.services.payments import asking as paying
from codexa.services.payments.asking import ToPay
from codexa.services.received import Paid, SeenAgain
from codexa.services.receiving import Incoming, Received, receive
from codexa.services.response_pdf import response_pdf
from codexa.services.suspicion import reasons
from codexa.services.uploads import Quotas, Sent
from codexa.services.visitors import pass_of
from codexa.services.visits import Told, Whence
from codexa.settings import Settings
from codexa.web import guard, visiting
from codexa.web.contract.public import (
    EvaluateReply,
    EvaluateRequest,
    FindOffersRequest,
    FoundOffersReply,
    MemberSignInReply,
    MemberSignInRequest,
    NewsReply,
    ReceivedReply,
    RefusedReply,
    SpokenReply,
    SpokenRequest,
    SubmitRequest,
    ToPayReply,
    TypedReply,
    TypedRequest,
    UploadReply,
    VisitRequest,
)
from codexa.web.database import admissions, connection, editions, files_folder, own_pages
from codexa.web.endpoint import endpoint, error_reply, json_reply
from codexa.web.entrance import (
    came,
    page_of,
    program_of_request,
    set_frame_policy,
)
from codexa.web.first_view import received_view
from codexa.web.form_page import form_page, page_data, page_response
from codexa.web.limits import PDF_RATE, SIGN_IN_RATE, entry_rate, limiter, responses_beyond
from codexa.web.network import network
from codexa.web.opening import entered
from codexa.web.payments import way
from codexa.web.reading import BadRequestError
from codexa.web.static_files import EMBED

blueprint = Blueprint("public", __name__)

_TRIES = 3  # of a response, while who may fill in is being changed
MOST_ANSWERS = 1024 * 1024  # bytes; a hundred long texts, or five hundred rows with a dozen fields


@blueprint.get("/f/<team>/<slug>")
@blueprint.get("/f/<team>/<slug>/<page>")
def page(team: str, slug: str, page: str = "") -> Response:
    """The form on a page of its own; `page` is the address of one of its pages."""
    return entered(team, slug, page, framed=False)


@blueprint.get("/embed/<team>/<slug>")
@blueprint.get("/embed/<team>/<slug>/<page>")
def framed_page(team: str, slug: str, page: str = "") -> Response:
    """The form for a frame on a website that may show it."""
    return entered(team, slug, page, framed=True)


@blueprint.post("/f/<team>/<slug>")
@blueprint.post("/f/<team>/<slug>/<page>")
@limiter.limit(entry_rate)
def page_by_password(team: str, slug: str, page: str = "") -> Response:
    """The form on a page of its own, for whoever has typed its password."""
    return entered(team, slug, page, framed=False)


@blueprint.post("/embed/<team>/<slug>")
@blueprint.post("/embed/<team>/<slug>/<page>")
@limiter.limit(entry_rate)
def framed_page_by_password(team: str, slug: str, page: str = "") -> Response:
    """The form in a frame, for whoever has typed its password."""
    return entered(team, slug, page, framed=True)


@blueprint.get("/received/<uuid:form>/<number:number>/<mark>")
def received_page(form: UUID, number: int, mark: str) -> Response:
    """The confirmation of a response on a page of its own, for whoever has its address."""
    return _received_page(form, number, mark, framed=False)


@blueprint.get("/embed/received/<uuid:form>/<number:number>/<mark>")
def framed_received_page(form: UUID, number: int, mark: str) -> Response:
    """The same in the frame in which the form was."""
    return _received_page(form, number, mark, framed=True)


def _received_page(form: UUID, number: int, mark: str, *, framed: bool) -> Response:
    settings: Settings = current_app.config["SETTINGS"]
    seen = received.seen_again(way(), form=form, number=number, mark=mark)
    if seen.payment is not None:
        # Where a card is typed: the bank's own page, in a frame.
        bank = urlsplit(settings.practice_bank)
        g.shown_frames = f" {bank.scheme}://{bank.netloc}"
    how = came(framed=framed)
    if framed:
        set_frame_policy(seen.sites, "")
    page = received.address_of(form, number, settings)
    data = page_data(
        {
            "base": f"/api/public/{form}/{seen.edition}",
            "form": str(form),
            "edition": seen.edition,
            "framed": framed,
            "link": {},
            "host": how.origin,
            "came": {"way": how.way, "page": how.page},
            "address": f"/embed{seen.address.removeprefix('/f')}" if framed else seen.address,
            "page": "",
            "face": seen.face.model_dump(mode="json"),
            "state": seen.state,
            "received": received_reply(number, page, seen).model_dump(mode="json"),
        }
    )
    response = page_response(form_page(seen.face, received_view(seen.face, seen.confirmation), data, framed=framed))
    response.headers["Cache-Control"] = "no-store"
    response.headers["X-Robots-Tag"] = "noindex"
    return response


@blueprint.get("/received/<uuid:form>/<number:number>/<mark>/pdf")
@limiter.limit(PDF_RATE)
def received_pdf(form: UUID, number: int, mark: str) -> Response:
    """A response as PDF for who handed it in, where its form offers that."""
    document = received.document_for_visitor(way(), form=form, number=number, mark=mark)
    return pdf_reply(document)


def pdf_reply(document: dict[str, Any]) -> Response:
    """Return a response as PDF, as a file to keep."""
    made = io.BytesIO(response_pdf(document, files_folder()))
    name = f"{document['title'][:80]} {document['number']}.pdf"
    response = send_file(made, "application/pdf", as_attachment=True, download_name=name)
    response.headers["Cache-Control"] = "no-store"
    response.headers["Content-Security-Policy"] = "default-src 'none'; sandbox"
    return response


@blueprint.get("/embed.js")
def embed_script() -> Response:
    """The script under the address that it had first; see /embed/1.js."""
    response = send_from_directory(EMBED, "1.js", max_age=3600)
    # Websites that isolate themselves may still load it.
    response.headers["Cross-Origin-Resource-Policy"] = "cross-origin"
    return response


_EDITION = "/api/public/<uuid:form>/<number:edition>"


@endpoint(blueprint, "POST", f"{_EDITION}/state", body=EvaluateRequest, reply=EvaluateReply, most=MOST_ANSWERS)
def state(asked: EvaluateRequest, form: UUID, edition: int) -> Response:
    """Return the form's state with what the visitor has entered, or what of it hangs on the answers that changed."""
    program = program_of_request(form, edition)
    visitor = admissions().let_in(form, asked.entry)
    sealed = admissions().sealed(program.form, form, asked.seal)
    link = answering.link_of(program, asked.link, sealed)
    given = Given(answers=asked.answers, link=link, visit=asked.visit, checked=asked.checked, visitor=visitor)
    facts = answering.state_of(connection, program, form, given, asked.changed)
    return json_reply({"turn": asked.turn, "state": facts})


@endpoint(blueprint, "POST", f"{_EDITION}/offers", body=FindOffersRequest, reply=FoundOffersReply, most=MOST_ANSWERS)
def offers(asked: FindOffersRequest, form: UUID, edition: int) -> FoundOffersReply:
    """Return what a question offers with these answers: records that words find, or slots from a day on."""
    program = program_of_request(form, edition)
    visitor = admissions().let_in(form, asked.entry)
    sealed = admissions().sealed(program.form, form, asked.seal)
    link = answering.link_of(program, asked.link, sealed)
    given = Given(answers=asked.answers, link=link, visitor=visitor)
    return FoundOffersReply.model_validate(answering.offers_of(connection, program, form, given, sought_of(asked)))


def sought_of(asked: FindOffersRequest) -> Sought:
    """Return what is looked for, and where."""
    return Sought(address=asked.address, words=asked.words, since=asked.since)


@endpoint(blueprint, "POST", f"{_EDITION}/spoken", body=SpokenRequest, reply=SpokenReply)
def spoken(asked: SpokenRequest, form: UUID, edition: int) -> SpokenReply:
    """Return the answer to a question that words give in a conversation, or what is wrong with them."""
    program = program_of_request(form, edition)
    admissions().let_in(form, asked.entry)
    return spoken_reply(program, asked)


@endpoint(blueprint, "POST", f"{_EDITION}/visit", body=VisitRequest)
def visit(told: VisitRequest, form: UUID, edition: int) -> None:
    """Take how far a visit has come, to be counted, but of nobody who does not want to be."""
    if "1" in (request.headers.get("DNT"), request.headers.get("Sec-GPC")):
        return
    program = program_of_request(form, edition)
    admissions().let_in(form, told.entry)
    sealed = admissions().read_seal(program.form, form, told.seal)
    whence = Whence(
        edition=edition,
        way=told.came.way,
        page=page_of(told.came.page),
        link="" if sealed is None else str(sealed.batch),
    )
    known = told.model_dump(include=set(Told.__slots__))
    with connection() as database:
        visits.keep(database, program, form, Told(id=told.visit, **known), whence)


def spoken_reply(program: Program, asked: SpokenRequest) -> SpokenReply:
    """Return what the core makes of words. Raises NotFoundError where it asks no such question."""
    if asked.block not in program.questions:
        raise NotFoundError
    found = spoken_answer(program, asked.block, asked.words)
    if isinstance(found, FieldError):
        return SpokenReply(error=ErrorFace.model_validate(found))
    return SpokenReply(answer=found)


@endpoint(blueprint, "POST", f"{_EDITION}/sign-in", body=MemberSignInRequest, reply=MemberSignInReply)
@limiter.limit(SIGN_IN_RATE, key_func=network)
def sign_in(asked: MemberSignInRequest, form: UUID, edition: int) -> Response:
    """Sign a member in while they fill in, or have a mail sent by which they can."""
    guard.refuse_foreign_origin()
    terms = admissions().terms(form)
    if terms is None:
        raise ClosedError
    form_as_read = program_of_request(form, edition).form
    typed = {**asked.model_dump(include={"way", "email", "asked", "code"}), "member_password": asked.password}
    try:
        session = visiting.sign_in(
            terms.team, typed, say=form_as_read.say, back=_path_of_page(), locale=form_as_read.locale
        )
    except visiting.SignInRefused as refused:
        if refused.status == HTTPStatus.OK:
            return json_reply(MemberSignInReply(words=refused.words, asked=refused.asked))
        return error_reply("wrong_sign_in", refused.words, HTTPStatus.FORBIDDEN)
    ticket = pass_of("m", session.id, form, current_app.config["SETTINGS"])
    visitor = admissions().visitor(form, ticket, fresh=True)
    name = visitor.facts.get("name", "")
    words = form_as_read.say("signedIn").replace("{name}", name)
    entry = entry_with(asked.entry, ticket)
    return visiting.with_cookie(json_reply(MemberSignInReply(words=words, entry=entry, visitor=name)), session.token)


def _path_of_page() -> str:
    """Return where a visitor fills in, for the link of a mail; "" where it stands in a frame."""
    place = parts_of(request.headers.get("Referer", ""))
    return place.path if place.path.startswith("/f/") and place.netloc == request.host else ""


@endpoint(blueprint, "POST", f"{_EDITION}/typed", body=TypedRequest, reply=TypedReply, most=MOST_ANSWERS)
def typed(asked: TypedRequest, form: UUID, edition: int) -> TypedReply:
    """Return answers that were typed in another of the form's languages as they would be typed in the one asked for."""
    admissions().let_in(form, asked.entry)
    before = editions().program(form, edition, language=asked.language)
    return TypedReply(answers=answering.typed_in(before, program_of_request(form, edition), asked.answers))


@endpoint(blueprint, "GET", f"{_EDITION}/news/<number:since>", reply=NewsReply)
def news(form: UUID, edition: int, since: int) -> NewsReply:
    """Say what is new in an edition for a visitor who began with an earlier one."""
    admissions().let_in(form, request.args.get("entry", "")[:200])
    return NewsReply(news=visitor_news(program_of_request(form, since), program_of_request(form, edition)))


@endpoint(blueprint, "POST", f"{_EDITION}/files/<block>", reply=UploadReply)
def upload(form: UUID, edition: int, block: str) -> UploadReply:
    """Take a file for a field: the body is its content, the query's `name` its name, `visit` the visit."""
    program = program_of_request(form, edition)
    admissions().let_in(form, request.args.get("entry", "")[:200])
    return take_file(program, form, block, _visit())


def take_file(program: Program, form: UUID, block: str, visit: str) -> UploadReply:
    """Keep the file that a request brings for a field, on a visit. Raises FileRefusedError and others of uploads."""
    # It is the field that refuses, in its own words: by the length that is told, or when more comes than it takes.
    request.max_content_length = max(uploads.most_bytes(program, block), request.content_length or 0) + 1
    sent = Sent(
        form=form,
        block=block,
        name=request.args.get("name", "file"),
        visit=visit,
        network=network(),
        length=request.content_length,
        content=request.stream,
    )
    try:
        kept = uploads.store(connection, program, files_folder(), sent, _quotas())
    except FileRefusedError as error:
        raise FileRefusedError(in_language(error.message, program.region.locale)) from None
    thumbnail = f"/api/public/files/{kept.id}/small" if kept.has_thumbnail else None
    return UploadReply(id=str(kept.id), name=kept.name, size=kept.size, thumbnail=thumbnail)


def _visit() -> str:
    visit = request.args.get("visit", "")
    return visit if visit.isascii() and visit.isalnum() and len(visit) <= 40 else ""


def _quotas() -> Quotas:
    settings: Settings = current_app.config["SETTINGS"]
    return Quotas(
        of_form=int(settings.upload_quota_form),
        of_network=int(settings.upload_quota_network),
        free=int(settings.least_free_disk),
    )


@blueprint.get("/api/public/files/<uuid:upload_id>/small")
def thumbnail(upload_id: UUID) -> Response:
    """A small picture of a file, made by us; who knows its id is who sent it."""
    response = send_file(uploads.thumbnail(files_folder(), upload_id).absolute(), mimetype="image/jpeg")
    response.headers["Content-Security-Policy"] = "default-src 'none'; sandbox"
    return response


@endpoint(blueprint, "POST", f"{_EDITION}/responses", body=SubmitRequest, reply=ReceivedReply, most=MOST_ANSWERS)
def submit(asked: SubmitRequest, form: UUID, edition: int) -> Response:
    """Keep a response once per Idempotency-Key, or say what is wrong with it (422)."""
    key = request.headers.get("Idempotency-Key", "")
    if not 8 <= len(key) <= 100 or not key.isprintable():
        raise BadRequestError("Send the header Idempotency-Key with 8 to 100 characters, new for each response.")
    program = program_of_request(form, edition)
    if (refusal := _work_first(asked, form, key)) is not None:
        return json_reply(refusal, 428)  # Precondition Required (RFC 6585)
    result = _received(asked, program, form, edition, key)
    if isinstance(result, Refused):
        return json_reply(refused_reply(result), 422)
    again = received.address_of(form, result.number, current_app.config["SETTINGS"])
    due = (
        paying.payment_of(way(), form=form, number=result.number, program=program) if program.form.payment.on else None
    )
    reply = ReceivedReply(number=result.number, confirmation=result.confirmation, page=again, payment=to_pay_reply(due))
    return json_reply(reply, 200 if result.repeated else 201)


def _work_first(asked: SubmitRequest, form: UUID, key: str) -> RefusedReply | None:
    """Ask the sender's computer for some work where more responses come from its network than is usual."""
    settings: Settings = current_app.config["SETTINGS"]
    beyond = responses_beyond()
    if beyond is None or work.is_done(form, key, asked.work, settings):
        return None
    count, usual = beyond
    return RefusedReply(
        code="work_first",
        message="Very many answers come from your network just now. Load the page again and send them once more.",
        errors={},
        work=work.asked_for(form, key, count=count, usual=usual, settings=settings),
    )


def _received(asked: SubmitRequest, program: Program, form: UUID, edition: int, key: str) -> Received | Refused:
    """Take a response by what holds at this moment; that may be changed meanwhile."""
    settings: Settings = current_app.config["SETTINGS"]
    suspected = tuple(reasons(form, settings, trap=asked.trap, opened=asked.opened))
    for fresh in (False, *[True] * (_TRIES - 1)):
        terms = admissions().terms(form, fresh=fresh)
        if terms is None and not fresh:
            continue  # it may have been published just now
        if terms is None:
            raise ClosedError
        visitor = admissions().require_entry(form, terms, asked.entry, fresh=True)
        sealed = admissions().read_seal(program.form, form, asked.seal, fresh=True)
        link = answering.link_of(program, asked.link, sealed)
        incoming = Incoming(
            form=form,
            edition=edition,
            key=key,
            given=Given(answers=asked.answers, link=link, visit=asked.visit, visitor=visitor),
            came={"way": asked.came.way, "page": page_of(asked.came.page), "seconds": asked.came.seconds},
            sealed=sealed,
            seen=asked.seen,
            kept=asked.kept,
            suspected=() if terms.rehearsed else suspected,
            pages=own_pages(),
        )
        try:
            with connection() as database:
                return receive(database, program, incoming, terms=terms)
        except TermsChangedError:
            continue
    raise TooBusyError


@endpoint(blueprint, "POST", "/api/public/received/<uuid:form>/<number:number>/<mark>/payment", reply=ReceivedReply)
def pay(form: UUID, number: int, mark: str) -> ReceivedReply:
    """Have the bank take a response's payment, or look how it stands; what follows once it is paid comes along."""
    paid = received.pay(way(), form=form, number=number, mark=mark)
    page = received.address_of(form, number, current_app.config["SETTINGS"])
    return received_reply(number, page, paid)


def received_reply(number: int, page: str, seen: SeenAgain | Paid) -> ReceivedReply:
    """Return what a visitor reads of a response: its payment, or its confirmation."""
    order = None if seen.order is None else OrderFace.model_validate(seen.order)
    return ReceivedReply(
        number=number, confirmation=seen.confirmation, page=page, payment=to_pay_reply(seen.payment), order=order
    )


def to_pay_reply(payment: ToPay | None) -> ToPayReply | None:
    """Return how a payment stands, for the visitor's page."""
    return None if payment is None else ToPayReply.model_validate(payment)


def refused_reply(refused: Refused) -> RefusedReply:
    """Return what is wrong with a response, for the form that sent it."""
    if refused.unknown:
        names = ", ".join(refused.unknown[:5])
        return RefusedReply(
            code="unknown_fields",
            message=f"This edition of the form has no field {names}. Send answers to its own fields only.",
            errors={},
        )
    errors = {address: ErrorFace.model_validate(error) for address, error in refused.errors.items()}
    return RefusedReply(code="answers_wrong", message="Some answers need another look.", errors=errors)
