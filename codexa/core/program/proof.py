"""Proof: what is wrong or doubtful in a draft, with its place and a remedy."""

from collections import Counter, defaultdict
from collections.abc import Collection, Iterator, Mapping
from dataclasses import replace
from datetime import date

from codexa.core.definition.palette import weak_contrasts
from codexa.core.definition.parts import Field, Question
from codexa.core.definition.wording import unknown_values
from codexa.core.errors import AnswerError, Span
from codexa.core.fields import type_of
from codexa.core.fields.options import Optioned, same_words
from codexa.core.form.form import FORM
from codexa.core.form.outline_text import price_in
from codexa.core.formula import tree
from codexa.core.formula.check import Severity, Typed
from codexa.core.formula.types import NUMBERS, Kind
from codexa.core.formula.values import Failed, FormulaFailure
from codexa.core.program.bounds import range_of
from codexa.core.program.charts import CHARTED
from codexa.core.program.costs import costly_repeats
from codexa.core.program.decide import Decided, decide
from codexa.core.program.facts import Formula
from codexa.core.program.figure_kinds import kind_of
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.follow_ups import follow_up_findings
from codexa.core.program.group_findings import group_findings
from codexa.core.program.language_findings import language_findings
from codexa.core.program.link_values import link_findings
from codexa.core.program.named_words import named_words, wrong_word
from codexa.core.program.names import name_of
from codexa.core.program.order_findings import order_findings
from codexa.core.program.part_findings import part_findings
from codexa.core.program.payment import card_findings, payment_findings
from codexa.core.program.places import ALWAYS, NEVER, Place
from codexa.core.program.program import Program
from codexa.core.program.record_findings import record_findings
from codexa.core.program.sequences import dead_ends, of_sequences
from codexa.core.program.slot_findings import slot_findings
from codexa.core.program.timing import too_late
from codexa.core.program.unfinished import unfinished

_CONDITIONS = frozenset(
    {"shown", "required", "locked", "check", "next", "confirmation", "counted", "follow_up", "recipient", "discount"}
    | {"part"}
)
_OF_NOW = ("TODAY", "NOW", "INGROUP")
_DIVIDING = {"MOD": 1, "QUOTIENT": 1}


def proof(
    program: Program, people: Mapping[str, str] | None = None, groups: Collection[str] | None = None
) -> tuple[Finding, ...]:
    """Return every finding, errors first, each severity in the order of the outline.

    `people` are those of the team, as in Context, and `groups` the codes of its groups; without them none is doubted.
    """
    decided = _decide_all(program)
    found = [
        *_of_form(program),
        *_of_pages(program, decided),
        *_of_blocks(program),
        *_of_figures(program),
        *_of_charts(program),
        *_of_formulas(program),
        *_of_words(program),
        *_of_options_without_numbers(program),
        *_of_same_words(program),
        *_of_conditions(decided),
        *_of_divisions(program),
        *_of_texts(program),
        *_of_wording(program),
        *_of_circles(program),
        *_of_costs(program),
        *of_sequences(program),
        *dead_ends(program),
        *_of_confirmations(program),
        *_of_prices(program),
        *too_late(program),
        *order_findings(program),
        *payment_findings(program),
        *card_findings(program),
        *follow_up_findings(program, people),
        *link_findings(program),
        *record_findings(program),
        *slot_findings(program),
        *part_findings(program),
        *group_findings(program, groups),
        *language_findings(program),
        *unfinished(program),
    ]
    beside = (*program.form.parts, *program.form.confirmations, *program.form.follow_ups)
    ids = [*program.form.numbers(), *program.figures, *(each.id for each in beside)]
    order = {owner: index for index, owner in enumerate(ids)}
    return tuple(sorted(found, key=lambda each: (each.severity is Severity.DOUBT, order.get(each.block or "", -1))))


def _of_form(program: Program) -> Iterator[Finding]:
    form = program.form
    if not any(place.answered for place in program.places.values()):
        yield error("no_fields", "The form asks nothing yet.", "Add a field in Compose.")
    if not form.title.strip():
        yield doubt("no_title", "Visitors see no title above the form.", "Click the line above the first page.")
    for setting, what, ratio in weak_contrasts(form.brand):
        message = f"{what} has a contrast of {ratio:.1f} to 1; 4.5 is needed to read it well."
        yield doubt("low_contrast", message, "Choose a darker or lighter colour in Brand.", setting=f"brand.{setting}")


