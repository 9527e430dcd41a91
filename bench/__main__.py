"""Runs the benchmarks that are named, or all of them."""

import sys

from bench import (
    bookings,
    desk,
    embeds,
    evaluate,
    evaluate_request,
    export,
    faults,
    formulas,
    funnel,
    hostile,
    kills,
    lighthouse,
    mails,
    page_weight,
    payments,
    publishing,
    responses,
    submit,
    tables,
    workbench,
)

_BENCHMARKS = {
    "bookings": bookings.run,
    "desk": desk.run,
    "formulas": formulas.run,
    "funnel": funnel.run,
    "faults": faults.run,
    "evaluate": evaluate.run,
    "embeds": embeds.run,
    "evaluate_request": evaluate_request.run,
    "export": export.run,
    "page_weight": page_weight.run,
    "workbench": workbench.run,
    "hostile": hostile.run,
    "kills": kills.run,
    "lighthouse": lighthouse.run,
    "mails": mails.run,
    "payments": payments.run,
    "publishing": publishing.run,
    "responses": responses.run,
    "submit": submit.run,
    "tables": tables.run,
}


def main(names: list[str]) -> int:
    """Run benchmarks; returns 0 where every target is met, 1 where one is not, 2 for an unknown name."""
    unknown = [name for name in names if name not in _BENCHMARKS]
    if unknown:
        print(f"There is no benchmark {unknown[0]}. There are: {', '.join(_BENCHMARKS)}.")
        return 2
    results = [_BENCHMARKS[name]() for name in names or _BENCHMARKS]
    return 0 if all(results) else 1


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
