"""What is true of a form with these answers at this moment."""

import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from types import MappingProxyType
from typing import Any, TypeVar

from codexa.core.context import Context
from codexa.core.definition.parts import MAX_ROWS, Question, Repeat
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Medium, Region
from codexa.core.fields.moments import MomentType
from codexa.core.fields.options import Optioned
from codexa.core.fields.product import ProductField
from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.fields.slot import SlotField
from codexa.core.form.form import FORM, LinkValue
from codexa.core.formula.convert import text as as_text
from codexa.core.formula.metering import begin
from codexa.core.formula.values import Choices, Failed, FormulaFailure, use_exact_arithmetic
from codexa.core.program.claims import Claim, claims_of
from codexa.core.program.commitment import Commitment, commitment_of
from codexa.core.program.order import OrderTotals, is_in_time, same_code
from codexa.core.program.parts import answers_in_turn, open_parts, unseen_parts
from codexa.core.program.places import ROW_ADDRESS, ROW_KIND, KindPlace, Place, RepeatPlace, Spot
from codexa.core.program.program import Program, Reader
from codexa.core.program.record_claims import record_claims
from codexa.core.program.slot_offers import slot_claims
from codexa.core.program.templates import DASH
from codexa.core.sentences import Sentence, in_language

NOTHING_BROUGHT: Mapping[str, LinkValue] = MappingProxyType({})
_ROW_PARTS = {"kind", "id", "values"}
_ROW_ID = re.compile(r"[A-Za-z0-9_-]{1,40}")
Row = list[Any]
Result = TypeVar("Result")


@dataclass(frozen=True, kw_only=True, slots=True)
class FieldError:
    """What is wrong with a field's answer: a stable code and a sentence for the visitor."""

    code: str
    message: str


