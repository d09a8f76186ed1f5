-- Machines, the functions they have, jobs, and each job's append-only log.
CREATE TABLE IF NOT EXISTS machines (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  code VARCHAR(20) NOT NULL,
  name VARCHAR(120) NOT NULL,
  UNIQUE KEY machines_code (code)
) ENGINE = InnoDB;

CREATE TABLE IF NOT EXISTS functions (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  machine_id CHAR(36) CHARACTER SET ascii NOT NULL,
  name VARCHAR(160) NOT NULL,
  circuit JSON NOT NULL,
  KEY functions_machine (machine_id, name),
  CONSTRAINT functions_machine_fk FOREIGN KEY (machine_id) REFERENCES machines (id)
) ENGINE = InnoDB;

CREATE TABLE IF NOT EXISTS jobs (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  number INT UNSIGNED NOT NULL,
  function_id CHAR(36) CHARACTER SET ascii NOT NULL,
  title VARCHAR(200) NOT NULL,
  person VARCHAR(60) NULL,
  opened_at DATETIME(3) NOT NULL,
  closed_at DATETIME(3) NULL,
  UNIQUE KEY jobs_number (number),
  KEY jobs_open (closed_at, opened_at, id),
  CONSTRAINT jobs_function_fk FOREIGN KEY (function_id) REFERENCES functions (id)
) ENGINE = InnoDB;

-- Rows are only ever added. `seq` is the order of arrival; `id` is made by whoever wrote the entry.
CREATE TABLE IF NOT EXISTS entries (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  seq BIGINT UNSIGNED NOT NULL AUTO_INCREMENT,
  job_id CHAR(36) CHARACTER SET ascii NOT NULL,
  type VARCHAR(30) NOT NULL,
  person VARCHAR(60) NOT NULL,
  written_at DATETIME(3) NOT NULL,
  supersedes CHAR(36) CHARACTER SET ascii NULL,
  body JSON NOT NULL,
  UNIQUE KEY entries_seq (seq),
  KEY entries_job (job_id, seq),
  CONSTRAINT entries_job_fk FOREIGN KEY (job_id) REFERENCES jobs (id)
) ENGINE = InnoDB;
