-- Hours of its machine as they were known when a job was opened: old machines break otherwise, and a job is weighed by what was known then.
ALTER TABLE jobs ADD COLUMN IF NOT EXISTS machine_hours INT UNSIGNED NULL;
