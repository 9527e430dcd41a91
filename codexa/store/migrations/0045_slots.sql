-- Slots: how many places each has in the live edition (NULL where nothing is planned), and whether the team has closed it.
ALTER TABLE claimable ADD COLUMN capacity bigint;
ALTER TABLE claimable ADD COLUMN closed boolean NOT NULL DEFAULT FALSE;

-- Of ten thousand slots few are taken.
CREATE INDEX claimable_taken ON claimable (form_id) WHERE taken > 0 OR closed OR capacity = 0;

-- What is waited for since then takes nothing yet; who waits longest is the first to get it.
ALTER TABLE claim ADD COLUMN waiting_since timestamptz;
CREATE INDEX claim_waiting ON claim (form_id, name, waiting_since) WHERE waiting_since IS NOT NULL AND released_at IS NULL;

-- Who has a slot is looked up by day.
CREATE INDEX claim_slots ON claim (form_id, name) WHERE name LIKE 'slot:%';

ALTER TABLE response ADD COLUMN booking text NOT NULL DEFAULT 'none'
    CHECK (booking IN ('none', 'booked', 'waiting', 'cancelled'));
