-- Whether a draft differs from what is live is seen by digests; no document is read for it. md5 tells changes, it guards nothing.
ALTER TABLE form ADD COLUMN draft_digest text GENERATED ALWAYS AS (md5(draft::text)) STORED;
ALTER TABLE edition ADD COLUMN digest text GENERATED ALWAYS AS (md5(definition::text)) STORED;

-- Why this version can't read a form, found out when the version was brought in; NULL where it can.
ALTER TABLE form ADD COLUMN unreadable text;
