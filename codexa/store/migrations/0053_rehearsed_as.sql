-- As whom a rehearsal is filled in: NULL for whoever rehearses, 0 for a guest, else the number of a member's record.
ALTER TABLE team ADD COLUMN rehearsed_as bigint;
