-- When a job that was handed over is to be looked at again, as its hand-over says.
ALTER TABLE jobs ADD COLUMN IF NOT EXISTS retest_on DATE NULL;

ALTER TABLE jobs ADD KEY IF NOT EXISTS jobs_retest (retest_on, id);

UPDATE jobs j
  JOIN entries e ON e.job_id = j.id AND e.type = 'handOver' AND e.number = (
    SELECT MAX(l.number) FROM entries l WHERE l.job_id = j.id AND l.type = 'handOver'
  )
  SET j.retest_on = CAST(JSON_VALUE(e.body, '$.retest') AS DATE)
  WHERE j.closed_at IS NOT NULL AND j.retest_on IS NULL;
