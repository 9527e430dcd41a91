"""A form's responses as a set: pages, totals and charts of what the query's filter chooses; views, statuses, marks."""

import json
from typing import Any
from uuid import UUID

from flask import Blueprint, request
from pydantic import ValidationError

from codexa.core.errors import Problem
from codexa.core.fields.decimals import shown
from codexa.core.fields.field_type import Region
from codexa.core.fields.written import decimal_text
from codexa.core.responses.conditions import HOWS, Filter
from codexa.services import drafts
from codexa.services.correcting import Correcting
from codexa.services.response_columns import Column
from codexa.services.response_set import board, in_bulk, looking, marking, removing, views
from codexa.services.response_set import charts as charting
from codexa.services.response_set.asking import FACET, STATUS
from codexa.services.response_set.chart import Bar, places
from codexa.services.response_set.looking import Look
from codexa.services.response_set.opening import open_set
from codexa.services.roles import Right
from codexa.web.contract.response_set import (
    AskedColumnReply,
    AskingReply,
    BarReply,
    BegunReply,
    BoardReply,
    BulkReply,
    BulkRequest,
    BulksReply,
    CellReply,
    ChartReply,
    LaneReply,
    MarkedReply,
    MarkRequest,
    MoveRequest,
    NeighboursReply,
    NoteRequest,
    NumbersReply,
    NumbersRequest,
    OptionReply,
    Retention,
    SavedViewReply,
    StatusesRequest,
    StatusReply,
    TotalReply,
    TotalsReply,
    TurnReply,
    ViewReply,
    ViewRequest,
    ViewsReply,
)
from codexa.web.contract.responses import ColumnReply, ResponsesReply, RowReply
from codexa.web.database import connection, editions
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.payments import way
from codexa.web.reading import BadRequestError, query_number

blueprint = Blueprint("response_set", __name__, url_prefix="/api/forms/<uuid:form>/responses")

_MOST_ROWS, _MOST_CARDS = 200, 100
_MOST_QUERY, _MOST_DEEP = 20_000, 4


def filter_of_query() -> Filter:
    """Return what the query chooses: `where` is a JSON list of conditions, each [column, how, value …].

    `match` is all or any, `words` what is searched for. Raises BadRequestError.
    """
    where = request.args.get("where", "[]")
    if len(where) > _MOST_QUERY:
        raise BadRequestError("where has too many conditions. Leave some out.")
    try:
        listed = json.loads(where)
        conditions = [{"column": column, "how": how, "values": values} for column, how, *values in listed]
        words, match = request.args.get("words", ""), request.args.get("match", "all")
        if "\x00" in where + words or "\\u0000" in where:
            raise BadRequestError("where has a sign that is no text (NUL). Remove it.")
        return Filter.model_validate({"match": match, "conditions": conditions, "words": words})
    except ValidationError as error:
        problems = [
            Problem(path=".".join(map(str, each["loc"]))[:200], message=each["msg"])
            for each in error.errors(include_url=False, include_input=False)[:50]
        ]
        raise BadRequestError("The filter has another shape than this address takes.", problems) from None
    except (ValueError, TypeError, RecursionError):
        raise BadRequestError('where is a list of conditions, such as [["guests","at_least","9"]].') from None


def look_of_query() -> Look:
    """Return what the query looks at: its filter, the order of `sort`, and `columns`; names with commas between."""
    names = [name for name in request.args.get("sort", "").split(",") if name]
    if len(names) > _MOST_DEEP:
        raise BadRequestError(f"sort goes by at most {_MOST_DEEP} columns.")
    shown_ones = request.args.get("columns")
    columns = None if shown_ones is None else frozenset(shown_ones.split(","))
    return Look(filter=filter_of_query(), sorts=tuple(names), columns=columns)


