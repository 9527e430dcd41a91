"""Products: prices and quantities here or apart, stock, codes that run out, taxes of some products."""

import datetime
from dataclasses import replace
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.program.accept import Accepted, Refused, accept
from codexa.core.program.claims import Claim
from codexa.core.program.notes import notes
from codexa.core.program.order import OrderTotals
from codexa.core.program.proof import proof
from core.forms import block, facts_of, program_of, state_of, value_of
from core.formulas import CONTEXT

SUMMARY = block("order_summary", "summary")


def option(code, price, **more):
    return {"id": f"o{code}", "code": code, "label": code.capitalize(), "price": price, **more}


CHART = block("product", "chart", price="14.90", weight="0.2")
MUG = block("product", "mug", options=[option("blue", "11"), option("grey", "11")], weight="0.4")
LAMP = block("product", "lamp", quantity="apart", options=[option("red", "9.50"), option("white", "8")])
LAMPS = block("quantity", "lamps", product="lamp")
ANSWERS = {"chart": "2", "mug": {"oblue": "1", "ogrey": "2"}, "lamp": "ored", "lamps": "3"}


def shop(*blocks, **order):
    return program_of(*(blocks or (CHART, MUG, LAMP, LAMPS)), SUMMARY, order=order)


def lines(program, answers=ANSWERS):
    order = state_of(program, answers).order()
    assert isinstance(order, OrderTotals)
    return [(each.label, str(each.quantity), str(each.amount)) for each in order.lines.lines]


def codes(program):
    return [finding.code for finding in proof(program)]


def with_taken(program, answers, **taken):
    """Return what becomes of a response where so many are gone of each thing (`stock_lamp`)."""
    gone = {name.replace("__", ":"): count for name, count in taken.items()}
    return accept(program, answers, replace(CONTEXT, taken=gone))


class TestLines:
    def test_are_of_each_option_at_its_price_wherever_the_quantity_is_asked(self):
        assert lines(shop()) == [
            ("Chart", "2", "29.80"),
            ("Mug, Blue", "1", "11.00"),
            ("Mug, Grey", "2", "22.00"),
            ("Lamp, Red", "3", "28.50"),
        ]

    def test_of_a_product_apart_are_there_while_both_are_shown_and_in_the_same_row(self):
        hidden = shop(LAMP, LAMPS | {"shown": "FALSE", "keep_when_hidden": True})
        assert lines(hidden) == []
        bare = block("product", "lamp", quantity="apart", price="9.50")
        kind = {"id": "krow", "key": "set", "label": "Set", "blocks": [bare, LAMPS]}
        rows = [{"kind": "krow", "id": f"r{at}", "values": {"lamps": str(at)}} for at in range(3)]
        in_rows = program_of(block("repeat", "sets", kinds=[kind]), SUMMARY)
        assert lines(in_rows, {"sets": rows}) == [("Lamp", "1", "9.50"), ("Lamp", "2", "19.00")]

    def test_a_quantity_without_the_option_that_it_is_of_is_not_handed_in(self):
        refused = accept(shop(), {"lamps": "2"}, CONTEXT)
        assert isinstance(refused, Refused)
        assert refused.errors["lamp"].code == "required"
        assert isinstance(accept(shop(), {"lamp": "ored"}, CONTEXT), Accepted)

    def test_formulas_know_how_many_of_each_and_what_they_weigh(self):
        program = shop()
        assert [value_of(program, name, ANSWERS) for name in ("chart", "mug.blue", "lamps")] == [2, 1, 3]
        assert value_of(program, "order.weight", ANSWERS) == Decimal("1.6")
        total = block("calculated", "pieces", formula="chart + mug + lamps")
        assert value_of(program_of(CHART, MUG, LAMP, LAMPS, total, SUMMARY), "pieces", ANSWERS) == 8

    @pytest.mark.parametrize(
        "answers",
        [
            {"chart": "-1"},
            {"chart": "1.5"},
            {"mug": {"oblack": "1"}},
            {"mug": "3"},
            {"lamp": "oblue"},
            {"lamps": "1e9"},
        ],
    )
    def test_of_what_is_not_for_sale_are_refused(self, answers):
        assert isinstance(accept(shop(), answers, CONTEXT), Refused)


