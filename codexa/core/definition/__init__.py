"""The form as data: the models of its JSON document, and what can be read off it without computing."""
