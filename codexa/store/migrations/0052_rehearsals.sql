-- Rehearsals: a form tried the whole way by one person, in a team of its own that nobody else sees. It has the people,
-- tables and groups of the form's own team, and goes with it, or in one press.
ALTER TABLE team
    ADD COLUMN rehearsal_of uuid REFERENCES form ON DELETE CASCADE,
    ADD COLUMN rehearsed_by uuid REFERENCES person ON DELETE CASCADE,
    ADD COLUMN rehearsed_days integer NOT NULL DEFAULT 0;
CREATE UNIQUE INDEX team_rehearsal ON team (rehearsal_of, rehearsed_by);

-- The team whose people, tables and groups a form works with.
CREATE FUNCTION home_team(of_form uuid) RETURNS uuid LANGUAGE sql STABLE AS $$
    SELECT coalesce(original.team_id, form.team_id)
    FROM form JOIN team ON team.id = form.team_id LEFT JOIN form AS original ON original.id = team.rehearsal_of
    WHERE form.id = of_form
$$;
