-- Visits to forms of the last day: how far each has come. Nothing here says who it was; what is older is only counted.
-- `told_at` is when it was last heard of, `turn` counts what it told. `place` is the step where the visitor is, `field`
-- the one that they were at last; `steps` has for each step that was reached the class of how long it took, `wrong`
-- the fields where something was wrong; `took` is the class of the whole time, of a visit that ended in sending.
CREATE TABLE visit (
    id uuid PRIMARY KEY,
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    day date NOT NULL,
    edition integer NOT NULL,
    presentation text NOT NULL,
    way text NOT NULL,
    page text NOT NULL,
    link text NOT NULL,
    width text NOT NULL,
    seen_at timestamptz NOT NULL,
    told_at timestamptz NOT NULL,
    turn integer NOT NULL,
    started boolean NOT NULL,
    sent boolean NOT NULL,
    place text NOT NULL,
    field text NOT NULL,
    steps jsonb NOT NULL,
    wrong text[] NOT NULL,
    took smallint
);
CREATE INDEX visit_form ON visit (form_id);
CREATE INDEX visit_seen ON visit (seen_at);

-- Visits of a day that have all of this in common, counted.
CREATE TABLE visit_slice (
    id bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY,
    form_id uuid NOT NULL REFERENCES form ON DELETE CASCADE,
    day date NOT NULL,
    edition integer NOT NULL,
    presentation text NOT NULL,
    way text NOT NULL,
    page text NOT NULL,
    link text NOT NULL,
    width text NOT NULL,
    seen integer NOT NULL,
    started integer NOT NULL,
    sent integer NOT NULL,
    UNIQUE (form_id, day, edition, presentation, way, page, link, width)
);

-- What was counted of them: how many reached a step (by the class of its time), left at a step, left at a field, met
-- something wrong at a field, and sent (by the class of the whole time).
CREATE TABLE visit_count (
    slice_id bigint NOT NULL REFERENCES visit_slice ON DELETE CASCADE,
    what text NOT NULL CHECK (what IN ('reached', 'left', 'left_at', 'wrong', 'took')),
    part text NOT NULL,
    bucket smallint NOT NULL,
    number integer NOT NULL,
    PRIMARY KEY (slice_id, what, part, bucket)
);

-- What counts of a visit. Whoever was silent for half an hour has left.
CREATE VIEW visit_fact AS
SELECT visit.id, 'reached' AS what, step.key AS part, step.value::smallint AS bucket
FROM visit, jsonb_each_text(visit.steps) AS step
UNION ALL
SELECT id, 'wrong', unnest(wrong), 0 FROM visit
UNION ALL
SELECT id, 'left', place, 0 FROM visit WHERE NOT sent AND place <> '' AND told_at < now() - interval '30 minutes'
UNION ALL
SELECT id, 'left_at', field, 0 FROM visit WHERE NOT sent AND field <> '' AND told_at < now() - interval '30 minutes'
UNION ALL
SELECT id, 'took', '', took FROM visit WHERE sent AND took IS NOT NULL;
