"""The public face of a program: what a visitor's browser needs, and nothing more.

Built by picking what may be known, never by taking away what may not: conditions, formulas, limits, codes, numbers
that options count as, keys, internal names and hidden fields are not in it.
"""

import html
from collections.abc import Collection, Iterable, Iterator
from typing import Any

from pydantic import BaseModel

from codexa.core.definition.formulas import INSERTION
from codexa.core.definition.parts import Block, BlockFace, Group, Part, Question, Repeat
from codexa.core.definition.rich_text import sanitised
from codexa.core.definition.wording import Wording, is_in_browser
from codexa.core.fields import type_of
from codexa.core.fields.all_answers import AllAnswersBlock
from codexa.core.fields.field_type import Region
from codexa.core.fields.moments import MomentType
from codexa.core.fields.number import NumberField
from codexa.core.fields.options import Optioned
from codexa.core.fields.order_summary import OrderSummaryBlock
from codexa.core.fields.product import ProductField
from codexa.core.fields.slot import SlotField
from codexa.core.form.form import FORM, PageFace, Welcome
from codexa.core.formula.values import Files
from codexa.core.languages import own_name
from codexa.core.program.charts import bars_of
from codexa.core.program.claims import left_of
from codexa.core.program.evaluate import FieldError, Row, State, evaluate
from codexa.core.program.faces import (
    ConfirmationFace,
    FilledPageFace,
    FormFace,
    LanguageFace,
    ParagraphFace,
    QuizFace,
)
from codexa.core.program.feedback import feedback_due, told_questions
from codexa.core.program.order import OrderTotals, money, price_given
from codexa.core.program.payment import to_pay_in_words
from codexa.core.program.places import ALWAYS, ROW_ADDRESS, KindPlace, Place, RepeatPlace
from codexa.core.program.program import Program
from codexa.core.program.record_offers import records_state
from codexa.core.program.scope import presenter
from codexa.core.program.slot_offers import slots_state
from codexa.core.program.steps import Step
from codexa.core.program.told_answers import ToldPage, said_so_far, told_by_steps

Facts = dict[str, Any]


def form_face(program: Program, unseen: Collection[str] = ()) -> FormFace:
    """Return what the browser may know of the form, without what is `unseen`, by id (see `State.unseen`)."""
    form = program.form
    welcome = None if form.welcome is None else Welcome.model_validate(_known(form.welcome, Welcome))
    return FormFace(
        title=form.title,
        lead=form.lead,
        locale=form.locale,
        languages=_languages(program.own or program),
        first_weekday=form.region.first_weekday,
        currency=form.currency,
        brand=form.brand,
        wording=_words_face(program.words),
        presentation=form.presentation,
        goes_on=form.goes_on,
        enter=form.enter,
        progress=form.progress,
        page_addresses=form.page_addresses,
        welcome=welcome,
        pages=tuple(_step_face(step, unseen) for step in program.steps if step.page.id not in unseen),
        asks=tuple(
            block_id for block_id, place in program.places.items() if block_id not in unseen and _asks(program, place)
        ),
        quiz=_quiz_face(program),
    )


def _languages(own: Program) -> tuple[LanguageFace, ...]:
    locales = own.form.locales
    return tuple(LanguageFace(locale=each, name=own_name(each)) for each in locales) if len(locales) > 1 else ()


def _words_face(words: Wording) -> Wording:
    """Return the words that the page says by itself."""
    told = {name: each for name, each in words.messages.items() if is_in_browser(name)}
    return words.model_copy(update={"messages": told})


def _step_face(step: Step, unseen: Collection[str]) -> FilledPageFace:
    blocks = _faces(_without(step.blocks, unseen) if unseen else step.blocks)
    known = {**_known(step.page, PageFace), "id": step.id, "blocks": blocks}
    if not step.first:
        known |= {"address": "", "back_label": ""}
    return FilledPageFace.model_validate(known if step.last else known | {"next_label": ""})


