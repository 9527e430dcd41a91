"""Members of a team: those who fill in and have an account."""
