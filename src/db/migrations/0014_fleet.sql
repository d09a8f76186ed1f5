-- What else is known of a machine: its serial, where it stands, and its hours when somebody last looked.
ALTER TABLE machines ADD COLUMN IF NOT EXISTS serial VARCHAR(60) NULL;

ALTER TABLE machines ADD COLUMN IF NOT EXISTS place VARCHAR(120) NULL;

ALTER TABLE machines ADD COLUMN IF NOT EXISTS hours INT UNSIGNED NULL;

-- Whether a function was handed over again later is asked for every re-test that stands.
ALTER TABLE jobs ADD KEY IF NOT EXISTS jobs_function_closed (function_id, closed_at);