def _quiz_face(program: Program) -> QuizFace | None:
    feedback = program.form.feedback
    questions = told_questions(program)
    if feedback.when == "never" or not questions:
        return None
    return QuizFace(when=feedback.when, again=feedback.again, questions=tuple(questions))


def _asks(program: Program, place: Place) -> bool:
    # What was answered is told as it goes on.
    told = program.form.by_question and (place.answered or isinstance(place, RepeatPlace))
    return (told or place.block.id in program.asks) and type_of(place.block).visible and place.kind is None


def _faces(blocks: Iterable[Block]) -> list[BlockFace]:
    return [_block_face(block) for block in blocks if type_of(block).visible]


def _without(blocks: Iterable[Block], unseen: Collection[str]) -> tuple[Block, ...]:
    """Return the blocks without those that are unseen, within groups and rows too."""
    return tuple(_seen_of(block, unseen) for block in blocks if block.id not in unseen)


def _seen_of(block: Block, unseen: Collection[str]) -> Block:
    if isinstance(block, Group):
        return block.model_copy(update={"blocks": _without(block.blocks, unseen)})
    if isinstance(block, Repeat):
        kinds = tuple(each.model_copy(update={"blocks": _without(each.blocks, unseen)}) for each in block.kinds)
        return block.model_copy(update={"kinds": kinds})
    return block


def _block_face(block: Block) -> BlockFace:
    face = type_of(block).face
    # Taking what the face names, at every depth, leaves the rest behind.
    return face.model_validate(_known(block, face), extra="ignore")


def _known(part: Part, face: type[BaseModel]) -> Facts:
    return {name: _shown_part(getattr(part, name)) for name in face.model_fields}


def _shown_part(value: Any) -> Any:
    if isinstance(value, Part):
        return _known(value, type(value))
    if isinstance(value, tuple):
        return _faces(value) if value and isinstance(value[0], Block) else [_shown_part(each) for each in value]
    # A text with inserted values comes with the state: its names are the author's.
    return "" if isinstance(value, str) and INSERTION.search(value) else value


def form_state(state: State, only: Collection[str] | None = None, checked: Collection[str] = ()) -> Facts:
    """Return what the browser may know of the state, in the shape of FormState; what is not so is left out.

    With `only`, blocks and texts of other ids are left out too. `checked` are the questions that the visitor is done
    with, of which it may be told whether they were right.
    """
    program = state.program
    blocks = {
        place.block.id: block_state(state, place)
        for place in program.top_places
        if _is_told(place.block.id, only) and type_of(place.block).visible and place.block.id not in state.unseen
    }
    for block_id, feedback in feedback_due(state, checked).items():
        if block_id in blocks:
            held = {} if program.form.feedback.again else {"locked": True}
            blocks[block_id] |= {"feedback": feedback.model_dump()} | held
    blocks |= {step.id: looking_over(state) for step in program.steps if step.looks_over and _is_told(step.id, only)}
    facts: Facts = {"blocks": blocks, "path": list(_steps_that_apply(state))}
    if program.form.by_question:
        facts["said"] = _faces_of(said_so_far(state))
    if "left" in program.form.progress:
        facts["left"] = _questions_left(state)
    if (error := state.form_error()) is not None:
        facts["error"] = _error(error)
    if texts := _texts_outside_blocks(state, only):
        facts["texts"] = texts
    if only is None and program.repeats:
        facts["fresh"] = _fresh_rows(state)
    return facts


def _is_told(block_id: str, only: Collection[str] | None) -> bool:
    return only is None or block_id in only


def _steps_that_apply(state: State) -> Iterator[str]:
    """Yield the ids of the steps that a visitor goes through; one question at a time, those with something to see."""
    program = state.program
    pages = {program.form.pages[index].id for index in state.path()} - state.unseen
    for step in program.steps:
        if step.looks_over or (step.page.id in pages and (not program.form.by_question or _is_seen(state, step))):
            yield step.id


def _is_seen(state: State, step: Step) -> bool:
    places = (state.program.places[block.id] for block in step.blocks if type_of(block).visible)
    return any(state.shown(place) and not state.veiled(place) for place in places)