@dataclass(frozen=True, kw_only=True)
class State:
    """The facts of a form, read by place, and by row for what stands in rows.

    `values` holds them by slot. What was `misread` or `dropped` is named by its address: a block's id, or
    "repeat/row/block". `brought` are the fields that the link filled in, by id; `closed` is what belongs to other parts
    of the form than who answers may change now, by id: nothing is asked of them there.
    """

    program: Program
    context: Context
    values: list[Any]
    misread: dict[str, FieldError]
    dropped: set[str]
    given: Mapping[str, Any]
    brought: Mapping[str, LinkValue] = field(default_factory=lambda: NOTHING_BROUGHT)
    closed: frozenset[str] = frozenset()

    def with_number(self, number: int) -> "State":
        """Return the same facts once the response is saved under that number; what reads it is as it was."""
        return replace(self, context=self.context.with_number(number))

    def at(self, spot: Spot, row: Sequence[Any] = ()) -> Any:
        """Return the value of a spot."""
        return (row if spot.kind else self.values)[spot.slot]

    def shown(self, place: Place | KindPlace, row: Sequence[Any] = ()) -> bool:
        """Whether visitors see it."""
        return self.at(place.conditions.shown, row) is True

    def required(self, place: Place | KindPlace, row: Sequence[Any] = ()) -> bool:
        """Whether it must be answered."""
        return self.at(place.conditions.required, row) is True and not self._is_closed(place)

    def locked(self, place: Place | KindPlace, row: Sequence[Any] = ()) -> bool:
        """Whether visitors can't change it."""
        is_locked = self.at(place.conditions.locked, row) is True or self._is_closed(place)
        return is_locked or self._way_of(place) in ("locked", "hidden")

    def _is_closed(self, place: Place | KindPlace) -> bool:
        return bool(self.closed) and _id_of(place) in self.closed

    def veiled(self, place: Place | KindPlace) -> bool:
        """Whether visitors don't see it: the link answers it, or it is in a part that is not for them."""
        return self._way_of(place) == "hidden" or (bool(self.unseen) and _id_of(place) in self.unseen)

    @cached_property
    def unseen(self) -> frozenset[str]:
        """The ids of what is in parts of the form of which who fills in sees nothing."""
        form = self.program.form
        return self.program.owners_in(unseen_parts(form, self.context)) if self.program.has_parts else frozenset()

    def _way_of(self, place: Place | KindPlace) -> str:
        link = self.brought.get(place.block.id) if self.brought and isinstance(place, Place) else None
        return "" if link is None else link.visitor

    def value(self, place: Place, row: Sequence[Any] = ()) -> Any:
        """The field's value: None for blank, a Failed where its formula failed."""
        return None if place.value is None else self.at(place.value, row)

    def rows(self, place: RepeatPlace) -> list[Row]:
        """The rows of a repeat that are shown, in the visitor's order."""
        rows: list[Row] = self.at(place.all_rows)
        return rows

    def kind_of(self, place: RepeatPlace, row: Row) -> KindPlace:
        """The kind of a row."""
        return place.kinds[row[ROW_KIND]]

    def presented(self, place: Place, row: Sequence[Any] = ()) -> str | None:
        """The value of a field as visitors read it; a dash where its formula failed, None where blank."""
        value = self.value(place, row)
        if value is None or place.field_type is None:
            return None
        if isinstance(value, Failed):
            return DASH
        return place.field_type.present(value, place.block, self.program.region, Medium.PAGE)

    def order(self) -> OrderTotals | Failed | None:
        """The order of a form that sells; None where nothing is priced, a Failed where a formula of it failed."""
        spots = self.program.order
        found: OrderTotals | Failed | None = None if spots is None else self.at(spots.total)
        return found

    def once(self, work_out: Callable[["State"], Result]) -> Result:
        """What a function makes of this state, worked out once however often it is asked for."""
        if work_out not in self._worked_out:
            self._worked_out[work_out] = work_out(self)
        found: Result = self._worked_out[work_out]
        return found

    @cached_property
    def _worked_out(self) -> dict[Callable[["State"], Any], Any]:
        return {}

    @cached_property
    def commitment(self) -> Commitment | Failed | None:
        """What is to be paid, now and later: None where no payment is asked for, a Failed where it is not known."""
        return commitment_of(self.program, self.order(), self.values, self.context)

    def path(self) -> list[int]:
        """The indexes of the pages that apply, in order."""
        return [page.index for page in self.program.pages if self.at(page.conditions.shown) is True]

    def confirmation(self) -> int | None:
        """The index of the confirmation that follows, or None for the form's usual words."""
        spot = self.program.confirmation
        index = -1 if spot is None else self.at(spot)
        return index if isinstance(index, int) and index >= 0 else None

    def paragraph_shown(self, confirmation: str, index: int) -> bool:
        """Whether a paragraph of a confirmation is shown."""
        formula = self.program.formula(confirmation, f"paragraphs.{index}.shown")
        return formula is None or formula.compiled.run(self.values, self.context) is True

    def text(self, owner: str, setting: str, written: str, row: Sequence[Any] = ()) -> str:
        """A text of that owner with its values inserted; `written` is the text as the author wrote it."""
        template = self.program.texts.get(owner, {}).get(setting)
        return written if template is None else template.render(self.values, self.context, row)

    def error(self, place: Place, row: Sequence[Any] = ()) -> FieldError | None:
        """What is wrong with a shown block, whether or not the visitor has been there yet."""
        if not self.shown(place, row) or self._is_closed(place):
            return None
        if isinstance(place, RepeatPlace):
            return self._repeat_error(place)
        if not place.answered:
            return self._failed_check(place.block.id, place.checks, getattr(place.block, "checks", ()), row)
        address = f"{row[ROW_ADDRESS]}{place.block.id}" if place.kind else place.block.id
        misread = self.misread.get(address)
        return self.worded(misread) if misread else self._answer_error(place, row)

    def _wrong(self, code: str, message: str) -> FieldError:
        return FieldError(code=code, message=in_language(message, self.program.region.locale))

    def worded(self, error: FieldError) -> FieldError:
        """An error in the words that the author has for it, else in the form's language."""
        return self._wrong(error.code, self.program.form.of_error(error.code, error.message))

    def _answer_error(self, place: Place, row: Sequence[Any]) -> FieldError | None:
        value, block, field_type = self.value(place, row), place.block, place.field_type
        assert isinstance(block, Question)
        assert field_type is not None
        if value is None and self.is_lost(place, row):
            code = "slot_lost" if isinstance(block, SlotField) else "dropped"
            return self._wrong(code, self.program.form.say(code))
        if value is None:
            return self._missing() if self.required(place, row) or self._is_ordered(place, row) else None
        message = field_type.complete(value, block) if self.required(place, row) else None
        message = message or self._limit_message(place, value, row)
        if message is None and place.barred is not None:
            message = self._barred_message(block, value, self.at(place.barred, row))
        if message:
            return self._wrong("limits", message)
        wrong = self._shortages.get(block.id) or self._code_error(place)
        return wrong or self._failed_check(block.id, place.checks, block.checks, row)

    def is_lost(self, place: Place, row: Sequence[Any]) -> bool:
        """Whether a record was chosen that is not offered: nobody sends without what they chose unawares."""
        return place.found is not None and getattr(self.at(place.found, row), "lost", False)

    def _is_ordered(self, place: Place, row: Sequence[Any]) -> bool:
        """Whether so many are ordered of a product, and it is not said which of its options."""
        asked = self.program.quantities.get(place.block.id)
        if asked is None or not getattr(place.block, "options", ()) or not self.shown(asked, row):
            return False
        return bool(self.value(asked, row))

    @cached_property
    def claims(self) -> tuple[Claim, ...]:
        """What the response claims of things that run out."""
        return (*claims_of(self.program, self.order()), *record_claims(self), *slot_claims(self))

    @cached_property
    def _shortages(self) -> dict[str, FieldError]:
        """What is wrong, by block, where more is claimed than is left."""
        known = ((each, each.left_of(self.context.taken)) for each in self.claims if not each.waiting)
        short = ((each, left) for each, left in known if left is not None and each.quantity > left)
        return {each.block: self._shortage(each, max(0, left)) for each, left in short}

    def _shortage(self, claim: Claim, left: int) -> FieldError:
        say, block = self.program.form.say, self.program.places[claim.block].block
        if isinstance(block, SlotField):
            code = "only_left" if left and block.left_shown else "too_few" if left else "slot_gone"
            return FieldError(code=code, message=say(code).replace("{count}", str(left)))
        if isinstance(block, RecordChoiceField):
            code = "only_left" if left and block.left_shown else "too_few" if left else "sold_out"
            return FieldError(code=code, message=say(code).replace("{count}", str(left)))
        products = [product for product, place in self.program.quantities.items() if place.block.id == claim.block]
        product = self.program.places[products[0]].block if products else block
        if not isinstance(product, ProductField):
            return FieldError(code="code_used_up", message=say("code_used_up"))
        if not left:
            return FieldError(code="sold_out", message=product.sold_out or say("sold_out"))
        if not product.left_shown:
            return FieldError(code="too_few", message=say("too_few"))
        return FieldError(code="only_left", message=say("only_left").replace("{count}", str(left)))

    def _code_error(self, place: Place) -> FieldError | None:
        """What is wrong with a code of a discount that was typed: one that takes nothing off is told, never ignored."""
        order = self.program.form.order
        if place.block.id != order.code_field or not isinstance(totals := self.order(), OrderTotals):
            return None
        typed = as_text(self.value(place))
        named = [each for each in order.discounts if same_code(each, typed)]
        if not named:
            code = "code_unknown"
        elif not any(is_in_time(each, self.context.today) for each in named):
            code = "code_over"
        elif not any(each.id in totals.redeemed for each in named):
            code = "code_not_due"
        else:
            return None
        return FieldError(code=code, message=self.program.form.say(code))

    def _missing(self) -> FieldError:
        return FieldError(code="required", message=self.program.words.required)

    def _limit_message(self, place: Place, value: Any, row: Sequence[Any]) -> str | None:
        assert place.field_type is not None
        region: Region = self.program.region
        if not place.settings:
            return place.field_type.check(value, place.block, region)
        settings = {name: self.at(spot, row) for name, spot in place.settings.items()}
        known = {name: each for name, each in settings.items() if each is not None and each.__class__ is not Failed}
        try:
            return place.field_type.check(value, place.block, region, known)
        except (FormulaFailure, AnswerError):
            return None  # a limit that is none limits nothing; the proof tells the author

    def limits(self, place: Place, row: Sequence[Any] = ()) -> Iterator[tuple[str, Any]]:
        """Yield from when to when a date or time may lie ("earliest", "latest"); what is no limit is left out."""
        assert isinstance(place.field_type, MomentType)
        for name, spot in place.settings.items():
            try:
                if (limit := self.at(spot, row)) is not None and limit.__class__ is not Failed:
                    yield name, place.field_type.settle(limit, self.program.region)
            except (FormulaFailure, AnswerError):
                continue

    def _barred_message(self, block: Any, value: Any, barred: Sequence[str]) -> str | None:
        assert isinstance(block, Optioned)
        chosen = value if isinstance(value, Choices) else (value,)
        wrong = next((choice for choice in chosen if choice in barred), None)
        return None if wrong is None else Sentence("{label} can't be chosen now. Choose another.", label=wrong.label)

    def _failed_check(
        self, owner: str, spots: Sequence[Spot], checks: Sequence[Any], row: Sequence[Any]
    ) -> FieldError | None:
        for index, (spot, check) in enumerate(zip(spots, checks, strict=False)):
            if self.at(spot, row) is not True:
                message = self.text(owner, f"checks.{index}.message", check.message, row)
                return FieldError(code="check", message=message)
        return None

    def _repeat_error(self, place: RepeatPlace) -> FieldError | None:
        repeat = place.block
        assert isinstance(repeat, Repeat)
        if (misread := self.misread.get(repeat.id)) is not None:
            return self._wrong(misread.code, misread.message)
        rows = self.rows(place)
        least = max(repeat.min_rows, 1 if self.required(place) else 0)
        if (message := _count_message(len(rows), least, repeat.max_rows)) is not None:
            return self._wrong("required" if not rows else "limits", message)
        for each in place.kinds:
            if not self.shown(each):
                continue
            count = sum(row[ROW_KIND] == each.index for row in rows)
            least = max(each.kind.min_rows, 1 if self.required(each) else 0)
            message = _count_message(count, least, each.kind.max_rows, each.kind.label or each.kind.key)
            if message is not None:
                return self._wrong("limits", message)
        return self._failed_check(repeat.id, place.checks, repeat.checks, ())

    def is_unsettled(self, block: str) -> bool:
        """Whether a computed block is worked out from an answer that is refused; one that is missing yet is none."""
        return any(self._is_refused(each) for each in self.program.fed_by.get(block, ()))

    @cached_property
    def _refused(self) -> dict[str, bool]:
        return {}  # what was found out once, by id: many are worked out from the same

    def _is_refused(self, block: str) -> bool:
        if block not in self._refused:
            self._refused[block] = self._has_wrong_answer(self.program.places[block])
        return self._refused[block]

    def _has_wrong_answer(self, place: Place) -> bool:
        found = [self.error(place)]
        if isinstance(place, RepeatPlace):
            found += [self.error(each, row) for row in self.rows(place) for each in self.kind_of(place, row).places]
        return any(each is not None and each.code != "required" for each in found)

    def row_error(self, kind: KindPlace, row: Row) -> FieldError | None:
        """What is wrong with a row as a whole, by the checks of its kind."""
        return self._failed_check(kind.kind.id, kind.checks, kind.kind.checks, row)

    def form_error(self) -> FieldError | None:
        """What is wrong with the form as a whole."""
        order = self.order()
        if isinstance(order, Failed) or isinstance(self.commitment, Failed):
            # Nobody orders or pays at a price that is not known.
            return FieldError(code="order_failed", message=self.program.form.say("order_failed"))
        if isinstance(order, OrderTotals) and not order.lines.count and self.program.form.order.refuse_empty:
            return FieldError(code="nothing_ordered", message=self.program.form.say("nothing_ordered"))
        return self._failed_check(FORM, self.program.form_checks, self.program.form.checks, ())

    def errors(self) -> dict[str, FieldError]:
        """Everything that is wrong, by address, in the order of the outline; FORM for the form as a whole."""
        return {address: error for address, error in self._errors() if error is not None}

    def _errors(self) -> Iterator[tuple[str, FieldError | None]]:
        for place in self.program.top_places:
            yield place.block.id, self.error(place)
            if isinstance(place, RepeatPlace) and self.shown(place):
                for row in self.rows(place):
                    kind = self.kind_of(place, row)
                    yield row[ROW_ADDRESS].rstrip("/"), self.row_error(kind, row)
                    for inner in kind.places:
                        yield row[ROW_ADDRESS] + inner.block.id, self.error(inner, row)
        yield FORM, self.form_error()


