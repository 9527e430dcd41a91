"""Parts of forms that only a group changes: with whom a response stands, and where it goes."""
