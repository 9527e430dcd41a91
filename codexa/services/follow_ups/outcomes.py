"""How sending can end."""


class TryLaterError(Exception):
    """It did not work now and may work later; the message says why, for the team."""


class NeverError(Exception):
    """It can't work, however often it is tried; the message says why, for the team."""