def _id_of(place: Place | KindPlace) -> str:
    return place.kind.id if isinstance(place, KindPlace) else place.block.id


def _count_message(count: int, least: int, most: int | None, label: str = "") -> Sentence | None:
    if count < least and label:
        return Sentence('Add at least {count} row "{label}".', count=least, label=label)
    if count < least:
        return Sentence.counted("Add at least {count} row.", "Add at least {count} rows.", count=least)
    if most is None or count <= most:
        return None
    if label:
        more = count - most
        return Sentence('Keep at most {count} row "{label}"; remove {more}.', count=most, label=label, more=more)
    return Sentence.counted(
        "Keep at most {count} row; remove {more}.",
        "Keep at most {count} rows; remove {more}.",
        count=most,
        more=count - most,
    )


def evaluate(program: Program, answers: Mapping[str, Any], context: Context) -> State:
    """Return the state of the form; the same input always gives the same state, and no answer makes it raise.

    `answers` maps block ids to what the visitor entered, as the browser has it (text as typed, an option's id; null for
    emptied, nothing for never touched). A repeat's answer is a list of rows {"kind", "id", "values"}.
    """
    use_exact_arithmetic()
    begin()
    values = list(program.initial)
    misread: dict[str, FieldError] = {}
    closed = (
        program.closed_to(open_parts(program.form, context)) if program.has_parts or context.at_part else frozenset()
    )
    if closed:
        answers = answers_in_turn(answers, context.others, closed, program.repeats)
    readers, repeats = program.readers, program.repeats
    for block_id, raw in answers.items():
        reader = readers.get(block_id)
        if reader is not None:
            _read(reader, raw, values, misread, block_id)
        elif block_id in repeats:
            _read_rows(program, repeats[block_id], raw, values, misread)
    brought = _read_link(program, answers, context, values, misread) if program.linked else NOTHING_BROUGHT
    dropped: set[str] = set()
    program.work_out(values, context, dropped)
    begin()  # what is asked of the state has steps of its own
    return State(
        program=program,
        context=context,
        values=values,
        misread=misread,
        dropped=dropped,
        given=answers,
        brought=brought,
        closed=closed,
    )


