"""What knows all of a form: its document as a whole, read from any format, from pasted text, compared, renamed in."""