def looking_over(state: State) -> Facts:
    """Return the facts of the block that tells all answers before sending."""
    return {"shown": True, "answers": _answered(state)}


def _fresh_rows(state: State) -> dict[str, Facts]:
    program = state.program
    kinds = [(repeat, kind.kind.id) for repeat, place in program.repeats.items() for kind in place.kinds]
    answers: dict[str, list[Facts]] = {}
    for repeat, kind in kinds:
        answers.setdefault(repeat, []).append({"kind": kind, "id": kind, "values": {}})
    tried = evaluate(program, {**state.given, **answers}, state.context)
    return {
        state.kind_of(place, row).kind.id: _row_state(tried, place, row)["blocks"]
        for place in program.repeats.values()
        for row in tried.rows(place)
    }


def _texts_outside_blocks(state: State, only: Collection[str] | None) -> Facts:
    program = state.program
    # What is said of a page is said of each of its steps.
    owners = {FORM: FORM} | {step.id: step.page.id for step in program.steps}
    return {
        shown_as: {
            setting: template.render(state.values, state.context)
            for setting, template in program.texts[owner].items()
            if not setting.startswith("checks.")
        }
        for shown_as, owner in owners.items()
        if owner in program.texts and _is_told(owner, only) and owner not in state.unseen
    }


def _questions_left(state: State) -> int:
    return sum(
        state.shown(place) and state.value(place) is None and not state.locked(place)
        for place in state.program.questions.values()
    )


def block_state(state: State, place: Place, row: Row | tuple[()] = ()) -> Facts:
    """Return what the browser may know of a block; nothing of a hidden one but that it is hidden."""
    if not state.shown(place, row) or state.veiled(place) or _hidden_as_blank(state, place, row):
        return {"shown": False}
    facts: Facts = {"shown": True}
    if state.required(place, row):
        facts["required"] = True
    if place.conditions.locked is ALWAYS or state.locked(place, row):
        facts["locked"] = True
    if (error := state.error(place, row)) is not None:
        facts["error"] = _error(error)
    if place.field_type is not None:
        _add_value(facts, state, place, row)
    _add_sold(facts, state, place, row)
    if isinstance(place.block, AllAnswersBlock):
        facts["answers"] = _answered(state)
    elif not place.answered and not row and state.is_unsettled(place.block.id):
        facts["unsettled"] = True
    if place.block.id in state.program.texts:
        _add_texts(facts, state, place, row)
    if isinstance(place, RepeatPlace):
        facts["rows"] = {_row_id(each): _row_state(state, place, each) for each in state.rows(place)}
        kinds = {each.kind.id: _kind_state(state, each) for each in place.kinds}
        facts["kinds"] = {kind_id: each for kind_id, each in kinds.items() if each}
    return facts


def _answered(state: State) -> list[Facts]:
    return _faces_of(told_by_steps(state))


def _faces_of(pages: Iterable[ToldPage]) -> list[Facts]:
    return [
        {
            "page": page.page,
            "title": page.title,
            "answers": [{"label": each.label, "text": each.text} for each in page.answers],
        }
        for page in pages
    ]


def _add_sold(facts: Facts, state: State, place: Place, row: Row | tuple[()]) -> None:
    block, priced_by = place.block, place.settings.get("priced_by")
    if priced_by is not None:
        price = price_given(state.at(priced_by, row))
        facts["prices"] = {} if price is None else {"": money(price, state.program.region)}
    elif (prices := _prices(block, state.program.region)) is not None:
        facts["prices"] = prices
    if isinstance(block, ProductField):
        _add_left(facts, state, block)
    if isinstance(block, OrderSummaryBlock):
        facts["order"] = order_face(state)
        if words := to_pay_in_words(state):
            facts["to_pay"] = words


