"""Codexa: online forms whose logic is visible, exact and proven before it goes live."""

__version__ = "0.1.0"