def _decide_all(program: Program) -> dict[tuple[str, str], tuple[Formula, Decided]]:
    return {
        (formula.owner, formula.setting): (formula, decide(program, formula))
        for formula in program.formulas
        if formula.mark.fact in _CONDITIONS
    }


def _of_pages(program: Program, decided: dict[tuple[str, str], tuple[Formula, Decided]]) -> Iterator[Finding]:
    pages = program.form.pages
    place_of = {page.id: index for index, page in enumerate(pages)}
    for index, page in enumerate(pages):
        for at, rule in enumerate(page.next):
            target = len(pages) if rule.to == "" else place_of.get(rule.to)
            if target is None:
                message = "A rule leads to a page that was deleted."
                yield error("page_gone", message, "Choose another page, or remove the rule.", page.id, f"next.{at}.to")
            elif target <= index:
                message = "A rule leads back; visitors would go in a circle."
                yield error("leads_back", message, "Choose a later page.", page.id, f"next.{at}.to")
    addresses = Counter(page.address for page in pages if page.address)
    for page in pages:
        if page.address and addresses[page.address] > 1:
            message = f"Two pages have the address {page.address}."
            yield error("double_address", message, "Give each page an address of its own.", page.id, "address")
    yield from _unreached(program, place_of, decided)


def _unreached(
    program: Program, place_of: dict[str, int], decided: dict[tuple[str, str], tuple[Formula, Decided]]
) -> Iterator[Finding]:
    pages = program.form.pages
    reached = {0}
    for index, page in enumerate(pages):
        if index not in reached:
            message = "No path reaches this page: every path before it leads elsewhere."
            yield doubt("never_reached", message, "Correct the rules of the pages before it.", page.id)
            continue
        goes_on = True
        for at, rule in enumerate(page.next):
            outcome = decided.get((page.id, f"next.{at}.when"), (None, Decided.UNKNOWN))[1]
            if outcome is not Decided.NEVER and goes_on:
                reached.add(place_of.get(rule.to, len(pages)))
            goes_on = goes_on and outcome is not Decided.ALWAYS
        if goes_on or page.shown.strip():
            reached.add(index + 1)


def _of_costs(program: Program) -> Iterator[Finding]:
    for costly in costly_repeats(program):
        if costly.stops:
            remedy = "Lower the most rows, or ask less in each row."
            yield error("too_many_cells", costly.message, remedy, costly.repeat, "max_rows")
        else:
            remedy = "Lower the most rows, or work out in figures what is the same in every row."
            yield doubt("costly_rows", costly.message, remedy, costly.repeat, "max_rows")


def _of_blocks(program: Program) -> Iterator[Finding]:
    for block in program.form.blocks():
        for setting, message, remedy in type_of(block).findings(block):
            yield error(f"{setting}_wrong", message, remedy, block.id, setting)
        if isinstance(block, Field) and not block.label.strip():
            yield error(
                "no_label", "The field has no label; screen readers can't name it.", "Write one.", block.id, "label"
            )
    for place in program.places.values():
        if isinstance(place.block, Question):
            yield from _of_question(program, place, place.block)
    yield from _double_keys(program)


def _of_question(program: Program, place: Place, block: Question) -> Iterator[Finding]:
    if place.conditions.locked is ALWAYS and place.conditions.required is not NEVER and not block.default.strip():
        message = "The field must be answered, is always locked, and begins blank: nobody can fill it in."
        yield error("never_filled_in", message, "Give it a default, or unlock it.", block.id, "locked")
    if isinstance(block, Optioned) and block.options and all(o.shown.strip().upper() == "FALSE" for o in block.options):
        yield error(
            "never_filled_in", "None of the options is ever offered.", "Show at least one.", block.id, "options"
        )
    if _has_no_day(program, block.id):
        message = "No day is both late and early enough: nobody can fill it in."
        yield error("never_filled_in", message, "Move one of the two limits.", block.id, "latest")
    formula = program.formula(block.id, "default")
    if formula is not None and _is_constant(formula):
        wrong = _default_message(program, place, formula)
        if wrong:
            yield error("default_wrong", wrong, "Correct the default or the limits.", block.id, "default")


