"""Payments: accounts with providers, asking for money, what becomes of it, giving it back."""
