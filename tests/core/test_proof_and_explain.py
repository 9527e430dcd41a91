"""What the proof finds beside formulas' own faults, and why things are as they are."""

import json

import pytest
from conftest import EXAMPLES

from codexa.core.form.form import read_form
from codexa.core.form.renaming import rename_key
from codexa.core.formula.check import Severity
from codexa.core.program.compiling import compile_form
from codexa.core.program.decide import Decided, decide
from codexa.core.program.explain import NoSuchFactError, explain, explain_all
from codexa.core.program.notes import notes
from codexa.core.program.proof import proof
from core.forms import block, facts_of, figure, options, program_of, state_of
from core.formulas import CONTEXT

SITE = block("single_choice", "site", options=options("dome", "deck"))
MANY = block("several_choices", "many", options=options(*"abcdefg"))
ELSE = block("single_choice", "else_where", options=options("dome"), other=True)
STARS = block("rating", "stars")
GRID = block("grid", "grid", questions=[{"id": "q", "code": "q", "label": "Q"}], options=options("yes", "no"))
EXTRAS = block("several_choices", "extras", options=options("a", "b"))
GROUP = block("number", "people", minimum="1", maximum="60")


@pytest.mark.parametrize("path", sorted(EXAMPLES.glob("*.json")), ids=lambda path: path.stem)
def test_every_formula_of_a_demo_form_is_told_beside_its_part(path):
    program = compile_form(read_form(json.loads(path.read_text(encoding="utf-8"))))
    told = {(owner, each.setting) for owner, found in notes(program).items() for each in found}
    assert {(each.owner, each.setting) for each in program.formulas} <= told


@pytest.mark.parametrize(
    ("condition", "outcome"),
    [
        ("people > 60", Decided.NEVER),
        ("people >= 60", Decided.BOTH),
        ("people > 0", Decided.BOTH),
        ("OR(ISBLANK(people), people > 0)", Decided.ALWAYS),
        ("AND(people > 12, people < 12)", Decided.NEVER),
        ("AND(people > 12, people < 14)", Decided.BOTH),
        ("people + people > 120", Decided.NEVER),
        ("people * 2 - 3 >= 117", Decided.BOTH),
        ('site = "harbour"', Decided.NEVER),
        ('AND(site = "dome", site = "deck")', Decided.NEVER),
        ('OR(site = "dome", site = "deck", site = "")', Decided.ALWAYS),
        ('AND(HAS(extras, "a"), HAS(extras, "b"))', Decided.BOTH),
        ('HAS(extras, "c")', Decided.NEVER),
        ('AND(HAS(many, "a"), HAS(many, "b"), HAS(many, "g"))', Decided.BOTH),
        ('else_where = "other"', Decided.BOTH),
        ('HAS(grid, "yes")', Decided.UNKNOWN),
        ("AND(stars > 2.5, stars < 3.5)", Decided.BOTH),
        ("AND(people > 2.5, people < 3.5)", Decided.BOTH),
        ("people = 2.5", Decided.NEVER),
        ("XOR(yes, yes)", Decided.NEVER),
        ("1 > 2", Decided.NEVER),
        ("LEN(name) > 3", Decided.UNKNOWN),
        ("people * people > 9", Decided.UNKNOWN),
        ("TODAY() > DATE(2026, 1, 1)", Decided.UNKNOWN),
    ],
)
def test_conditions_are_decided_where_that_is_possible(condition, outcome):
    fields = (GROUP, SITE, EXTRAS, MANY, ELSE, STARS, GRID, block("yes_no", "yes"))
    program = program_of(*fields, block("short_text", "name", shown=condition))
    formula = program.formula("name", "shown")
    assert decide(program, formula) is outcome


PAGES = [
    {"id": "p1", "blocks": [GROUP], "next": [{"when": "TRUE", "to": "p3"}]},
    {"id": "p2", "blocks": [block("short_text", "a")]},
    {
        "id": "p3",
        "blocks": [block("short_text", "b")],
        "next": [{"when": "people > 1", "to": "p1"}, {"when": "people > 2", "to": "gone"}],
    },
]


