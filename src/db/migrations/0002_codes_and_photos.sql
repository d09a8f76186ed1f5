-- Code books of machines, the codes that jobs were about, and pictures by their content.
CREATE TABLE IF NOT EXISTS code_book (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  machine_id CHAR(36) CHARACTER SET ascii NOT NULL,
  system VARCHAR(10) CHARACTER SET ascii NOT NULL,
  code VARCHAR(20) NOT NULL,
  mode VARCHAR(10) NOT NULL DEFAULT '',
  means TINYINT UNSIGNED NULL,
  text VARCHAR(300) NOT NULL DEFAULT '',
  function_name VARCHAR(160) NOT NULL DEFAULT '',
  part VARCHAR(60) NOT NULL DEFAULT '',
  sheet VARCHAR(60) NOT NULL DEFAULT '',
  note VARCHAR(1000) NOT NULL DEFAULT '',
  KEY code_book_machine (machine_id, code, mode, id),
  CONSTRAINT code_book_machine_fk FOREIGN KEY (machine_id) REFERENCES machines (id)
) ENGINE = InnoDB;

CREATE TABLE IF NOT EXISTS job_codes (
  entry_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  job_id CHAR(36) CHARACTER SET ascii NOT NULL,
  machine_id CHAR(36) CHARACTER SET ascii NOT NULL,
  code_key VARCHAR(40) NOT NULL,
  KEY job_codes_key (code_key, machine_id),
  CONSTRAINT job_codes_entry_fk FOREIGN KEY (entry_id) REFERENCES entries (id),
  CONSTRAINT job_codes_job_fk FOREIGN KEY (job_id) REFERENCES jobs (id)
) ENGINE = InnoDB;

CREATE TABLE IF NOT EXISTS photos (
  hash CHAR(64) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii NOT NULL,
  width SMALLINT UNSIGNED NOT NULL,
  height SMALLINT UNSIGNED NOT NULL,
  bytes MEDIUMBLOB NOT NULL,
  kept_at DATETIME(3) NOT NULL
) ENGINE = InnoDB;
