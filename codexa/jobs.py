"""The worker: carries out jobs from the queue. Several may run; what a dead one had is given back to the others."""

import asyncio
import logging

from procrastinate import App, JobContext, PsycopgConnector, RetryStrategy

from codexa.services import digests, visits
from codexa.services.editions import Editions
from codexa.services.errands.asking import TASK as ERRAND_TASK
from codexa.services.errands.asking import ask
from codexa.services.errands.running import run_errand
from codexa.services.follow_ups.carrying_out import TASK, carry_out_all
from codexa.services.payments.reconciling import settle_open
from codexa.services.payments.settling import Way
from codexa.services.response_set import in_bulk
from codexa.settings import Settings, read_settings
from codexa.store.database import Database

CONCURRENCY = 4
_SILENT_SECONDS = 30  # without a sign of life a worker is taken for dead
_JOBS_KEPT_HOURS = 24 * 14
_MOST_ATTEMPTS = 1_000  # what counts its own tries ends far sooner; this ends what nobody thought of
# What is known to need another try keeps a job for it; one that fails for a reason nobody knew of is tried in a minute.
_UNFORESEEN = RetryStrategy(max_attempts=_MOST_ATTEMPTS, wait=60)


def make_app(settings: Settings) -> App:
    """Return the queue with its jobs, for these settings."""
    app = App(connector=PsycopgConnector(conninfo=settings.database, min_size=1, max_size=CONCURRENCY + 2))
    database = Database(settings.database, CONCURRENCY, statement_seconds=60)

    @app.task(name=TASK, retry=_UNFORESEEN)
    def run_follow_ups(runs: list[int]) -> None:
        carry_out_all(database.connection, settings, runs)

    @app.task(name=ERRAND_TASK, retry=_UNFORESEEN)
    def do_errand(errand: int) -> None:
        run_errand(database.connection, settings, errand)

    @app.periodic(cron="17 3 * * *")
    @app.task(name="tidy", queueing_lock="tidy", pass_context=True)
    async def tidy_daily(context: JobContext, timestamp: int) -> None:
        """Have tidied what nobody needs any more, jobs that have ended among it."""
        del timestamp  # which day it stands for does not matter
        await asyncio.to_thread(_ask_for_tidying, database)
        await context.app.job_manager.delete_old_jobs(nb_hours=_JOBS_KEPT_HOURS, include_failed=True)

    @app.periodic(cron="* * * * *")
    @app.task(name="give_back", queueing_lock="give_back", pass_context=True)
    async def give_back(context: JobContext, timestamp: int) -> None:
        """Give back what workers had that are gone."""
        del timestamp
        manager = context.app.job_manager
        for job in await manager.get_stalled_jobs(seconds_since_heartbeat=_SILENT_SECONDS):
            await manager.retry_job(job)

    way = Way(connect=database.connection, editions=Editions(database.connection), settings=settings)

    @app.periodic(cron="* * * * *")
    @app.task(name="settle_payments", queueing_lock="settle_payments", pass_context=True)
    async def settle_payments(context: JobContext, timestamp: int) -> None:
        """Look at the payments that nobody told us of, and let those expire whose time is over."""
        del context, timestamp
        await asyncio.to_thread(settle_open, way)

    @app.periodic(cron="0 5 * * *")
    @app.task(name="tell_digests", queueing_lock="tell_digests", pass_context=True)
    async def tell_digests(context: JobContext, timestamp: int) -> None:
        """Tell by mail what came in and what waits, whoever wants to be told today."""
        del context, timestamp
        await asyncio.to_thread(digests.ask_for_due, database.connection)

    @app.periodic(cron="7 * * * *")
    @app.task(name="count_visits", queueing_lock="count_visits", pass_context=True)
    async def count_visits(context: JobContext, timestamp: int) -> None:
        """Count the visits that began nearly a day ago, and forget them."""
        del context, timestamp
        await asyncio.to_thread(visits.count_over, database.connection)

    return app


def _ask_for_tidying(database: Database) -> None:
    with database.connection() as connection:
        ask(connection, "tidying up", {})
        ask(connection, "payments compared with the bank", {})
    in_bulk.ask_for_due(database.connection)


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
