"""The form that the engine is measured with: fields, rules and figures in the proportions of a large real one."""

from typing import Any

from codexa.core.form.form import Form, read_form


def large_form(fields: int = 200, *, rows: bool = True) -> Form:
    """Return a form of that many fields, half as many rules, and three figures to ten fields; with a repeat or not."""
    blocks = [_field(index) for index in range(fields)]
    pages: list[dict[str, Any]] = [
        {"id": f"p{start}", "title": f"Part {start // 20 + 1}", "blocks": blocks[start : start + 20]}
        for start in range(0, fields, 20)
    ]
    figures = [_figure(index, fields) for index in range(fields * 3 // 10)]
    if rows:
        pages[-1]["blocks"].append(_REPEAT)
        figures.append(_formula("nights", "SUM(lines.cost)"))
    return read_form({"name": "Large form", "title": "Large form", "pages": pages, "figures": figures})


def answers_for(fields: int = 200, rows: int = 50) -> dict[str, Any]:
    """Return answers to such a form."""
    kinds = [str(3 + index % 40) if index % 4 != 1 else f"o{index % 3}" for index in range(fields)]
    answers: dict[str, Any] = {f"f{index}": "a note" if index % 4 == 3 else kind for index, kind in enumerate(kinds)}
    if rows:
        answers["lines"] = [
            {
                "kind": "k",
                "id": f"r{index}",
                "values": {"lhours": str(1 + index % 7), "lrate": "12.50", "lwhat": "dome"},
            }
            for index in range(rows)
        ]
    return answers


_OPTIONS = [{"id": f"o{at}", "code": f"c{at}", "label": f"Choice {at}", "counts_as": str(at * 5)} for at in range(3)]

_REPEAT: dict[str, Any] = {
    "id": "lines",
    "type": "repeat",
    "key": "lines",
    "label": "Lines",
    "max_rows": 100,
    "kinds": [
        {
            "id": "k",
            "key": "hire",
            "label": "Hire",
            "blocks": [
                {"id": "lwhat", "type": "short_text", "key": "what", "label": "What"},
                {"id": "lhours", "type": "number", "key": "hours", "label": "Hours", "minimum": "0", "maximum": "24"},
                {"id": "lrate", "type": "money", "key": "rate", "label": "Rate"},
                {
                    "id": "lcost",
                    "type": "calculated",
                    "key": "cost",
                    "label": "Cost",
                    "format": "money",
                    "formula": "hours * rate",
                },
            ],
        }
    ],
}


def _field(index: int) -> dict[str, Any]:
    block: dict[str, Any] = {"id": f"f{index}", "key": f"f{index}", "label": f"Field {index}"}
    match index % 4:
        case 0 | 2:
            block |= {"type": "number", "minimum": "0", "maximum": "60"}
        case 1:
            block |= {"type": "single_choice", "options": _OPTIONS}
        case _:
            block |= {"type": "short_text"}
    if index % 2 and index > 1:
        start = (index - 1) // 20 * 20
        block["shown"] = f"f{start} > 2" if index % 4 == 3 else f"AND(f{start} > 2, f{start + 2} < 50)"
    return block


def _formula(key: str, formula: str) -> dict[str, Any]:
    return {
        "id": f"g{key}",
        "key": key,
        "kind": "formula",
        "format": "money",
        "formula": formula,
    }


def _figure(index: int, fields: int) -> dict[str, Any]:
    first, second, third = index * 4 % fields, index % (fields // 4) * 4 + 1, index * 8 % fields
    match index % 4:
        case 0:
            return _formula(f"s{index}", f"f{first} * 12 + f{third} * IF(f{third} >= 10, 90%, 1)")
        case 1:
            return _formula(f"s{index}", f"f{second} * f{first} + 5")
        case 2:
            bands = [{"value": "10", "label": "few"}, {"start": "5", "value": "8"}, {"start": "20", "value": "6.5"}]
            return {
                "id": f"gs{index}",
                "key": f"s{index}",
                "kind": "bands",
                "formula": f"f{first} + f{third}",
                "bands": bands,
            }
        case _:
            return _formula(f"s{index}", f"ROUND(s{index - 1} * f{first} + s{index - 2}, 2) - s{index - 3} / 4")
