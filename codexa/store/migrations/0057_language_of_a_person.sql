-- The language in which Codexa writes to somebody of a team (ISO 639-1).

ALTER TABLE person ADD COLUMN language text NOT NULL DEFAULT 'en';