def _has_no_day(program: Program, block: str) -> bool:
    """Say whether a field's first day, where both are written out, is after its last."""
    limits = [program.formula(block, setting) for setting in ("earliest", "latest")]
    days = [each.compiled.run((), None) for each in limits if each is not None and _is_constant(each)]
    return len(days) == 2 and all(isinstance(day, date) for day in days) and days[0] > days[1]


def _is_constant(formula: Formula) -> bool:
    asks_now = any(isinstance(node, tree.Call) and node.function in _OF_NOW for node in _nodes(formula))
    return not formula.compiled.reads and formula.compiled.typed is not None and not asks_now


def _default_message(program: Program, place: Place, formula: Formula) -> str | None:
    value = formula.compiled.run((), None)
    if value is None:
        return None
    region, field_type = program.region, place.field_type
    assert field_type is not None
    try:
        if isinstance(value, Failed):
            return f"The default can't be worked out: {value.error.message}"
        adopted = field_type.adopt(value, place.block, region)
    except FormulaFailure as failure:
        return f"The default does not fit the field: {failure.error.message}"
    except AnswerError as refused:
        return f"The default does not fit the field: {refused.message}"
    wrong = None if adopted is None else field_type.check(adopted, place.block, region)
    return wrong and f"The default does not fit the field's own limits: {wrong}"


def _nodes(formula: Formula) -> Iterator[tree.Tree]:
    return tree.walk(formula.compiled.typed.node) if formula.compiled.typed else iter(())


def _double_keys(program: Program) -> Iterator[Finding]:
    numbers = program.form.numbers()
    by_key: dict[tuple[str, str], list[tuple[str, str]]] = defaultdict(list)
    for block, kind in program.form.blocks_and_kinds():
        by_key["" if kind is None else kind.id, block.key].append((block.id, numbers[block.id]))
    for figure in program.form.figures:
        by_key["", figure.key].append((figure.id, f"the figure {figure.name or figure.key}"))
    for place in program.repeats.values():
        for each in place.kinds:
            by_key[place.block.id, each.kind.key].append((each.kind.id, numbers[each.kind.id]))
    for (_, key), owners in by_key.items():
        for owner, _ in owners[1:]:
            message = (
                f"{owners[0][1][:1].upper() + owners[0][1][1:]} has the key {key} too; formulas see only that one."
            )
            yield error("double_key", message, "Give one of them another key.", owner, "key")


def _of_figures(program: Program) -> Iterator[Finding]:
    for figure in program.form.figures:
        for setting, message, remedy in kind_of(figure).findings(figure, program.form):
            yield error(f"{setting.partition('.')[0]}_wrong", message, remedy, figure.id, setting)
        bands = getattr(figure, "bands", ())
        unnamed = [at for at, band in enumerate(bands) if not band.label.strip()]
        if unnamed and len(unnamed) < len(bands):
            message = f"Band {unnamed[0] + 1} has no name, and others have."
            yield doubt("no_name", message, "Name it, for texts and rules.", figure.id, f"bands.{unnamed[0]}.label")
        starts = [band.start for band in bands]
        if starts and None not in starts:
            least = min(start for start in starts if start is not None)
            formula = program.formula(figure.id, "formula")
            reached = None if formula is None else range_of(program, formula).least
            if reached is not None and reached >= least:
                continue
            message = f"There is a gap: below {least.normalize():f} the figure is blank."
            yield doubt("bands_gap", message, "Add a band without a start, if that is not meant.", figure.id, "bands")


def _of_confirmations(program: Program) -> Iterator[Finding]:
    for confirmation in program.form.confirmations:
        host = confirmation.redirect.partition("://")[2].partition("/")[0].partition("?")[0]
        if "{" in host:
            message = "Where it leads to hangs on an answer: visitors could be sent to any website."
            yield error("open_redirect", message, "Write the website's name out.", confirmation.id, "redirect")
        says = confirmation.title.strip() or any(each.text.strip() or each.chart for each in confirmation.paragraphs)
        if not says and not confirmation.redirect:
            message = "The confirmation says nothing: visitors see a plain page."
            yield doubt("no_words", message, "Write what has happened and what comes next.", confirmation.id, "title")


