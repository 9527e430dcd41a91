"""Forms of any shape for property tests: fields of many types, rules on any of them, rows, figures, pages, endings.

Keys and codes begin with zq, ids never do: what holds one that is shown to visitors has told them something private.
"""

from hypothesis import strategies as some

from codexa.core.form.form import read_form
from codexa.core.program.compiling import compile_form
from codexa.core.program.proof import proof
from core.records import INSTRUMENTS

KINDS = (
    "number",
    "money",
    "single_choice",
    "several_choices",
    "short_text",
    "yes_no",
    "date",
    "rating",
    "slider",
    "product",
    "record_choice",
)
# What can be asked of an answer, by the type of its field; {} is its key.
CONDITIONS = {
    "number": ("{} > 3", "{} + 1 <= 10", "NOT(ISBLANK({}))"),
    "money": ("{} >= 12.50",),
    "single_choice": ('{} = "zqa"', '{} <> "zqb"', "{} > 0"),
    "several_choices": ('HAS({}, "zqb")', "{} >= 1.5"),
    "short_text": ('MENTIONS({}, "moon", "comet")', "LEN({}) > 4"),
    "yes_no": ("{}", "NOT({})"),
    "date": ("{} > DATE(2026, 6, 1)", "{} < TODAY() + 30"),
    "rating": ("{} >= 4",),
    "slider": ("{} < 20",),
    "product": ("{} >= 2",),
    "record_choice": ("{}.charge > 5", "ISBLANK({})", '{0}.site = "Hill Dome"', "AND({0}.heavy, {0}.charge < 20)"),
    "calculated": ("{} > 5", "{} / 0 > 1"),
    "figure": ("{} >= 1", "ISBLANK({})"),
}
# Of records: which are offered.
FILTERS = ("", "record.charge > 5", "record.site = zq0", "AND(record.heavy, zqtotal > 3)", "LEN(record.name) > 4")
# Of options: the second is not sold.
PRICES = ("4.50", None, "12")
# What can be calculated with; text is not.
NUMBERS = ("number", "money", "single_choice", "several_choices", "rating", "slider", "product")


def _field(kind, name):
    field = {"type": kind, "id": f"b{name}", "key": f"zq{name}", "label": f"Field {name}"}
    if kind in ("single_choice", "several_choices"):
        codes = enumerate(("zqa", "zqb", "zqc"))
        field["options"] = [
            {"id": f"o{name}{at}", "code": code, "label": f"Option {at}", "counts_as": str(at), "price": PRICES[at]}
            for at, code in codes
        ]
    if kind == "number":
        field["price"] = "0.35"
    if kind == "record_choice":
        field |= {"table": INSTRUMENTS.id, "shown_as": "{name}, {charge}", "ordered_by": "since"}
    if kind == "product":
        field |= {"price": "2.40", "stock": 9}
        if name != "0":  # the first has one price
            field["options"] = [{"id": f"o{name}1", "code": "zqa", "label": "Option", "price": "3", "stock": 2}]
    return field


@some.composite
def _conditions(draw, names):
    """A condition on one or two of the named things, or none."""
    if not names or draw(some.booleans()):
        return ""

    def one():
        kind, key = draw(some.sampled_from(names))
        return draw(some.sampled_from(CONDITIONS[kind])).format(key)

    return one() if draw(some.booleans()) else f"{draw(some.sampled_from(('AND', 'OR')))}({one()}, {one()})"


@some.composite
def _figures(draw, fields):
    numbers = [key for kind, key in fields if kind in NUMBERS] or ["0"]
    choices = [key.replace("zq", "b", 1) for kind, key in fields if kind == "single_choice"]
    total = " + ".join(draw(some.lists(some.sampled_from(numbers), min_size=1, max_size=4)))
    looks_at = draw(some.sampled_from([*numbers, "zqtotal", "zqfee"]))  # itself: a circle
    bands = [{"value": "4", "label": "Few"}, {"start": "5", "value": f"{total} - 1", "label": "Many"}]
    points = [{"field": field, "points": {"zqa": "1", "zqb": "-0.5"}} for field in choices]
    speaks = [{"field": field, "points": {"zqa": {"zqx": "1"}, "zqb": {"zqy": "2"}}} for field in choices]
    profiles = [{"code": "zqx", "label": "Owl"}, {"code": "zqy", "label": "Lark"}]
    counts = [{"when": draw(_conditions(fields)) or "TRUE", "by": "1.5"}]
    figures = [
        {"kind": "formula", "key": "zqtotal", "formula": total, "format": draw(some.sampled_from(["number", "money"]))},
        {"kind": "bands", "key": "zqfee", "formula": looks_at, "bands": bands, "format": "money"},
        {"kind": "score", "key": "zqscore", "questions": points},
        {"kind": "profile", "key": "zqfit", "profiles": profiles, "questions": speaks, "decimals": 1},
        {"kind": "counter", "key": "zqcount", "counts": counts},
    ]
    kept = draw(some.lists(some.sampled_from(figures), unique_by=lambda each: each["key"]))
    return [each | {"id": f"g{each['key'][2:]}", "name": f"zq {each['kind']}"} for each in kept]


