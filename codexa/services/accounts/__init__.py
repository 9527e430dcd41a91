"""A person's own account: the password forgotten or changed, the address changed, and the mails that tell of it."""