@pytest.mark.parametrize(
    ("program", "code", "owner"),
    [
        (program_of(pages=PAGES), "never_reached", "p2"),
        (program_of(pages=PAGES), "leads_back", "p3"),
        (program_of(pages=PAGES), "page_gone", "p3"),
        (program_of(GROUP, block("short_text", "a", shown="people > 99")), "never_holds", "a"),
        (program_of(block("short_text", "a", required="TRUE", locked="TRUE")), "never_filled_in", "a"),
        (program_of(block("dropdown", "d", options=options("a", a={"shown": "FALSE"}))), "never_filled_in", "d"),
        (program_of({**GROUP, "default": "61"}), "default_wrong", "people"),
        (program_of({**SITE, "default": '"hall"'}), "default_wrong", "site"),
        (program_of(GROUP, block("calculated", "c", formula="100 / people")), "may_divide_by_zero", "c"),
        (program_of(GROUP, figures=[figure("f", "score", questions=[{"field": "gone"}])]), "questions_wrong", "gf"),
        (
            program_of(SITE, figures=[figure("f", "score", questions=[{"field": "site", "points": {"x": "1"}}])]),
            "questions_wrong",
            "gf",
        ),
        (
            program_of(GROUP, figures=[figure("f", "bands", formula="people", bands=[{"start": "1"}, {"start": "1"}])]),
            "bands_wrong",
            "gf",
        ),
        (
            program_of(GROUP, figures=[figure("f", "bands", formula="people", bands=[{"start": "1"}])]),
            "bands_gap",
            "gf",
        ),
        (
            program_of(GROUP, figures=[figure("f", "bands", formula="people", bands=[{"value": " "}])]),
            "bands_wrong",
            "gf",
        ),
        (
            program_of(GROUP, figures=[figure("f", "bands", formula="people", bands=[{"value": "9 / (people - 3)"}])]),
            "may_divide_by_zero",
            "gf",
        ),
        (program_of(GROUP, figures=[figure("people", "formula", formula="1")]), "double_key", "gpeople"),
        (program_of(GROUP, block("text", "t", text="{peple}")), "unknown_name", "t"),
        (
            program_of(GROUP, block("text", "t", text="{f}"), figures=[figure("f", "formula", formula="1")]),
            "private_value",
            "t",
        ),
        (program_of(block("repeat", "r", kinds=[])), "kinds_wrong", "r"),
        (program_of(GROUP, brand={"ink": "#FFD54A"}), "low_contrast", None),
        (program_of(block("heading", "h", text="x")), "no_fields", None),
    ],
)
def test_finds_with_place_and_remedy(program, code, owner):
    found = [finding for finding in proof(program) if finding.code == code]
    assert owner in [finding.block for finding in found]
    assert all(finding.message.endswith(".") and finding.remedy.endswith(".") for finding in found)


@pytest.mark.parametrize(
    "formula",
    ["IF(people > 0, 100 / people, 0)", "IFERROR(100 / people, 0)", "AND(people > 0, 9 / people > 1)", "people / 2"],
)
def test_a_division_that_is_guarded_is_no_finding(formula):
    program = program_of(GROUP, block("calculated", "c", formula=f"N({formula})"))
    assert [finding.code for finding in proof(program)] == []


