"""The practice calendar: a CalDAV server with a week to look at."""
