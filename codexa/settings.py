"""All settings, read once from the environment; `docs/settings.md` lists them."""

import os
from collections.abc import Mapping
from dataclasses import dataclass, field, fields
from urllib.parse import urlsplit

DEFAULT_SECRET = "codexa-demo-secret-not-for-production"  # noqa: S105 - refused in production


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
    sign_in_attempts: str = _setting("10", "wrong passwords for one e-mail or address within 15 minutes before a pause")
    files: str = _setting("var/files", "folder for what visitors upload; outside whatever a web server hands out")
    public_rate: str = _setting("600 per minute", "requests to public forms from one address, per web process")
    pool_size: str = _setting("8", "database connections per web process")

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
    for name in ("proxies", "sign_in_attempts", "pool_size"):
        if not getattr(settings, name).isdigit():
            raise SettingsError(f'CODEXA_{name.upper()} is "{getattr(settings, name)}"; set it to a whole number.')
    if settings.mode == "production":
        _refuse_unsafe(settings)
    return settings


def _refuse_unsafe(settings: Settings) -> None:
    if settings.secret_key == DEFAULT_SECRET or len(settings.secret_key) < 32:
        raise SettingsError(
            "CODEXA_SECRET_KEY is the default or shorter than 32 characters. Set it to a random text, "
            "such as the output of: python3 -c 'import secrets; print(secrets.token_urlsafe(48))'"
        )
    if not settings.secure:
        raise SettingsError("CODEXA_PUBLIC_ADDRESS must begin with https:// in production.")
