"""The only place with SQL. Functions take a connection and plain values; the transaction is the caller's."""