def _of_prices(program: Program) -> Iterator[Finding]:
    for block in program.form.blocks():
        for at, option in enumerate(getattr(block, "options", ())):
            price = price_in(option.label)
            setting = "counts_as" if getattr(option, "price", None) is None else "price"
            known = getattr(option, setting, None)
            if price is not None and known and price != known:
                what = "it counts as" if setting == "counts_as" else "its price is"
                message = f"The label of “{option.label}” says {price}, and {what} {known}."
                yield doubt("two_prices", message, "Make the two agree.", block.id, f"options.{at}.{setting}")


def _of_charts(program: Program) -> Iterator[Finding]:
    for confirmation in program.form.confirmations:
        for at, paragraph in enumerate(confirmation.paragraphs):
            figure = program.figures.get(paragraph.chart)
            setting = f"paragraphs.{at}.chart"
            if paragraph.chart and (figure is None or not isinstance(figure.figure, CHARTED)):
                message = "A chart shows a figure that is no score and no profile, or was deleted."
                yield error("no_chart", message, "Choose another figure, or remove it.", confirmation.id, setting)
            elif figure is not None and not figure.figure.shown_to_visitors:
                message = f"A chart shows {figure.figure.name or figure.figure.key}, which visitors may not see."
                yield error("private_value", message, "Show the figure to visitors.", confirmation.id, setting)


def _of_formulas(program: Program) -> Iterator[Finding]:
    for formula in program.formulas:
        for each in formula.compiled.findings:
            yield Finding(
                severity=each.severity,
                code=each.code,
                message=each.message,
                remedy="Correct the formula.",
                block=None if formula.owner == FORM else formula.owner,
                setting=formula.setting,
                span=each.span,
            )


def _of_words(program: Program) -> Iterator[Finding]:
    for formula in program.formulas:
        for named in named_words(program, formula):
            message = wrong_word(program, named)
            if message is not None:
                owner = None if formula.owner == FORM else formula.owner
                remedy = "Choose one that there is; else this never holds."
                yield replace(
                    error("no_such_word", message, remedy, owner, formula.setting),
                    span=Span(start=named.node.span.start, end=named.node.span.end),
                )


_ADDING = frozenset({"SUM", "PRODUCT", "MAX", "MIN", "AVERAGE", "ROUND", "ROUNDUP", "ROUNDDOWN", "ABS"})


def _of_same_words(program: Program) -> Iterator[Finding]:
    for block in program.form.blocks():
        for label in same_words(getattr(block, "options", ())):
            message = f"Two options read “{label}”: visitors can't tell them apart."
            yield doubt("same_words", message, "Word one of them differently.", block.id, "options")


def _of_options_without_numbers(program: Program) -> Iterator[Finding]:
    for formula in program.formulas:
        for part in formula.compiled.typed.walk() if formula.compiled.typed else ():
            if not _calculates(part):
                continue
            for name in part.parts:
                entry = formula.scope.entry(name.node.parts) if isinstance(name.node, tree.Name) else None
                place = program.places.get(entry.owner) if entry is not None else None
                options = getattr(place.block, "options", ()) if place is not None else ()
                if name.type.kind not in (Kind.CHOICE, Kind.CHOICES) or not options:
                    continue
                if not any(getattr(option, "counts_as", 1) for option in options):
                    message = f"No option of {name_of(program, entry.owner if entry else '')} counts as anything but 0."
                    remedy = "Give the options numbers, or compare with a code in quotation marks."
                    owner = None if formula.owner == FORM else formula.owner
                    span = Span(start=name.node.span.start, end=name.node.span.end)
                    yield replace(doubt("no_numbers", message, remedy, owner, formula.setting), span=span)


def _calculates(part: Typed) -> bool:
    """Say whether a part takes the numbers of what stands in it."""
    node = part.node
    if isinstance(node, tree.Binary):
        compares = node.operator in ("=", "<>", "<", "<=", ">", ">=")
        return node.operator in "+-*/" or (compares and any(each.type.kind in NUMBERS for each in part.parts))
    return isinstance(node, tree.Call) and node.function in _ADDING


