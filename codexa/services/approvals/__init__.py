"""Approvals: asking, deciding, and what follows from it."""