def _read_link(
    program: Program, answers: Mapping[str, Any], context: Context, values: list[Any], misread: dict[str, FieldError]
) -> dict[str, LinkValue]:
    """Read what the link brings, in place of what a visitor can't have entered; return which fields it filled."""
    brought = {}
    for block_id, (link, reader) in program.linked.items():
        text = context.link.get(link.name)
        if not text:
            continue
        brought[block_id] = link
        if link.visitor == "open" and block_id in answers:
            continue
        misread.pop(block_id, None)
        place = program.places[block_id]
        assert place.field_type is not None
        raw = place.field_type.from_link(text, place.block, program.region)
        _read(reader, raw, values, misread, block_id)
    return brought


def _read(reader: Reader, raw: Any, values: list[Any], misread: dict[str, FieldError], address: str) -> None:
    slot, parse, block, region = reader
    try:
        values[slot] = None if raw is None else parse(raw, block, region)
    except AnswerError as error:
        values[slot] = None
        misread[address] = FieldError(code=error.code, message=error.message)


def _read_rows(
    program: Program, place: RepeatPlace, raw: Any, values: list[Any], misread: dict[str, FieldError]
) -> None:
    repeat_id = place.block.id
    if raw is None:
        return
    try:
        values[place.all_rows.slot] = [_read_row(program, place, each, misread) for each in _row_list(raw, place)]
    except AnswerError as error:
        misread[repeat_id] = FieldError(code=error.code, message=error.message)


