-- What the shed shows of a job, worked out when its log changes. It stands for the log up to `digest_number`; the round
-- is counted up where something outside the log changes what it says: the policy, a drawing that is joined.
ALTER TABLE jobs ADD COLUMN IF NOT EXISTS digest JSON NULL;

ALTER TABLE jobs ADD COLUMN IF NOT EXISTS digest_number INT UNSIGNED NULL;

ALTER TABLE jobs ADD COLUMN IF NOT EXISTS digest_round INT UNSIGNED NOT NULL DEFAULT 0;

-- Guards of the machine that are out of action as this job left them.
ALTER TABLE jobs ADD COLUMN IF NOT EXISTS defects SMALLINT UNSIGNED NOT NULL DEFAULT 0;

ALTER TABLE jobs ADD KEY IF NOT EXISTS jobs_defects (defects, function_id);
