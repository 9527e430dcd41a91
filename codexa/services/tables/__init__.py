"""Tables of the team's data: their columns, their records, and what is brought in and taken out."""