class TestStock:
    SCARCE = MUG | {"options": [option("blue", "11", stock=3), option("grey", "11")], "stock": 10}

    def test_is_claimed_of_the_option_where_it_has_one_else_of_the_product(self):
        claims = state_of(shop(self.SCARCE), ANSWERS).claims
        assert claims == (
            Claim(name="stock:mug", quantity=2, capacity=10, block="mug"),
            Claim(name="stock:mug:blue", quantity=1, capacity=3, block="mug"),
        )

    @pytest.mark.parametrize(
        ("settings", "gone", "message"),
        [
            ({}, 3, "Sold out."),
            ({"sold_out": "Back in spring"}, 3, "Back in spring"),
            ({}, 2, "There are only 1 left."),
            ({"left_shown": False}, 2, "There are not so many left."),
            ({}, 1, None),
        ],
    )
    def test_that_does_not_do_is_told_where_how_many_is_asked(self, settings, gone, message):
        lamp = LAMP | {"stock": 3} | settings
        result = with_taken(shop(lamp, LAMPS), {"lamp": "ored", "lamps": "2"}, stock__lamp=gone)
        assert (result.errors["lamps"].message if isinstance(result, Refused) else None) == message

    def test_that_is_left_is_shown_where_the_author_wants_it(self):
        program = shop(self.SCARCE)
        told = replace(CONTEXT, taken={"stock:mug:blue": 3})
        facts = facts_of(program).blocks["mug"]
        assert (facts.left, facts.gone) == ({"oblue": "3 left", "ogrey": "10 left"}, None)
        gone = state_of(program, context=told)
        assert gone.error(program.places["mug"]) is None
        assert facts_of(shop(self.SCARCE | {"left_shown": False})).blocks["mug"].left is None

    @given(some.lists(some.integers(0, 9), min_size=1, max_size=5), some.integers(0, 20), some.integers(0, 20))
    def test_never_lets_more_through_than_there_is(self, wanted, stock, gone):
        """Rows of one product claim together what each of them orders."""
        kind = {"id": "krow", "key": "set", "label": "Set", "blocks": [CHART | {"stock": stock}]}
        program = program_of(block("repeat", "sets", kinds=[kind]), SUMMARY)
        rows = [{"kind": "krow", "id": f"r{at}", "values": {"chart": str(n)}} for at, n in enumerate(wanted)]
        result = with_taken(program, {"sets": rows}, stock__chart=gone)
        assert isinstance(result, Accepted) == (sum(wanted) == 0 or sum(wanted) <= stock - gone)


class TestCodes:
    CODE = block("short_text", "code")
    TEN = {"id": "d1", "name": "Ten", "code": "TEN", "percent": "10"}

    def refusal(self, typed, discount=None, taken=0, **more):
        order = {"code_field": "code", "discounts": [self.TEN | (discount or {})]}
        program = program_of(CHART, self.CODE, SUMMARY, order=order)
        result = with_taken(program, {"chart": "1", "code": typed}, code__d1=taken, **more)
        return result.errors["code"].code if isinstance(result, Refused) else None

    def test_that_takes_nothing_off_is_told_and_never_ignored(self):
        assert self.refusal("ten ") is None
        assert self.refusal("") is None
        assert self.refusal("twenty") == "code_unknown"
        assert self.refusal("ten", {"when": "chart > 1"}) == "code_not_due"

    def test_counts_on_its_days_and_so_often_in_all(self):
        today = CONTEXT.today
        for first, last, code in ((0, 0, None), (1, 9, "code_over"), (-9, -1, "code_over"), (None, 0, None)):
            days = [None if each is None else today + datetime.timedelta(days=each) for each in (first, last)]
            limits = {"first_day": days[0] and days[0].isoformat(), "last_day": days[1].isoformat()}
            assert self.refusal("ten", limits) == code
        assert self.refusal("ten", {"uses": 5}, taken=4) is None
        assert self.refusal("ten", {"uses": 5}, taken=5) == "code_used_up"
        assert self.refusal("", {"uses": 5}, taken=5) is None