def _prices(block: Block, region: Region) -> dict[str, str] | None:
    if isinstance(block, NumberField) and block.price is not None:
        return {"": money(block.price, region)}
    if isinstance(block, ProductField):
        if block.options:
            return {each.id: money(each.price, region) for each in block.options}
        return None if block.price is None else {"": money(block.price, region)}
    if not isinstance(block, Optioned) or not block.prices_shown:
        return None
    return {each.id: money(each.price, region) for each in block.options if each.price is not None} or None


def _add_left(facts: Facts, state: State, block: ProductField) -> None:
    """Add what is left of a product, as far as the author has it shown, and the words for what is gone."""
    ids = {each.code: each.id for each in block.options} or {"": ""}
    left = {ids[code]: count for code, count in left_of(block, state.context.taken).items()}
    say = state.program.form.say
    words = {each: say("piecesLeft").replace("{count}", str(count)) for each, count in left.items() if count}
    gone = {each: block.sold_out or say("sold_out") for each, count in left.items() if not count}
    if gone:
        facts["gone"] = gone
    if words and block.left_shown:
        facts["left"] = words


def order_face(state: State) -> Facts | None:
    """Return the order as visitors read it; None where it can't be worked out."""
    order, region = state.order(), state.program.region
    if not isinstance(order, OrderTotals):
        return None
    added = order.discounts or order.shipping or any(not each.included for each in order.taxes)
    return {
        "lines": [
            {
                "label": each.label,
                "quantity": presenter(region)(each.quantity),
                "price": money(each.price, region),
                "amount": money(each.amount, region),
            }
            for each in order.lines.lines
        ],
        "subtotal": money(order.lines.subtotal, region) if added else "",
        "discounts": [{"label": each.name, "amount": money(-each.amount, region)} for each in order.discounts],
        "shipping": money(order.shipping, region) if state.program.form.order.shipping and order.lines.count else "",
        "taxes": [
            {"label": each.name, "amount": money(each.amount, region), "included": each.included}
            for each in order.taxes
        ],
        "total": money(order.total, region),
    }


def _hidden_as_blank(state: State, place: Place, row: Row | tuple[()]) -> bool:
    return getattr(place.block, "hidden_when_blank", False) and state.value(place, row) is None


def _add_value(facts: Facts, state: State, place: Place, row: Row | tuple[()]) -> None:
    if not place.answered:
        if (value := state.presented(place, row)) is not None:
            facts["value"] = value
        return
    if place.offered is not None:
        facts["options"] = _option_ids(place, state.at(place.offered, row))
    if place.barred is not None:
        facts["barred"] = _option_ids(place, state.at(place.barred, row))
    if place.address(row) in state.dropped:
        facts["dropped"] = True
    if isinstance(place.block, SlotField):
        facts["slots"] = slots_state(state, place, row)
    elif place.found is not None:
        facts["records"] = records_state(state, place, row)
    if isinstance(state.value(place, row), Files):
        assert place.field_type is not None
        facts["files"] = place.field_type.dump(state.value(place, row))
    if isinstance(place.field_type, MomentType) and (moment := _moment(state, place, row)):
        facts["moment"] = moment
    _add_fill(facts, state, place, row)


def _moment(state: State, place: Place, row: Row | tuple[()]) -> Facts:
    field_type, value = place.field_type, state.value(place, row)
    assert isinstance(field_type, MomentType)
    region, names = state.program.region, {"earliest": "first", "latest": "last"}
    limits = {names[name]: field_type.enter(each, place.block, region) for name, each in state.limits(place, row)}
    return limits if value is None else limits | {"told": state.presented(place, row)}


def _add_fill(facts: Facts, state: State, place: Place, row: Row | tuple[()]) -> None:
    value, block = state.value(place, row), place.block
    follows = isinstance(block, Question) and block.default_follows
    if not row and block.id in state.brought:
        _add_brought(facts, state, place)
        return
    if not getattr(block, "default", "") or (value is None and not follows):
        return
    locked = place.conditions.locked is ALWAYS or (follows and state.locked(place, row))
    if not locked and block.id in _given(state, place, row):
        return
    if follows:
        facts["follows"] = True
    if value is not None:
        assert place.field_type is not None
        facts["fill"] = place.field_type.enter(value, place.block, state.program.region)