class TestExplain:
    PROGRAM = program_of(
        GROUP,
        block("group", "school", label="School", shown="people > 12", blocks=[block("short_text", "class_name")]),
        block("calculated", "price", format="money", formula="100 / (people - 3)"),
        block("calculated", "total", format="money", formula="price * 2"),
    )

    def why(self, path, **answers):
        return explain(self.PROGRAM, answers, CONTEXT, path)

    def test_a_hidden_block_names_the_answer_and_the_rule(self):
        why = self.why("school.shown", people="3")
        assert (
            why.sentence
            == "1.2 School is hidden, because 1.1 People is 3 and the rule wants: 1.1 People is more than 12."
        )
        assert [each.owner for each in why.because] == ["people"]

    def test_what_stands_in_a_hidden_group_is_hidden_with_it(self):
        assert self.why("class_name.shown").sentence == "1.2.1 Class name is hidden, as 1.2 School is."

    def test_a_chain_ends_at_answers(self):
        why = self.why("total", people="13")
        assert why.value == "is €20.00"
        assert why.because[0].sentence == "1.3 Price is €10.00: = 100 / (people - 3) with 1.1 People is 13."
        assert why.because[0].because[0].sentence == "1.1 People is 13."

    def test_an_error_is_told_with_its_place(self):
        assert "#DIV/0!" in self.why("price", people="3").value
        assert "at 100 / (people - 3)" in self.why("price", people="3").value

    def test_there_is_no_answer_to_what_does_not_exist(self):
        for path in ("nothing", "people.colour", "lines/1/amount"):
            with pytest.raises(NoSuchFactError):
                self.why(path)

    def test_everything_about_a_part_is_told_in_one_order(self):
        big, small = {"belongs_to": "dome", "locked": "people > 9"}, {"belongs_to": "deck"}
        sizes = options("big", "small", big=big, small=small)
        scope = block("dropdown", "scope", offered="option.belongs_to = site", options=sizes)
        day = block("date", "day", earliest="TODAY() + 1", latest="people", default="TODAY() + 7")
        rows = [{"id": "r1", "kind": "krow", "values": {"count": "3"}}, {"id": "r2", "kind": "krow", "values": {}}]
        count = block("number", "count", default="people", checks=[{"formula": "count < people", "message": "Fewer"}])
        kinds = [{"id": "krow", "key": "row", "label": "Row", "blocks": [count]}]
        program = program_of(GROUP, SITE, scope, day, block("repeat", "lines", kinds=kinds))
        state = state_of(program, {"people": "20", "site": "odome", "lines": rows})

        def values(address):
            return {each.fact: each.value for each in explain_all(state, address)}

        assert values("scope") == {
            "shown": "is shown",
            "value": "is blank",
            "required": "may be left blank",
            "locked": "is open",
            "offered": "offers Big",
            "barred": "does not let anyone choose Big",
        }
        assert values("day")["earliest"].startswith("takes nothing before ")
        assert values("day")["latest"] == "is not limited"
        assert explain(program, {}, CONTEXT, "day").sentence.endswith(": = TODAY() + 7.")
        sentences = [
            {each.fact: each.sentence for each in explain_all(state, f"lines/{row}/count")} for row in ("r1", "r2")
        ]
        assert [each["value"].partition(" Count ")[2] for each in sentences] == [
            "is 3.",
            "is 20: = people with 1.1 People is 20.",
        ]
        hidden = [each.sentence for each in explain_all(state_of(self.PROGRAM, {"people": "3"}), "class_name")]
        assert hidden[:2] == [
            "1.2.1 Class name is hidden, as 1.2 School is.",
            "1.2.1 Class name is blank while hidden.",
        ]
        assert "does not fit its check" in sentences[1]["check.0"]
        with pytest.raises(NoSuchFactError):
            explain_all(state, "lines/r3/count")

    def test_where_one_goes_and_how_it_ends_name_the_rule_that_held(self):
        pages = [
            {
                "id": "one",
                "title": "One",
                "blocks": [GROUP],
                "next": [
                    {"when": "people > 50", "to": ""},
                    {"when": "people > 12", "to": "three"},
                ],
            },
            {"id": "two", "title": "Two", "blocks": []},
            {"id": "three", "title": "Three", "blocks": []},
        ]
        confirmations = [
            {"id": "k1", "name": "Groups", "when": "people > 12"},
            {"id": "k2", "name": "All"},
        ]
        program = program_of(pages=pages, confirmations=confirmations)

        def told(people, part, fact):
            state = state_of(program, {"people": people})
            return next(each for each in explain_all(state, part) if each.fact == fact)

        assert [told(people, "one", "next").value for people in ("3", "20", "60")] == [
            "leads to page 2 Two",
            "leads to page 3 Three",
            "leads to the end",
        ]
        assert told("20", "one", "next").formula == "people > 12"
        assert told("60", "form", "confirmation").sentence == (
            "the form ends with Groups, because 1.1 People is 60 and the rule wants: 1.1 People is more than 12."
        )
        assert told("3", "form", "confirmation").formula == ""
        assert told("20", "two", "shown").value == "is not on the path"

    def test_bands_name_the_one_that_was_taken_and_what_it_read(self):
        bands = [{"value": "90", "label": "small"}, {"start": "12", "value": "people * rate", "label": "group"}]
        figures = [figure("fee", "bands", formula="people", bands=bands), figure("rate", "formula", formula="7")]
        program = program_of(GROUP, figures=figures)
        group, small = (explain(program, {"people": people}, CONTEXT, "fee") for people in ("20", "3"))
        assert (group.sentence, [each.name for each in group.because]) == (
            "Fee is 140 (group): the band of people, where it is people * rate, with 1.1 People is 20; Rate is 7.",
            ["1.1 People", "Rate"],
        )
        assert (small.sentence, [each.name for each in small.because]) == (
            "Fee is 90 (small): the band of people, with 1.1 People is 3.",
            ["1.1 People"],
        )

    @pytest.mark.parametrize("example", sorted(EXAMPLES.glob("*.json")), ids=lambda path: path.stem)
    def test_everything_in_every_example_can_be_asked(self, example):
        program = compile_form(read_form(json.loads(example.read_text(encoding="utf-8"))))
        paths = [f"{fact.owner}.{fact.name}" for fact in program.facts.values() if not fact.spot.kind]
        for path in {path for path in paths if not path.endswith((".rows", ".column"))}:
            assert explain(program, {}, CONTEXT, path).sentence.endswith(".")


