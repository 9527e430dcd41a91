"""The practice website: a small site of the observatory on an origin of its own."""
