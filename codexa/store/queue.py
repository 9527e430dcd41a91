"""The job queue: a job is written in the transaction of what it follows from (procrastinate, on our PostgreSQL)."""

import datetime
from typing import Any

from procrastinate import App, PsycopgConnector

from codexa.store.database import Connection

# Never opened: it writes jobs on the connections that it is given. Workers have one of their own.
_WRITER = App(connector=PsycopgConnector())


def defer(connection: Connection, task: str, *jobs: dict[str, Any], at: datetime.datetime | None = None) -> None:
    """Write jobs for a worker, one for each set of arguments; they are there once the transaction is kept.

    They are carried out at once, or not before `at`.
    """
    _WRITER.configure_task(task, connection=connection, schedule_at=at).batch_defer(*jobs)