def _add_brought(facts: Facts, state: State, place: Place) -> None:
    """Add what the link filled in: what visitors can't change is never their own answer."""
    value, held = state.value(place), state.locked(place)
    if not held and place.block.id in state.given:
        return
    assert place.field_type is not None
    if value is not None:
        facts["fill"] = place.field_type.enter(value, place.block, state.program.region)
    elif place.block.id in state.misread and not isinstance(place.block, Optioned):
        # What can't be read is seen beside what is wrong with it.
        facts["fill"] = state.context.link[state.brought[place.block.id].name]
    if held:
        facts |= {"follows": True, "from_link": True}


def _given(state: State, place: Place, row: Row | tuple[()]) -> Collection[str]:
    if not row or place.repeat is None:
        return state.given
    rows = state.given.get(place.repeat.id, ())
    return next((each["values"] for each in rows if each.get("id") == _row_id(row)), ())


def _add_texts(facts: Facts, state: State, place: Place, row: Row | tuple[()]) -> None:
    texts = {
        setting: template.render(state.values, state.context, row)
        for setting, template in state.program.texts[place.block.id].items()
        if not setting.startswith("checks.")
    }
    if texts:
        facts["texts"] = texts


def _option_ids(place: Place, codes: Collection[str]) -> list[str]:
    assert isinstance(place.block, Optioned)
    return [option.id for option in place.block.options if option.code in codes]


def _row_id(row: Row | tuple[()]) -> str:
    return str(row[ROW_ADDRESS].split("/")[1])


def _row_state(state: State, place: RepeatPlace, row: Row) -> Facts:
    kind = state.kind_of(place, row)
    visible = [each for each in kind.places if type_of(each.block).visible and each.block.id not in state.unseen]
    facts: Facts = {"blocks": {inner.block.id: block_state(state, inner, row) for inner in visible}}
    if (error := state.row_error(kind, row)) is not None:
        facts["error"] = _error(error)
    return facts


def _kind_state(state: State, kind: KindPlace) -> Facts:
    facts: Facts = {} if state.shown(kind) else {"shown": False}
    if "label" in state.program.texts.get(kind.kind.id, {}):
        facts["label"] = state.text(kind.kind.id, "label", kind.kind.label)
    return facts | ({"locked": True} if state.locked(kind) else {})


def _error(error: FieldError) -> Facts:
    return {"code": error.code, "message": error.message}


def confirmation_face(state: State) -> ConfirmationFace:
    """Return the confirmation that follows, with its values inserted."""
    form, index = state.program.form, state.confirmation()
    if index is None:
        text = state.program.words.confirmation_text
        paragraphs = [ParagraphFace(html=_escaped(text))] if text else []
        return ConfirmationFace(title=state.program.words.confirmation_title, paragraphs=paragraphs)
    confirmation = form.confirmations[index]
    owner = confirmation.id
    return ConfirmationFace(
        title=state.text(owner, "title", confirmation.title),
        paragraphs=[
            ParagraphFace(
                html=sanitised(state.text(owner, f"paragraphs.{at}.text", paragraph.text)),
                bars=bars_of(state, paragraph.chart, paragraph.chart_look) if paragraph.chart else [],
                picture=paragraph.picture,
                alternative=paragraph.alternative,
            )
            for at, paragraph in enumerate(confirmation.paragraphs)
            if state.paragraph_shown(owner, at)
        ],
        redirect=state.text(owner, "redirect", confirmation.redirect),
        redirect_within=confirmation.redirect_within,
        own_page=confirmation.own_page,
        again=confirmation.again,
        printing=confirmation.printing,
        sharing=confirmation.sharing,
    )


def _escaped(text: str) -> str:
    paragraphs = html.escape(text, quote=False).split("\n\n")
    return "".join(f"<p>{each}</p>" for each in paragraphs).replace("\n", "<br>")
