"""Orders: lines of what is priced, discounts, shipping, taxes, the total; the same figures wherever they are shown."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.fields.field_type import Medium
from codexa.core.fields.formatted import minor_digits
from codexa.core.program.accept import Refused, accept, numbered
from codexa.core.program.explain import explain_all
from codexa.core.program.follow_ups import due
from codexa.core.program.notes import notes
from codexa.core.program.order import OrderTotals
from codexa.core.program.order_names import ORDER
from codexa.core.program.proof import proof
from codexa.core.program.told_answers import told_answers
from codexa.services.response_columns import columns_of, held_in, source_of
from core.forms import block, facts_of, figure, options, program_of, state_of, value_of
from core.formulas import CONTEXT

POSTERS = block("number", "posters", price="4.50")
EXTRAS = block(
    "several_choices",
    "extras",
    options=options("bag", "card", "none", bag={"price": "1.25"}, card={"price": "1.25"}),
)
MAPS = {"id": "kmap", "key": "map", "label": "Map", "blocks": [block("number", "maps", price="10")]}
MORE = block("repeat", "more", kinds=[MAPS])
CODE = block("short_text", "code")
SUMMARY = block("order_summary", "summary")
FRIENDS = {"id": "d1", "name": "Friends", "code": "Stars", "percent": "10"}
VAT = {"id": "t", "percent": "19"}
ANSWERS = {
    "posters": "3",
    "extras": ["obag", "ocard"],
    "more": [{"kind": "kmap", "id": "r1", "values": {"maps": "2"}}],
    "code": " STARS ",
}


def shop(*blocks, **order):
    return program_of(POSTERS, EXTRAS, MORE, CODE, SUMMARY, *blocks, order={"code_field": "code", **order})


def order_of(program, answers=ANSWERS):
    order = state_of(program, answers).order()
    assert isinstance(order, OrderTotals)
    return order


def codes(program):
    return [finding.code for finding in proof(program)]


class TestLines:
    def test_are_what_was_ordered_in_the_order_of_the_outline(self):
        lines = order_of(shop()).lines.lines
        assert [(each.label, str(each.quantity), str(each.amount)) for each in lines] == [
            ("Posters", "3", "13.50"),
            ("Bag", "1", "1.25"),
            ("Card", "1", "1.25"),
            ("Maps", "2", "20.00"),
        ]
        assert [each.option for each in lines] == ["", "bag", "card", ""]

    def test_leave_out_what_is_hidden_blank_nothing_or_not_for_sale(self):
        hidden = program_of(POSTERS | {"shown": "FALSE", "keep_when_hidden": True}, EXTRAS, SUMMARY)
        order = order_of(hidden, {"posters": "3", "extras": ["onone"]})
        assert (order.lines.lines, order.total) == ((), 0)
        assert order_of(shop(), {"posters": "0"}).lines.lines == ()

    def test_in_rows_hang_on_what_the_row_shows(self):
        row = MAPS | {"blocks": [block("number", "maps", price="10"), block("yes_no", "gift")]}
        row["blocks"][0]["shown"] = "NOT(gift)"
        rows = [{"kind": "kmap", "id": f"r{at}", "values": {"maps": "1", "gift": at == 1}} for at in range(3)]
        order = order_of(program_of(block("repeat", "more", kinds=[row]), SUMMARY), {"more": rows})
        assert order.lines.count == 2


class TestDiscounts:
    def test_take_off_where_their_code_was_typed_and_their_rule_holds(self):
        many = {"id": "d2", "name": "Many", "when": "order.count > 6", "amount": "order.subtotal / 9"}
        order = order_of(shop(discounts=[FRIENDS, many]))
        assert [(each.name, str(each.amount)) for each in order.discounts] == [("Friends", "3.60"), ("Many", "4.00")]
        assert str(order.total) == "28.40"
        assert order_of(shop(discounts=[FRIENDS]), ANSWERS | {"code": "moon"}).discounts == ()
        assert order_of(shop(discounts=[many]), {"posters": "6"}).discounts == ()

    @pytest.mark.parametrize("typed", ["stars", ""])
    def test_whose_amount_fails_leave_no_total_where_they_are_due(self, typed):
        program = shop(discounts=[{"id": "d1", "name": "Odd", "code": "stars", "amount": "1 / (posters - 3)"}])
        accepted = accept(program, ANSWERS | {"code": typed}, CONTEXT)
        assert isinstance(accepted, Refused) == (typed == "stars")

    def test_never_take_off_more_than_there_is_and_never_add(self):
        order = order_of(shop(discounts=[FRIENDS, {"id": "d2", "name": "All", "amount": "999"}]))
        assert (str(order.discount), order.total) == ("36.00", 0)
        assert order_of(shop(discounts=[{"id": "d2", "name": "Odd", "amount": "-5"}])).discounts == ()


class TestShipping:
    FREE = "IF(order.subtotal - order.discount >= 30, 0, 6.5)"

    def test_is_worked_out_of_what_is_ordered_and_none_for_nothing(self):
        assert order_of(shop(shipping=self.FREE)).shipping == 0
        assert order_of(shop(shipping=self.FREE), {"posters": "1"}).shipping == Decimal("6.5")
        assert order_of(shop(shipping="6.5"), {}).shipping == 0

    def test_that_fails_leaves_no_total_and_says_why(self):
        program = shop(shipping="6.5 / (order.count - order.count)")
        state = state_of(program, ANSWERS)
        assert not isinstance(state.order(), OrderTotals)
        assert facts_of(program, ANSWERS).blocks["summary"].order is None
        shipping, total = explain_all(state, "order")[-2:]
        assert "can't be worked out (#DIV/0!)" in shipping.sentence
        assert "can't be worked out" in total.sentence
        refused = accept(program, ANSWERS, CONTEXT)
        assert isinstance(refused, Refused)
        assert refused.errors["whole-form"].code == "order_failed"


def test_that_goes_round_in_a_circle_is_a_finding_and_is_never_accepted():
    """A price hangs on the subtotal it is part of: nothing is thrown, and nothing is sold."""
    lamp = block("single_choice", "lamp", shown="order.subtotal > 3", options=options("red", red={"price": "2"}))
    program = shop(lamp, discounts=[FRIENDS], shipping="5")
    answers = ANSWERS | {"lamp": "ored"}
    assert not isinstance(state_of(program, answers).order(), OrderTotals)
    assert isinstance(accept(program, answers, CONTEXT), Refused)
    assert "circle" in codes(program)


class TestTaxes:
    @pytest.mark.parametrize(("included", "tax", "total"), [(True, "5.75", "36.00"), (False, "6.84", "42.84")])
    def test_are_in_the_prices_or_come_on_top(self, included, tax, total):
        order = order_of(shop(taxes=[{"id": "t", "percent": "19", "included": included}]))
        assert (str(order.tax), str(order.total)) == (tax, total)


def test_an_order_of_nothing_can_be_refused():
    refused = accept(shop(refuse_empty=True), {"code": "x"}, CONTEXT)
    assert isinstance(refused, Refused)
    assert refused.errors["whole-form"].message == "Choose what you would like to order."
    assert not isinstance(accept(shop(), {}, CONTEXT), Refused)


def test_is_the_same_on_the_form_in_texts_mails_webhooks_and_what_is_kept():
    mail = {"id": "u1", "kind": "email", "recipients": [{"address": "a@example.org"}], "all_answers": True}
    mail |= {"subject": "{order.total} for {order.lines}"}
    hook = {"id": "u2", "kind": "webhook", "address": "https://www.example.org/in"}
    program = program_of(
        *(POSTERS, EXTRAS, MORE, CODE, SUMMARY),
        order={
            "code_field": "code",
            "discounts": [FRIENDS],
            "shipping": "6.5",
            "taxes": [{"id": "t", "percent": "19"}],
        },
        follow_ups=[mail, hook],
        figures=[figure("deposit", "formula", formula="order.total / 2", format="money")],
    )
    accepted = numbered(accept(program, ANSWERS, CONTEXT), 7)
    kept = accepted.computed[ORDER]
    assert (kept["total"], kept["shipping"], kept["discount"], kept["currency"]) == ("38.90", "6.50", "3.60", "EUR")
    shown = facts_of(program, ANSWERS).blocks["summary"].order
    assert (shown.total, shown.subtotal, shown.shipping) == ("€38.90", "€36.00", "€6.50")
    mailed, hooked = due(accepted.state, "complete")
    assert mailed.content["subject"] == "€38.90 for 3 × Posters, 1 × Bag, 1 × Card, 2 × Maps"
    assert ["Total", "€38.90"] in mailed.content["pieces"][-1]["answers"]
    assert hooked.content["body"]["order"] == kept
    assert accepted.computed["gdeposit"] == "19.45"
    held = held_in(program.form)
    ids = [column.id for column in columns_of(program.form) if source_of(column.id) == ORDER]
    cells = [held[each].text(kept, program.region, Medium.CSV) for each in ids]
    assert cells == ["3 × Posters; 1 × Bag; 1 × Card; 2 × Maps", "36.00", "3.60", "6.50", "6.21", "38.90"]


def test_why_something_costs_what_it_costs_has_an_answer():
    program = shop(discounts=[FRIENDS], shipping="IF(order.subtotal >= 50, 0, 6.5)")
    lines, discounts, shipping, total = explain_all(state_of(program, ANSWERS), "order")
    assert lines.sentence.startswith("the order has 3 × Posters, 1 × Bag")
    assert discounts.value == "has Friends €3.60 taken off"
    assert (shipping.value, shipping.formula) == ("costs €6.50 to send", "IF(order.subtotal >= 50, 0, 6.5)")
    assert total.value == "comes to €38.90"


def test_what_an_order_lacks_is_found():
    assert codes(shop()) == []
    assert codes(program_of(POSTERS)) == ["no_summary"]
    assert codes(program_of(CODE, SUMMARY)) == ["nothing_priced"]
    assert codes(program_of(CODE, order={"shipping": "3"})) == ["nothing_priced"]
    assert codes(shop(discounts=[{"id": "d", "name": "None"}])) == ["no_discount"]
    assert codes(shop(discounts=[FRIENDS, FRIENDS | {"id": "d2", "code": "stars "}])) == ["double_code", "double_code"]
    assert codes(shop(discounts=[FRIENDS], code_field="posters")) == ["no_code_field"]
    assert codes(shop(discounts=[FRIENDS | {"name": "", "amount": "3"}])) == ["no_name", "two_discounts"]
    assert codes(shop(block("number", "order"))) == ["key_is_order"]
    assert "unknown_name" in codes(program_of(CODE, block("calculated", "sum", formula="order.total")))


def test_a_key_that_is_order_goes_on_meaning_what_it_meant():
    program = program_of(block("number", "order"), POSTERS, SUMMARY)
    assert value_of(program, "order", {"order": "5"}) == 5


def test_a_visitor_is_told_prices_only_where_they_are_shown():
    facts = facts_of(shop()).blocks
    assert (facts["posters"].prices, facts["extras"].prices) == ({"": "€4.50"}, {"obag": "€1.25", "ocard": "€1.25"})
    assert facts_of(program_of(EXTRAS | {"prices_shown": False}, SUMMARY)).blocks["extras"].prices is None


@given(
    some.sampled_from(("EUR", "JPY", "KWD", "CHF")),
    some.lists(some.tuples(some.decimals(0, 10_000, places=3), some.integers(0, 999)), min_size=1, max_size=6),
    some.decimals("0.01", 100, places=2),
    some.decimals(0, 500, places=3),
    some.lists(some.tuples(some.decimals("0.5", 30, places=1), some.booleans()), max_size=3),
)
def test_lines_shipping_and_taxes_less_discounts_are_the_total(currency, priced, percent, shipping, rates):
    blocks = [block("number", f"n{at}", price=str(price)) for at, (price, _) in enumerate(priced)]
    taxes = [{"id": f"t{at}", "percent": str(rate), "included": on} for at, (rate, on) in enumerate(rates)]
    discounts = [{"id": "d1", "name": "A", "percent": str(percent)}, {"id": "d2", "name": "B", "amount": "7.777"}]
    order = {"discounts": discounts, "shipping": str(shipping), "taxes": taxes}
    program = program_of(*blocks, SUMMARY, currency=currency, order=order)
    answers = {f"n{at}": str(count) for at, (_, count) in enumerate(priced)}
    found = order_of(program, answers)
    added = sum(each.amount for each in found.taxes if not each.included)
    assert found.total == sum(each.amount for each in found.lines.lines) - found.discount + found.shipping + added
    assert found.total >= 0
    amounts = [found.total, found.shipping, found.discount, *(each.amount for each in found.lines.lines)]
    amounts += [each.amount for each in found.taxes]
    unit = Decimal(1).scaleb(-minor_digits(currency))
    assert all(amount % unit == 0 for amount in amounts)
    kept = accept(program, answers, CONTEXT).computed[ORDER]
    told = [each for page in told_answers(state_of(program, answers)) for each in page.answers]
    total = facts_of(program, answers).blocks["summary"].order.total
    assert Decimal(kept["total"]) == found.total
    assert not found.lines.lines or told[-1].text == total


def test_what_things_cost_stands_in_the_margin_and_what_is_a_column_can_be_asked_why():
    program = shop(discounts=[FRIENDS | {"when": "order.count > 2"}], shipping="6.5")
    told = {
        owner: ["".join(words.text for words in note.words) for note in each] for owner, each in notes(program).items()
    }
    assert "each costs 4.5" in told["posters"]
    assert "costs 1.25 · 1.25 · not sold" in told["extras"]
    assert told[ORDER] == ["discount 1 taken off when order.count is more than 2", "shipping costs 6.5"]
    state = state_of(program, ANSWERS)
    assert explain_all(state, f"{ORDER}.shipping") == explain_all(state, "order")


def test_a_total_says_while_an_answer_that_it_is_made_of_is_refused():
    price = block("calculated", "price", formula="posters * 2 + SUM(more.maps)")
    most = block("number", "posters", price="4.50", maximum="20")
    program = program_of(most, block("number", "age", maximum="120"), MORE, price, SUMMARY)

    def unsettled(**answers):
        blocks = facts_of(program, answers).blocks
        return (blocks["price"].unsettled, blocks["summary"].unsettled)

    assert unsettled(posters="20", age="999") == (False, False)
    assert unsettled(posters="21") == (True, True)
    assert unsettled(posters="many") == (True, True)
    assert unsettled(more=[{"kind": "kmap", "id": "r1", "values": {"maps": "x"}}]) == (True, True)
    assert facts_of(program, {"posters": "21"}, program.affected(["posters"])).blocks["summary"].unsettled
