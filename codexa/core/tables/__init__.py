"""Tables of the team's data: what their columns are, and what a record must be."""
