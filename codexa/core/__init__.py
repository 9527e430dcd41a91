"""What a form is and what it computes.

Pure: no interface, no SQL, no clock, no network. `docs/architecture.md` tells how the parts fit.
"""