@endpoint(blueprint, "GET", "", reply=ResponsesReply)
def list_page(form: UUID) -> ResponsesReply:
    """Return a page of what the query looks at: `limit` (at most 200) responses, `after` a reply's `next`."""
    who = may(Right.SEE_RESPONSES)
    look, after = look_of_query(), request.args.get("after", "")
    limit = query_number("limit", 50, _MOST_ROWS)
    found = looking.page(connection, editions(), who=who, form=form, look=look, limit=limit, after=after)
    return ResponsesReply(
        columns=[ColumnReply.model_validate(column) for column in found.columns],
        rows=[RowReply.model_validate(row) for row in found.rows],
        count=found.count,
        exact=found.exact,
        next=found.next,
        behind=found.behind,
    )


@endpoint(blueprint, "GET", "/asking", reply=AskingReply)
def asking(form: UUID) -> AskingReply:
    """Say what the responses can be asked for."""
    who = may(Right.SEE_RESPONSES)
    opened = open_set(connection, editions(), who=who, form=form)
    return AskingReply(
        columns=[_asked(each) for each in (*opened.columns, *opened.facets)],
        statuses=[StatusReply.model_validate(each) for each in opened.statuses],
        behind=opened.behind,
    )


def _asked(column: Column) -> AskedColumnReply:
    return AskedColumnReply(
        id=column.id,
        label=column.label,
        number=column.number,
        holds=column.holds,
        numeric=column.numeric,
        calculated=column.calculated,
        earlier=column.earlier,
        facet=column.id.startswith(FACET),
        hows=list(HOWS[column.holds]),
        options=[OptionReply(code=each.code, label=each.label) for each in column.options],
        parts=[_asked(each) for each in column.parts],
    )


@endpoint(blueprint, "GET", "/totals", reply=TotalsReply)
def totals(form: UUID) -> TotalsReply:
    """Return what the columns of numbers come to over all that the query chooses."""
    who = may(Right.SEE_RESPONSES)
    region, found = looking.totals(connection, editions(), who=who, form=form, filter_=filter_of_query())
    return TotalsReply(
        totals={
            column: TotalReply(
                count=each.count,
                sum=each.sum,
                average=each.average,
                sum_shown=shown(each.sum, region),
                average_shown=_two_places(each.average, region),
            )
            for column, each in found.items()
        }
    )


def _two_places(number: Any, region: Region) -> str:
    return shown(places(number, 2), region)


@endpoint(blueprint, "GET", "/chart", reply=ChartReply)
def chart(form: UUID) -> ChartReply:
    """Return the chart of a `column`, or of what it is `by` another, over all that the query chooses."""
    who = may(Right.SEE_RESPONSES)
    column, by = request.args.get("column", ""), request.args.get("by", "")
    region, found = charting.chart(
        connection, editions(), who=who, form=form, filter_=filter_of_query(), column=column, by=by
    )
    return ChartReply(
        column=found.column,
        by=found.by,
        kind=found.kind,
        headline=found.headline,
        aside=found.aside,
        all=found.all,
        answered=found.answered,
        bars=[_bar(each, region) for each in found.bars],
        rows=[_bar(each, region) for each in found.rows],
        cells=[CellReply.model_validate(each) for each in found.cells],
        more=found.more,
        average=found.average,
        sum=found.sum,
        least=found.least,
        greatest=found.greatest,
    )


def _bar(bar: Bar, region: Region) -> BarReply:
    return BarReply(
        code=bar.code,
        label=bar.label,
        count=bar.count,
        share=bar.share,
        value=bar.value,
        # With the same decimals, as they stand below one another.
        value_shown="" if bar.value is None else decimal_text(bar.value, region.locale, "#,##0.00"),
    )


@endpoint(blueprint, "GET", "/<number:number>/neighbours", reply=NeighboursReply)
def neighbours(form: UUID, number: int) -> NeighboursReply:
    """Return the responses before and after one in what the query looks at."""
    who = may(Right.SEE_RESPONSES)
    look = look_of_query()
    before, after = looking.neighbours(connection, editions(), who=who, form=form, look=look, number=number)
    return NeighboursReply(before=before, after=after)


