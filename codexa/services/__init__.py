"""Use cases that join the core and the store. Each takes a connection; the transaction is the caller's."""