class TestTaxes:
    BOOKS = {"id": "t1", "name": "Books", "percent": "7", "products": ["chart"]}
    REST = {"id": "t2", "name": "Rest", "percent": "19"}

    def taxes(self, *taxes, answers=ANSWERS, **order):
        found = state_of(shop(taxes=taxes, **order), answers).order()
        return [(each.name, str(each.amount)) for each in found.taxes]

    def test_of_some_products_leave_the_rest_and_shipping_to_the_others(self):
        # 29.80 of charts, 61.50 of the rest, 5 for sending.
        assert self.taxes(self.BOOKS, self.REST, shipping="5") == [("Books 7 %", "1.95"), ("Rest 19 %", "10.62")]

    def test_are_of_what_is_left_when_discounts_are_shared_out(self):
        half = {"id": "d", "name": "Half", "percent": "50"}
        assert self.taxes(self.BOOKS, self.REST, discounts=[half]) == [("Books 7 %", "0.97"), ("Rest 19 %", "4.91")]
        free = {"id": "d", "name": "All", "percent": "100"}
        assert self.taxes(self.BOOKS, discounts=[free]) == [("Books 7 %", "0.00")]

    def test_are_due_where_their_rule_holds(self):
        assert self.taxes(self.REST | {"when": "lamps > 5"}) == []
        assert self.taxes(self.REST | {"when": "lamps > 1"}) == [("Rest 19 %", "14.58")]

    def test_of_what_is_sold_no_more_are_found(self):
        assert codes(shop(CHART, taxes=[self.BOOKS | {"products": ["lamp"]}])) == ["no_product"]


@pytest.mark.parametrize(
    ("blocks", "found"),
    [
        ((CHART, MUG, LAMP, LAMPS), []),
        ((CHART, LAMP), ["no_quantity"]),
        ((CHART, LAMPS), ["no_product"]),
        ((LAMP, LAMPS, LAMPS | {"id": "more", "key": "more"}), ["no_product"]),
        ((CHART, LAMPS | {"product": "chart"}), ["two_quantities"]),
        ((CHART | {"price": None},), ["price_wrong", "nothing_priced"]),
    ],
)
def test_products_and_quantities_that_do_not_find_each_other_are_found(blocks, found):
    assert sorted(codes(shop(*blocks))) == sorted(found)


def test_the_margin_tells_prices_and_stock():
    told = notes(shop(CHART | {"stock": 40}, LAMP, LAMPS))
    words = {
        owner: ["".join(each.text or each.block for each in note.words) for note in of] for owner, of in told.items()
    }
    assert words["chart"] == ["each costs 14.9", "there are 40 in all"]
    assert words["lamp"] == ["costs 9.5 · 8"]
    assert words["lamps"] == ["orders lamp"]


class TestPricesByFormula:
    """A price that a formula gives; where it gives none, nothing is given away."""

    def priced(self, formula, **more):
        length = block("number", "length", decimals=2)
        return shop(length, block("product", "rope", priced_by=formula, **more))

    @pytest.mark.parametrize(
        ("length", "line"),
        [("2.5", ("Rope", "3", "11.25")), ("0.02", ("Rope", "3", "0.09")), ("-4", ("Rope", "3", "0.00"))],
    )
    def test_are_worked_out_and_never_below_nothing(self, length, line):
        program = self.priced("length * 1.5")
        assert lines(program, {"length": length, "rope": "3"}) == [line]
        assert "wrong_type" not in codes(program)

    def test_that_are_not_there_yet_leave_the_order_open_and_the_response_refused(self):
        program = self.priced("length * 1.5 / length")
        asked = state_of(program, {"rope": "3"})
        assert not isinstance(asked.order(), OrderTotals)
        assert isinstance(accept(program, {"rope": "3"}, CONTEXT), Refused)
        assert facts_of(program, {"rope": "3"}).blocks["rope"].model_dump(exclude_none=True).get("prices") == {}
        assert lines(program, {"rope": ""}) == []
        assert facts_of(program, {"rope": "3", "length": "2"}).blocks["rope"].prices == {"": "€1.50"}

    def test_are_of_each_row_and_of_quantities_asked_apart(self):
        apart = self.priced("length", quantity="apart")
        assert "no_quantity" in codes(apart)
        length = block("number", "length", decimals=2)
        rope = block("product", "rope", priced_by="length", quantity="apart")
        program = shop(length, rope, block("quantity", "ropes", product="rope"))
        assert lines(program, {"length": "2", "ropes": "4"}) == [("Rope", "4", "8.00")]

    def test_are_numbers_and_not_beside_options(self):
        assert "wrong_type" in codes(self.priced('"two"'))
        assert any(
            each.setting == "priced_by"
            for each in proof(shop(block("product", "x", priced_by="1", options=[option("a", "2")])))
        )
