"""Texts that only the keys of the settings make readable: keys of accounts, and what signs links."""

import base64
import hashlib

from cryptography.fernet import Fernet, InvalidToken, MultiFernet

from codexa.settings import Settings


def encrypted(secret: str, settings: Settings) -> bytes:
    """Return what only the keys of the settings make readable."""
    return _fernet(settings).encrypt(secret.encode())


def decrypted(secret: bytes, settings: Settings) -> str | None:
    """Return what was encrypted with one of the keys of the settings; None where it was with another."""
    try:
        return _fernet(settings).decrypt(secret).decode()
    except InvalidToken:
        return None


def _fernet(settings: Settings) -> MultiFernet:
    """Return what encrypts with the first key and decrypts with any."""
    texts = [each.strip() for each in settings.account_keys.split(",") if each.strip()] or [settings.secret_key]
    keys = [base64.urlsafe_b64encode(hashlib.sha256(f"accounts {each}".encode()).digest()) for each in texts]
    return MultiFernet([Fernet(key) for key in keys])
