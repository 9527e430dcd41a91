-- The address under which a form's bookings are a calendar: which of them holds, 0 for none.
ALTER TABLE form ADD COLUMN calendar_turn integer NOT NULL DEFAULT 0;
ALTER TABLE form ADD COLUMN calendar_open boolean NOT NULL DEFAULT FALSE;