def _of_conditions(decided: dict[tuple[str, str], tuple[Formula, Decided]]) -> Iterator[Finding]:
    for (owner, setting), (formula, outcome) in decided.items():
        text = formula.compiled.text.strip().upper()
        if outcome not in (Decided.NEVER, Decided.ALWAYS) or text in ("TRUE", "FALSE"):
            continue
        holds = "always holds" if outcome is Decided.ALWAYS else "can never hold"
        message = f"This condition {holds}, whatever is answered."
        place = None if owner == FORM else owner
        yield doubt(
            f"{outcome.value}_holds", message, "Compare it with the fields' limits and options.", place, setting
        )


def _of_divisions(program: Program) -> Iterator[Finding]:
    for formula in program.formulas:
        if formula.compiled.typed is None:
            continue
        shown = program.formula(formula.owner, "shown")
        guards = frozenset(tree.names_in(shown.compiled.typed.node)) if shown and shown.compiled.typed else frozenset()
        for node in _unguarded(formula.compiled.typed, guards):
            message = "This may divide by zero: a blank counts as 0."
            remedy = "Test it before, as in IF(people > 0, total / people, 0)."
            owner = None if formula.owner == FORM else formula.owner
            yield replace(doubt("may_divide_by_zero", message, remedy, owner, formula.setting), span=node.span)


def _unguarded(part: Typed, guards: frozenset[tuple[str, ...]]) -> Iterator[tree.Tree]:
    """Yield divisions whose divisor no condition around them looks at."""
    node = part.node
    if part.function is not None and part.function.sees_failures and part.function.name != "IFNA":
        return
    divisor = _divisor(part)
    if divisor is not None:
        names = tree.names_in(divisor.node)
        zero = isinstance(divisor.node, tree.Number) and not divisor.node.value
        if zero or (names and not names & guards):
            yield node
    branching = isinstance(node, tree.Call) and node.function in ("IF", "IFS", "AND", "OR", "SWITCH", "CHOOSE")
    for inner in part.parts:
        yield from _unguarded(inner, guards)
        if branching:
            guards |= tree.names_in(inner.node)


def _divisor(part: Typed) -> Typed | None:
    if isinstance(part.node, tree.Binary) and part.node.operator == "/":
        return part.parts[1]
    if isinstance(part.node, tree.Call) and part.node.function in _DIVIDING and len(part.parts) > 1:
        return part.parts[_DIVIDING[part.node.function]]
    return None


def _why_nothing(program: Program, name: str) -> str:
    whole, _, part = name.rpartition(".")
    if whole and program.layout.scope.entry(tuple(whole.lower().split("."))) is not None:
        return f"as it is asked now {whole} has no {part}"
    return "there is nothing of that name"


def _of_texts(program: Program) -> Iterator[Finding]:
    for owner, templates in program.texts.items():
        for setting, template in templates.items():
            for name, entry in template.entries.items():
                place = None if owner == FORM else owner
                if entry is None:
                    message = f"The text inserts {{{name}}}, and {_why_nothing(program, name)}."
                    yield error("unknown_name", message, "Correct the name, or double the braces.", place, setting)
                elif not entry.public:
                    message = f"The text inserts {{{name}}}, which visitors may not see; they read nothing there."
                    yield error("private_value", message, "Show the figure to visitors, or remove it.", place, setting)


def _of_wording(program: Program) -> Iterator[Finding]:
    for name, message in unknown_values(program.form.wording.messages):
        yield error("unknown_name", message, "Correct it in Brand, Words.", None, f"wording.messages.{name}")


def _of_circles(program: Program) -> Iterator[Finding]:
    for circle in program.circles:
        names = [name_of(program, owner) for owner in circle]
        if len(names) == 1:
            message = f"{names[0]} depends on itself."
        else:
            message = f"These depend on each other in a circle: {' → '.join([*names, names[0]])}."
        owner = None if circle[0] == FORM else circle[0]
        yield error("circle", message, "Take one of them out of the other's formula.", owner, "shown")
