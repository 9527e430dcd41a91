"""The practice mailbox: takes any mail by SMTP and shows it, so that nothing that is tried leaves the machine."""