def _row_list(raw: Any, place: RepeatPlace) -> list[Any]:
    if not isinstance(raw, list):
        raise AnswerError("not_rows", "These rows can't be read. Reload the page and try again.")
    repeat = place.block
    assert isinstance(repeat, Repeat)
    # Refused before any of them is looked at.
    if (message := _count_message(len(raw), 0, min(repeat.max_rows, MAX_ROWS))) is not None:
        raise AnswerError("limits", message)
    if len({str(each.get("id")) for each in raw if isinstance(each, dict)}) < len(raw):
        raise AnswerError("same_row_twice", "Two rows have the same id. Remove one of them.")
    return raw


def _read_row(program: Program, place: RepeatPlace, raw: Any, misread: dict[str, FieldError]) -> Row:
    if not isinstance(raw, dict) or raw.keys() != _ROW_PARTS or not isinstance(raw["values"], dict):
        raise AnswerError("not_rows", "These rows can't be read. Reload the page and try again.")
    kind, row_id = place.kind_named(raw["kind"]), raw["id"]
    if kind is None or not isinstance(row_id, str) or not _ROW_ID.fullmatch(row_id):
        raise AnswerError("unknown_row", "A row is of a kind that this form does not have. Remove it.")
    row: Row = list(program.initial_rows[kind.kind.id])
    row[ROW_ADDRESS], row[ROW_KIND] = f"{place.block.id}/{row_id}/", kind.index
    readers = program.row_readers[kind.kind.id]
    for block_id, answer in raw["values"].items():
        if block_id not in readers:
            raise AnswerError("unknown_field", "A row has a field that this form does not have. Reload the page.")
        reader = readers[block_id]
        if reader is not None:
            _read(reader, answer, row, misread, row[ROW_ADDRESS] + block_id)
    return row