def test_renaming_reaches_rows_texts_figures_and_nothing_else():
    kinds = [
        {
            "id": "k1",
            "key": "one",
            "label": "One",
            "blocks": [block("number", "amount"), block("short_text", "why", shown="amount > 1")],
        },
        {"id": "k2", "key": "two", "label": "Two", "blocks": [{**block("number", "amount"), "id": "other"}]},
    ]
    program = program_of(
        block("repeat", "lines", kinds=kinds),
        block("number", "amount") | {"id": "top"},
        block("text", "t", text="{amount} and {lines}"),
        figures=[figure("f", "formula", formula='SUM(lines.one.amount) + SUM(lines.amount) + amount & "amount"')],
    )
    form = rename_key(program.form, "lines", "entries")
    form = rename_key(form, "top", "people")
    form = rename_key(form, "amount", "cost")
    assert form.figures[0].formula == 'SUM(entries.one.cost) + SUM(entries.amount) + people & "amount"'
    texts = {each.id: each for each in form.blocks()}
    assert texts["t"].text == "{people} and {entries}"
    assert texts["why"].shown == "cost > 1"
    assert facts_of(compile_form(form)).blocks["top"].shown


def test_what_names_a_part_that_another_way_of_asking_has_not_says_so():
    text = block("text", "greeting", text="<p>{who.first}</p>")
    reader = block("short_text", "nick", shown='who.first = "Ana"')

    def told(parts):
        program = program_of(block("name", "who", parts=parts), text, reader)
        return [finding.message for finding in proof(program) if finding.severity is Severity.ERROR]

    assert told("first_last") == []
    assert told("one") == [
        "The text inserts {who.first}, and as it is asked now who has no first.",
        "There is who, and as it is asked now it has no first.",
    ]
