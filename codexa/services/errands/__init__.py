"""Errands: jobs that follow from no response, each noted with its tries and how it ended."""
