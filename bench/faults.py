"""Forms with one fault each, and the same forms without it: how many the proof finds, and what it says for nothing.

The cases in tests/cases/faults are written shortly: a block as [type, key, settings], its id being its key; options as
codes, or codes with what they count as; `wrong` are the settings, by owner and path, that make the form faulty.
"""

import json
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from bench.measuring import report
from codexa.core.errors import DefinitionError
from codexa.core.form.form import read_form
from codexa.core.program.compiling import compile_form
from codexa.core.program.findings import Finding
from codexa.core.program.proof import proof

FOLDER = Path(__file__).parents[1] / "tests" / "cases" / "faults"
_WITHOUT_LABEL = ("heading", "text", "divider", "picture")


@dataclass(frozen=True, kw_only=True)
class Case:
    """A form, the same with a fault, and the code of the finding that tells of it ("refused": it can't be read)."""

    fault: str
    finds: str
    right: dict[str, Any]
    wrong: dict[str, Any]


def cases() -> Iterator[Case]:
    """Yield all cases, file by file."""
    for file in sorted(FOLDER.glob("*.json")):
        for case in json.loads(file.read_text(encoding="utf-8")):
            right = _form(case["form"])
            wrong = json.loads(json.dumps(right))
            for path, value in case["wrong"].items():
                _put(wrong, path, value)
            yield Case(fault=case["fault"], finds=case["finds"], right=right, wrong=wrong)


def _form(short: dict[str, Any]) -> dict[str, Any]:
    pages = short.get("pages") or [{"id": "one", "title": "One", "blocks": short["blocks"]}]
    rest = {name: value for name, value in short.items() if name not in ("blocks", "pages")}
    filled = [page | {"blocks": list(map(_block, page["blocks"]))} for page in pages]
    return {"name": "Case", "title": "A visit to the hill", "pages": filled} | rest


def _block(short: list[Any]) -> dict[str, Any]:
    kind, key, settings = (*short, {})[:3]
    label = {} if kind in _WITHOUT_LABEL else {"label": key.replace("_", " ").capitalize()}
    block: dict[str, Any] = {"id": key.replace("_", ""), "type": kind, "key": key} | label | settings
    if "options" in settings:
        block["options"] = [_option(key, option) for option in settings["options"]]
    if "blocks" in settings:
        block["blocks"] = list(map(_block, settings["blocks"]))
    if "kinds" in settings and kind == "repeat":
        block["kinds"] = [each | {"blocks": list(map(_block, each["blocks"]))} for each in settings["kinds"]]
    return block


def _option(key: str, option: Any) -> dict[str, Any]:
    settings = {"code": option} if isinstance(option, str) else option
    code = settings["code"]
    return {"id": f"{key}{code}".replace("_", ""), "label": code.capitalize()} | settings


def _put(form: dict[str, Any], path: str, value: Any) -> None:
    """Set what stands at "owner.setting" ("form" is the form itself); a setting that is null is taken out."""
    owner, *steps = path.split(".")
    part = form if owner == "form" else _owned(form, owner)
    for step in steps[:-1]:
        part = part[int(step)] if isinstance(part, list) else part[step]
    last = steps[-1]
    if isinstance(part, list):
        if value is None:
            del part[int(last)]
        else:
            part[int(last)] = value
    elif value is None:
        part.pop(last)
    else:
        part[last] = [_block(each) for each in value] if last == "blocks" else value


def _owned(part: Any, owner: str) -> Any:
    if isinstance(part, dict) and part.get("id") == owner:
        return part
    inner = part.values() if isinstance(part, dict) else part if isinstance(part, list) else ()
    return next((found for each in inner if (found := _owned(each, owner)) is not None), None)


def findings_of(document: dict[str, Any]) -> tuple[Finding, ...] | None:
    """Return what the proof says of a form; None where it can't be read at all."""
    try:
        form = read_form(document)
    except DefinitionError:
        return None
    return proof(compile_form(form))


def is_found(case: Case) -> bool:
    """Say whether the fault is told by the finding that is meant for it."""
    findings = findings_of(case.wrong)
    if findings is None:
        return case.finds == "refused"
    return any(each.code == case.finds for each in findings)


def run() -> bool:
    """Print how many faults are found, and how many right forms are doubted."""
    known = list(cases())
    missed = [case.fault for case in known if not is_found(case)]
    alarms = [case.fault for case in known if findings_of(case.right) != ()]
    for fault in missed:
        print(f"  not found: {fault}")
    for fault in alarms:
        print(f"  said for nothing, without the fault: {fault}")
    found = report("faults_found", 1 - len(missed) / len(known), f"of {len(known)}", 0.95)
    return report("right_forms_doubted", len(alarms), f"of {len(known)}", 0, at_least=False) and found