@endpoint(blueprint, "GET", "/views", reply=ViewsReply)
def list_views(form: UUID) -> ViewsReply:
    """List the saved views of a form's responses."""
    who = may(Right.SEE_RESPONSES)
    found = views.list_views(connection, who=who, form=form)
    return ViewsReply(views=[ViewReply.model_validate(each) for each in found])


@endpoint(blueprint, "POST", "/views", body=ViewRequest, reply=SavedViewReply)
def save_view(asked: ViewRequest, form: UUID) -> SavedViewReply:
    """Save a view for the team, under a name of its own."""
    return SavedViewReply(id=_save(asked, form, None))


@endpoint(blueprint, "PUT", "/views/<uuid:view>", body=ViewRequest, reply=SavedViewReply)
def change_view(asked: ViewRequest, form: UUID, view: UUID) -> SavedViewReply:
    """Save a view anew: its name, what it is, whether it opens first."""
    return SavedViewReply(id=_save(asked, form, view))


def _save(asked: ViewRequest, form: UUID, view: UUID | None) -> UUID:
    who = may(Right.MARK_RESPONSES)
    content = asked.content.model_dump(mode="json")
    return views.save(
        connection, who=who, form=form, view=view, name=asked.name, content=content, opens_first=asked.opens_first
    )


@endpoint(blueprint, "DELETE", "/views/<uuid:view>")
def delete_view(form: UUID, view: UUID) -> None:
    """Forget a saved view."""
    views.delete(connection, who=may(Right.MARK_RESPONSES), form=form, view=view)


@endpoint(blueprint, "PUT", "/statuses", body=StatusesRequest)
def set_statuses(asked: StatusesRequest, form: UUID) -> None:
    """Say which statuses the form's responses can have, in order."""
    statuses = [each.model_dump(mode="json") for each in asked.statuses]
    views.set_statuses(connection, who=may(Right.MARK_RESPONSES), form=form, statuses=statuses)


@endpoint(blueprint, "POST", "/<number:number>/move", body=MoveRequest)
def move(asked: MoveRequest, form: UUID, number: int) -> None:
    """Move a response on a board, from where it was seen; 409 where somebody moved it meanwhile.

    By another column than the status that is a correction of its answer.
    """
    if asked.by == STATUS:
        who = may(Right.MARK_RESPONSES)
        marking.move(connection, who=who, form=form, number=number, was=asked.was, status=asked.to)
        return
    who = may(Right.EDIT_FORMS)
    corrected = Correcting(way=way(), team=who.team_id, person=who.person_id, form=form, number=number)
    corrected.choose(asked.by, was=asked.was, to=asked.to)


@endpoint(blueprint, "POST", "/<number:number>/notes", body=NoteRequest)
def add_note(asked: NoteRequest, form: UUID, number: int) -> None:
    """Keep a note with a response, for the team."""
    marking.note(connection, who=may(Right.MARK_RESPONSES), form=form, number=number, words=asked.note)


@endpoint(blueprint, "POST", "/mark", body=MarkRequest, reply=MarkedReply)
def mark(asked: MarkRequest, form: UUID) -> MarkedReply:
    """Give responses a status, a tag or a person, or take a tag from them."""
    who = may(Right.MARK_RESPONSES)
    changed = marking.mark(connection, who=who, form=form, numbers=asked.numbers, kind=asked.kind, value=asked.value)
    return MarkedReply(changed=changed)


@endpoint(blueprint, "POST", "/remove", body=NumbersRequest, reply=NumbersReply)
def remove(asked: NumbersRequest, form: UUID) -> NumbersReply:
    """Remove responses: they come back for 30 days. What waits for money, or is paid by a plan that runs, stays."""
    drafts.require(connection, who=(who := may(Right.EDIT_FORMS)), form=form)
    return NumbersReply(numbers=removing.remove(connection, who=who, form=form, numbers=asked.numbers))


