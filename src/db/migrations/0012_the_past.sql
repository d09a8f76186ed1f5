-- What jobs that were handed over left proved, place by place: what the shed follows over the years. Worked out with the job's digest, and
-- gone where the job was opened again. Keys are MD5 of words too long for an index.
CREATE TABLE IF NOT EXISTS proved_measures (
  job_id CHAR(36) CHARACTER SET ascii NOT NULL,
  place_key CHAR(32) CHARACTER SET ascii NOT NULL,
  type_key CHAR(32) CHARACTER SET ascii NOT NULL,
  function_id CHAR(36) CHARACTER SET ascii NOT NULL,
  kind VARCHAR(20) CHARACTER SET ascii NOT NULL,
  place VARCHAR(1000) NOT NULL,
  type VARCHAR(120) NULL,
  part VARCHAR(60) NULL,
  value DOUBLE NOT NULL,
  sigma DOUBLE NOT NULL,
  corrected TINYINT(1) NOT NULL,
  is_over TINYINT(1) NOT NULL,
  read_at DATETIME(3) NOT NULL,
  test JSON NULL,
  PRIMARY KEY (job_id, place_key),
  KEY proved_measures_place (function_id, place_key, read_at),
  KEY proved_measures_type (type_key, read_at),
  CONSTRAINT proved_measures_job_fk FOREIGN KEY (job_id) REFERENCES jobs (id) ON DELETE CASCADE
) ENGINE = InnoDB;

INSERT IGNORE INTO proved_measures (job_id, place_key, type_key, function_id, kind, place, type, part, value, sigma, corrected, is_over, read_at)
  SELECT w.job_id, MD5(CONCAT('winding|', w.part)), MD5(w.type), j.function_id, 'winding', CONCAT('winding|', w.part), w.type, w.part, w.ohms,
    w.ohms * IF(w.at_reference, 0.01, 0.06), w.at_reference, 0, j.closed_at
  FROM proved_windings w JOIN jobs j ON j.id = w.job_id WHERE j.closed_at IS NOT NULL;

DROP TABLE IF EXISTS proved_windings;

-- How a job that was handed over ended: what was wrong, and what the program had said before the work.
CREATE TABLE IF NOT EXISTS outcomes (
  job_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  function_id CHAR(36) CHARACTER SET ascii NOT NULL,
  type_key CHAR(32) CHARACTER SET ascii NOT NULL,
  part VARCHAR(60) NOT NULL,
  fault VARCHAR(60) CHARACTER SET ascii NULL,
  named VARCHAR(60) NULL,
  place VARCHAR(60) CHARACTER SET ascii NOT NULL,
  doubt JSON NOT NULL,
  minutes DOUBLE NOT NULL,
  closed_at DATETIME(3) NOT NULL,
  KEY outcomes_type (type_key, closed_at),
  KEY outcomes_closed (closed_at, job_id),
  KEY outcomes_function (function_id, closed_at),
  CONSTRAINT outcomes_job_fk FOREIGN KEY (job_id) REFERENCES jobs (id) ON DELETE CASCADE
) ENGINE = InnoDB;

-- How each place of each function moves, worked out when a job of it leaves something proved. `sort_on` is the day from which it may be at
-- its limit: those at it first, what is steady last.
CREATE TABLE IF NOT EXISTS trends (
  function_id CHAR(36) CHARACTER SET ascii NOT NULL,
  place_key CHAR(32) CHARACTER SET ascii NOT NULL,
  kind VARCHAR(20) CHARACTER SET ascii NOT NULL,
  place VARCHAR(1000) NOT NULL,
  part VARCHAR(60) NULL,
  state VARCHAR(10) CHARACTER SET ascii NOT NULL,
  sort_on DATE NOT NULL,
  last_on DATE NOT NULL,
  body JSON NOT NULL,
  PRIMARY KEY (function_id, place_key),
  KEY trends_sort (sort_on, function_id, place_key),
  CONSTRAINT trends_function_fk FOREIGN KEY (function_id) REFERENCES functions (id) ON DELETE CASCADE
) ENGINE = InnoDB;

-- Odds that the shed has learnt, as they stood from a moment on: a job is weighed by those that stood when it was opened.
CREATE TABLE IF NOT EXISTS learnt_odds (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  kept_at DATETIME(3) NOT NULL,
  jobs INT UNSIGNED NOT NULL,
  body JSON NOT NULL,
  KEY learnt_odds_kept (kept_at, id)
) ENGINE = InnoDB;

-- Closed jobs have to be looked at once more: what they proved was not kept before.
UPDATE jobs SET digest_number = NULL WHERE closed_at IS NOT NULL;
