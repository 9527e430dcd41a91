"""A form's responses as a set: filtered, sorted, paged, searched, counted, moved, and looked at as views."""
