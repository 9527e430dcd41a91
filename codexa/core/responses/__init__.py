"""Responses as a set: what a column of it holds, and the conditions that choose some of it."""
