-- Each entry has its number in its job, given under the job's row lock: who has seen up to a number has missed nothing.
-- An AUTO_INCREMENT is given before the commit, so that a late one could be skipped for good.
ALTER TABLE entries ADD COLUMN IF NOT EXISTS number INT UNSIGNED NULL;

ALTER TABLE entries ADD COLUMN IF NOT EXISTS received_at DATETIME(3) NULL;

-- How far the writer's clock stood from the server's when the entry was sent, milliseconds; NULL where it was not said.
ALTER TABLE entries ADD COLUMN IF NOT EXISTS skew_ms BIGINT NULL;

ALTER TABLE entries MODIFY COLUMN seq BIGINT UNSIGNED NULL;

UPDATE entries e
  JOIN (SELECT id, ROW_NUMBER() OVER (PARTITION BY job_id ORDER BY seq) AS place FROM entries) o ON o.id = e.id
  SET e.number = o.place WHERE e.number IS NULL;

UPDATE entries SET received_at = written_at WHERE received_at IS NULL;

ALTER TABLE entries MODIFY COLUMN number INT UNSIGNED NOT NULL;

ALTER TABLE entries MODIFY COLUMN received_at DATETIME(3) NOT NULL;

ALTER TABLE entries ADD UNIQUE KEY IF NOT EXISTS entries_number (job_id, number);

ALTER TABLE entries ADD KEY IF NOT EXISTS entries_type (job_id, type, number);

ALTER TABLE entries DROP KEY IF EXISTS entries_job;

ALTER TABLE jobs ADD COLUMN IF NOT EXISTS last_number INT UNSIGNED NOT NULL DEFAULT 0;

UPDATE jobs j SET last_number = COALESCE((SELECT MAX(e.number) FROM entries e WHERE e.job_id = j.id), 0);