@endpoint(blueprint, "POST", "/bring-back", body=NumbersRequest, reply=NumbersReply)
def bring_back(asked: NumbersRequest, form: UUID) -> NumbersReply:
    """Bring removed responses back."""
    drafts.require(connection, who=(who := may(Right.EDIT_FORMS)), form=form)
    return NumbersReply(numbers=removing.bring_back(connection, who=who, form=form, numbers=asked.numbers))


@endpoint(blueprint, "GET", "/retention", reply=Retention)
def show_retention(form: UUID) -> Retention:
    """Say how long the form's responses are kept."""
    return Retention.model_validate(in_bulk.retention(connection, who=may(Right.SEE_RESPONSES), form=form))


@endpoint(blueprint, "PUT", "/retention", body=Retention)
def set_retention(asked: Retention, form: UUID) -> None:
    """Have the form's responses anonymised or removed after so many days, each night; or kept."""
    retention = {} if asked.days is None else asked.model_dump()
    in_bulk.set_retention(connection, who=may(Right.EDIT_FORMS), form=form, retention=retention)


@endpoint(blueprint, "POST", "/bulk", body=BulkRequest, reply=BegunReply)
def begin_bulk(asked: BulkRequest, form: UUID) -> BegunReply:
    """Have something done to many responses by a job: to what the query looks at, or to those of some numbers."""
    who = may(Right.SEE_RESPONSES)
    chosen = look_of_query() if asked.numbers is None else asked.numbers
    bulk = in_bulk.ask_for(
        connection, editions(), who=who, form=form, chosen=chosen, does=asked.does, value=asked.value
    )
    return BegunReply(id=bulk)


@endpoint(blueprint, "GET", "/bulk", reply=BulksReply)
def list_bulks(form: UUID) -> BulksReply:
    """Say how far has come what is done to many responses, and what was done within a day."""
    found = in_bulk.list_bulks(connection, who=may(Right.SEE_RESPONSES), form=form)
    return BulksReply(bulks=[BulkReply.model_validate(each) for each in found])


@endpoint(blueprint, "POST", "/bulk/<uuid:bulk>/stop")
def stop_bulk(form: UUID, bulk: UUID) -> None:
    """Stop it: what was gone through stays as it is."""
    in_bulk.stop(connection, who=may(Right.MARK_RESPONSES), form=form, bulk=bulk)


@endpoint(blueprint, "POST", "/bulk/<uuid:bulk>/undo", reply=BegunReply)
def undo_bulk(form: UUID, bulk: UUID) -> BegunReply:
    """Have it undone, where it was removing, bringing back or tagging."""
    return BegunReply(id=in_bulk.undo(connection, who=may(Right.MARK_RESPONSES), form=form, bulk=bulk))


@endpoint(blueprint, "GET", "/board", reply=BoardReply)
def show_board(form: UUID) -> BoardReply:
    """Return what the query chooses as a board `by` status or a choice: each column's first cards, counts and sums."""
    who = may(Right.SEE_RESPONSES)
    by, limit = request.args.get("by", STATUS), query_number("limit", 25, _MOST_CARDS)
    found = board.board(connection, editions(), who=who, form=form, look=look_of_query(), by=by, most=limit)
    return BoardReply(
        columns=[ColumnReply.model_validate(column) for column in found.columns],
        lanes=[
            LaneReply(
                code=lane.code,
                label=lane.label,
                count=lane.count,
                exact=lane.exact,
                sums={column: shown(total, found.region) for column, total in lane.sums.items()},
                rows=[RowReply.model_validate(row) for row in lane.rows],
            )
            for lane in found.lanes
        ],
        turn=found.turn,
    )


@endpoint(blueprint, "GET", "/turn", reply=TurnReply)
def turn(form: UUID) -> TurnReply:
    """Return what grows with each change of the form's responses: who looks at them asks whether anything is new."""
    who = may(Right.SEE_RESPONSES)
    return TurnReply(turn=board.turn(connection, who=who, form=form))
