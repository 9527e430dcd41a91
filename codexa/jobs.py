"""The worker: carries out jobs from the queue. Several may run; what a dead one had is given back to the others."""

import asyncio
import logging
import secrets
from pathlib import Path
from typing import Any

from procrastinate import App, BaseRetryStrategy, JobContext, PsycopgConnector, RetryDecision
from procrastinate.jobs import Job

from codexa.services.follow_ups import mailing
from codexa.services.follow_ups.carrying_out import Waits, carry_out
from codexa.services.follow_ups.keeping import TASK
from codexa.services.follow_ups.trying_out import TRY_TASK
from codexa.services.tidying import tidy
from codexa.settings import Settings, read_settings
from codexa.store.database import Database

CONCURRENCY = 4
_SILENT_SECONDS = 30  # without a sign of life a worker is taken for dead
_MOST_ATTEMPTS = 1_000  # a run counts its own tries; this ends what nobody thought of
_LOG = logging.getLogger("codexa.jobs")


class _TryAgainError(Exception):
    """Carries how long to wait from a job to what decides on its next try."""

    def __init__(self, seconds: int) -> None:
        super().__init__(f"again in {seconds} s")
        self.seconds = seconds


class _AsItSays(BaseRetryStrategy):
    """A job that asks for another try gets it; one that fails for a reason nobody knew of is tried in a minute."""

    def get_retry_decision(self, *, exception: BaseException, job: Job) -> RetryDecision | None:
        seconds = exception.seconds if isinstance(exception, _TryAgainError) else 60
        return None if job.attempts > _MOST_ATTEMPTS else RetryDecision(retry_in={"seconds": seconds})


def make_app(settings: Settings) -> App:
    """Return the queue with its jobs, for these settings."""
    app = App(connector=PsycopgConnector(conninfo=settings.database, min_size=1, max_size=CONCURRENCY + 2))
    database = Database(settings.database, CONCURRENCY, statement_seconds=60)

    @app.task(name=TASK, retry=_AsItSays())
    def run_follow_up(run: int) -> None:
        waits = carry_out(database.connection, settings, run)
        if isinstance(waits, Waits):
            raise _TryAgainError(waits.seconds)

    @app.task(name=TRY_TASK)
    def send_try(form: str, content: dict[str, Any]) -> None:
        mailing.send(content, key=f"try.{form}.{secrets.token_hex(8)}", settings=settings)

    @app.periodic(cron="17 3 * * *")
    @app.task(name="tidy", queueing_lock="tidy")
    def tidy_daily(timestamp: int) -> None:
        del timestamp  # which day it stands for does not matter
        with database.connection() as connection:
            done = tidy(connection, Path(settings.files))
        _LOG.info("tidied: %s uploads, %s states, %s pictures", done.uploads, done.states, done.pictures)

    @app.periodic(cron="* * * * *")
    @app.task(name="give_back", queueing_lock="give_back", pass_context=True)
    async def give_back(context: JobContext, timestamp: int) -> None:
        """Give back what workers had that are gone."""
        del timestamp
        manager = context.app.job_manager
        for job in await manager.get_stalled_jobs(seconds_since_heartbeat=_SILENT_SECONDS):
            await manager.retry_job(job)

    return app


def main() -> None:
    """Work until a signal ends it."""
    logging.basicConfig(level=logging.INFO, format="%(asctime)s %(name)s %(levelname)s %(message)s")
    logging.getLogger("procrastinate").setLevel(logging.WARNING)
    app = make_app(read_settings())

    async def work() -> None:
        async with app.open_async():
            await app.run_worker_async(concurrency=CONCURRENCY, fetch_job_polling_interval=2.0)

    asyncio.run(work())


if __name__ == "__main__":
    main()
