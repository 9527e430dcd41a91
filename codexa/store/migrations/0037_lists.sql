-- Lists of options that many forms share. Choices name the list that they have their options from, in the form's draft.
CREATE TABLE option_list (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    team_id uuid NOT NULL REFERENCES team ON DELETE CASCADE,
    name text NOT NULL,
    options jsonb NOT NULL,
    revision integer NOT NULL DEFAULT 1,
    changed_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX option_list_team ON option_list (team_id);