@some.composite
def forms(draw, kinds=KINDS):
    """A form's document, with fields of these kinds."""
    offered = kinds
    kinds = draw(some.lists(some.sampled_from(offered), min_size=1, max_size=7))
    fields = [(kind, f"zq{at}") for at, kind in enumerate(kinds)]
    figures = draw(_figures(fields))
    names = [
        *fields,
        ("calculated", "zqcalc"),
        *(("figure", each["key"]) for each in figures if each["key"] != "zqfit"),
    ]
    blocks = []
    for at, kind in enumerate(kinds):
        rules = {rule: draw(_conditions(names)) for rule in ("shown", "required", "locked")}
        if kind in ("number", "money"):
            rules["default"] = draw(some.sampled_from(("", "3", "zqtotal", "zq0")))
        field = _field(kind, str(at)) | rules | {"part": draw(some.sampled_from(("", "", "", "review")))}
        if kind == "record_choice":
            field["look"] = draw(some.sampled_from(("list", "dropdown", "search")))
            field["fitting"] = draw(some.sampled_from(FILTERS))
            field["several"] = draw(some.booleans())
        if kind == "single_choice":
            field["options"][0] |= {rule: draw(_conditions(names)) for rule in ("shown", "locked")}
            field["offered"] = draw(some.sampled_from(("", "option.counts_as < zqtotal")))
        blocks.append(field)
    inside = _field(draw(some.sampled_from(offered)), "row") | {"part": draw(some.sampled_from(("", "review")))}
    rows = {"id": "krow", "key": "zqkind", "label": "Row", "blocks": [inside]}
    more = [
        {"type": "calculated", "id": "bcalc", "key": "zqcalc", "label": "About {zq0}", "formula": '"About " & zqtotal'},
        {"type": "group", "id": "bgroup", "key": "zqgroup", "label": "Group", "shown": draw(_conditions(names))},
        {"type": "repeat", "id": "brows", "key": "zqrows", "label": "Rows", "kinds": [rows], "max_rows": 3},
        {"type": "text", "id": "btext", "key": "zqtext", "text": "<p>{zq0} and {zqtotal} and {order.total}</p>"},
        {"type": "order_summary", "id": "border", "key": "zqsummary", "label": "Your order"},
        {"type": "all_answers", "id": "banswers", "key": "zqanswers", "label": "Your answers"},
    ]
    more[0]["format"] = "text"
    held = draw(some.integers(0, len(blocks)))
    more[1]["blocks"] = blocks[held:]
    laid = [*blocks[:held], *draw(some.permutations(more))]
    split = draw(some.integers(0, len(laid)))
    jump = draw(_conditions(names))
    pages = [
        {"id": "p1", "title": "One", "blocks": laid[:split]},
        {"id": "p2", "title": "Two", "blocks": laid[split:], "shown": draw(_conditions(fields))},
        {"id": "p3", "title": "Three"},
    ]
    if jump:
        pages[0]["next"] = [{"when": jump, "to": draw(some.sampled_from(["p3", ""]))}]
    ending = {"id": "e1", "name": "zq ending", "title": "Thanks for {zq0}", "when": draw(_conditions(names))}
    discount = {"id": "d1", "name": "Friends", "when": draw(_conditions(names)), "percent": "12.5"}
    order = {
        "discounts": [discount, {"id": "d2", "name": "Many", "amount": draw(some.sampled_from(("3", "zqtotal")))}],
        "shipping": draw(some.sampled_from(("", "order.subtotal / 7", "zqtotal / 0"))),
        "taxes": [{"id": "t1", "percent": "19", "included": draw(some.booleans())}],
    }
    tables = [INSTRUMENTS.known] if "record_choice" in offered else []
    whole = {
        "name": "zq form",
        "tables": tables,
        "title": "Any form",
        "pages": pages,
        "figures": figures,
        "parts": [{"id": "review", "name": "zq review", "groups": ["zq"], "seen": draw(some.booleans())}],
        "confirmations": [ending],
    }
    return whole | {"order": order, "presentation": draw(some.sampled_from(("whole", "paged", "single", "chat")))}


def provable_forms():
    """Documents of forms without what the proof refuses: it is left out, setting by setting, or part by part.

    They choose no records: a database has the tables of a team, and these are in memory.
    """
    return forms(kinds=KINDS[:-1]).map(_mended)


def _mended(document):
    for _ in range(30):
        wrong = [each for each in proof(compile_form(read_form(document))) if each.severity == "error"]
        if not wrong:
            return document
        for each in wrong:
            _leave_out(document, each)
    raise AssertionError(wrong)


def _leave_out(document, finding):
    if finding.code == "no_fields":
        document["pages"][0].setdefault("blocks", []).append(_field("number", "spare"))
        return
    parts = list(_parts(document, []))
    holder, part = next(((holder, part) for holder, part in parts if part.get("id") == finding.block), (None, document))
    name, *rest = (finding.setting or "").split(".")
    if part.get(name) and not rest and name not in ("formula", "text", "label", "options", "questions"):
        part[name] = "TRUE" if part is not document and name == "when" else ""
    elif holder is not None and part in holder:
        holder.remove(part)
    else:
        document.pop("order", None)
        document["confirmations"] = []


def _parts(part, holder):
    if isinstance(part, dict):
        yield holder, part
        for inner in part.values():
            yield from _parts(inner, inner)
    elif isinstance(part, list):
        for inner in part:
            yield from _parts(inner, part)
