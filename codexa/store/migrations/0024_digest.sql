-- How often somebody of a team is told by mail of what came in and what waits for a person.
ALTER TABLE membership
    ADD COLUMN digest text NOT NULL DEFAULT 'none' CHECK (digest IN ('none', 'daily', 'weekly')),
    ADD COLUMN digest_until timestamptz;
CREATE INDEX response_in_hand ON response (person_id, form_id) WHERE person_id IS NOT NULL;
