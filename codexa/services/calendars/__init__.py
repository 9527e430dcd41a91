"""Calendars of other systems: those of a team, and the entries that follow-ups keep there."""
