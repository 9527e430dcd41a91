"""The program of a form: its facts in the order in which they depend on each other, and what can be asked of them."""
