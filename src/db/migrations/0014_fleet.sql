-- What else is known of a machine: its serial, where it stands, and its hours when somebody last looked.
ALTER TABLE machines ADD COLUMN IF NOT EXISTS serial VARCHAR(60) NULL;

ALTER TABLE machines ADD COLUMN IF NOT EXISTS place VARCHAR(120) NULL;

ALTER TABLE machines ADD COLUMN IF NOT EXISTS hours INT UNSIGNED NULL;

-- The re-test of a function that stands: the day that its last hand-over says, whatever earlier ones said. Kept up where a job is handed
-- over or opened again, so that a list of what is due reads no history.
ALTER TABLE jobs ADD COLUMN IF NOT EXISTS retest_due DATE NULL;

ALTER TABLE jobs ADD KEY IF NOT EXISTS jobs_retest_due (retest_due, id);

ALTER TABLE jobs ADD KEY IF NOT EXISTS jobs_function_closed (function_id, closed_at);

UPDATE jobs j
  JOIN (SELECT function_id, MAX(closed_at) AS last FROM jobs WHERE closed_at IS NOT NULL GROUP BY function_id) l
    ON l.function_id = j.function_id AND l.last = j.closed_at
  SET j.retest_due = j.retest_on WHERE j.retest_on IS NOT NULL;
