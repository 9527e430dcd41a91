"""All settings, read once from the environment; `docs/settings.md` lists them."""

import os
from collections.abc import Mapping
from dataclasses import dataclass, field, fields
from urllib.parse import urlsplit

import limits

DEFAULT_SECRET = "codexa-demo-secret-not-for-production"  # noqa: S105 - refused in production


_AT_LEAST_ONE = frozenset({"sign_in_attempts", "session_idle", "pool_size", "export_pool_size", "mails_per_hour"})
_WHOLE_NUMBERS = (
    *sorted(_AT_LEAST_ONE),
    *("smtp_port", "proxies", "upload_quota_network", "upload_quota_form", "least_free_disk"),
)


class SettingsError(Exception):
    """A setting in the environment is missing or wrong; the message names it and says what to do."""


def _setting(default: str, purpose: str) -> str:
    chosen: str = field(default=default, metadata={"purpose": purpose})
    return chosen


@dataclass(frozen=True, kw_only=True)
class Settings:
    """Every setting; the variable is the name in capitals with CODEXA_ before it."""

    mode: str = _setting("demo", "demo or production; production refuses unsafe defaults")
    database: str = _setting("postgresql://codexa@127.0.0.1:5480/codexa", "PostgreSQL address (libpq URI)")
    public_address: str = _setting(
        "http://127.0.0.1:8780", "where people reach Codexa; https makes cookies Secure; used in links and snippets"
    )
    secret_key: str = _setting(DEFAULT_SECRET, "at least 32 random characters; signs what leaves the server")
    proxies: str = _setting("0", "how many trusted proxies stand before the web server (X-Forwarded-For, -Proto)")
    sign_in_attempts: str = _setting("10", "wrong passwords for one person from one network before pauses that grow")
    files: str = _setting("var/files", "folder for what visitors upload; outside whatever a web server hands out")
    public_rate: str = _setting("600 per minute", "requests to public forms from one network")
    team_rate: str = _setting("1200 per minute", "requests to the workbench by one person")
    session_idle: str = _setting("120", "minutes without doing anything after which a person is signed out")
    upload_quota_network: str = _setting("1000", "megabytes from one network that may wait to be handed in")
    upload_quota_form: str = _setting("20000", "megabytes sent to one form that may wait to be handed in")
    least_free_disk: str = _setting("1000", "megabytes of the disk that uploads leave free")
    pool_size: str = _setting("8", "database connections per web process")
    export_pool_size: str = _setting("2", "further connections per web process, for exports that take long")
    smtp_host: str = _setting("127.0.0.1", "the mail server that takes what is sent")
    smtp_port: str = _setting("8725", "its port")
    smtp_tls: str = _setting("none", "none or starttls; what stands between here and a server elsewhere needs starttls")
    smtp_user: str = _setting("", "who signs in there; empty for nobody")
    smtp_password: str = _setting("", "with which password")
    mail_from: str = _setting("forms@alderlight.example.org", "the address that mail comes from")
    mails_per_hour: str = _setting("1000", "mails that one form may send within an hour; more of them wait")
    practice_bank: str = _setting("http://127.0.0.1:8792", "where the practice bank answers; its pages stand in frames")
    practice_calendar: str = _setting("http://127.0.0.1:8793", "where the practice calendar answers")
    hold_suspected: str = _setting(
        "yes", "yes or no: whether responses that look like a machine's are held for the team"
    )
    work_rate: str = _setting(
        "60 per minute", "responses from one network beyond which each costs its sender's computer some work"
    )
    practice_website: str = _setting(
        "http://127.0.0.1:8790", "where the practice website answers, for live pictures of embeds; empty for none"
    )
    practice_bank_key: str = _setting("practice-secret-tryouts-0815", "the secret key of payments for practice")
    account_keys: str = _setting(
        "", "texts that encrypt the keys of accounts, with commas between; the first encrypts; empty: the secret key"
    )
    side: str = _setting("all", "what a web process answers: all, workbench or public")

    @property
    def secure(self) -> bool:
        """Whether people reach Codexa through TLS."""
        return self.public_address.startswith("https://")

    @property
    def origin(self) -> str:
        """The public address as browsers send it in Origin."""
        parts = urlsplit(self.public_address)
        return f"{parts.scheme}://{parts.netloc}"


def read_settings(environment: Mapping[str, str] = os.environ) -> Settings:
    """Return the settings. Raises SettingsError where production would run with unsafe or unusable ones."""
    given = {
        each.name: environment[name]
        for each in fields(Settings)
        if (name := f"CODEXA_{each.name.upper()}") in environment
    }
    settings = Settings(**given)
    if settings.mode not in ("demo", "production"):
        raise SettingsError(f'CODEXA_MODE is "{settings.mode}"; set it to demo or production.')
    if settings.side not in ("all", "workbench", "public"):
        raise SettingsError(f'CODEXA_SIDE is "{settings.side}"; set it to all, workbench or public.')
    if settings.hold_suspected not in ("yes", "no"):
        raise SettingsError(f'CODEXA_HOLD_SUSPECTED is "{settings.hold_suspected}"; set it to yes or no.')
    if settings.smtp_tls not in ("none", "starttls"):
        raise SettingsError(f'CODEXA_SMTP_TLS is "{settings.smtp_tls}"; set it to none or starttls.')
    for name in _WHOLE_NUMBERS:
        text = getattr(settings, name)
        if not (text.isascii() and text.isdigit() and len(text) < 10) or (name in _AT_LEAST_ONE and int(text) == 0):
            raise SettingsError(f'CODEXA_{name.upper()} is "{text}"; set it to a whole number.')
    for name in ("public_rate", "team_rate", "work_rate"):
        _refuse_no_rate(name, getattr(settings, name))
    if settings.mode == "production":
        _refuse_unsafe(settings)
    return settings


def _refuse_no_rate(name: str, text: str) -> None:
    try:
        limits.parse(text)
    except ValueError:
        message = f'CODEXA_{name.upper()} is "{text}"; set it to a rate such as "600 per minute".'
        raise SettingsError(message) from None


def _refuse_unsafe(settings: Settings) -> None:
    if settings.secret_key == DEFAULT_SECRET or len(settings.secret_key) < 32:
        raise SettingsError(
            "CODEXA_SECRET_KEY is the default or shorter than 32 characters. Set it to a random text, "
            "such as the output of: python3 -c 'import secrets; print(secrets.token_urlsafe(48))'"
        )
    if not settings.secure:
        raise SettingsError("CODEXA_PUBLIC_ADDRESS must begin with https:// in production.")
