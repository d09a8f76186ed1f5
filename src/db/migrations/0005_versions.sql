-- Every version of a function's circuit. A job keeps the one it was opened on.
CREATE TABLE IF NOT EXISTS function_versions (
  function_id CHAR(36) CHARACTER SET ascii NOT NULL,
  version INT UNSIGNED NOT NULL,
  circuit JSON NOT NULL,
  person VARCHAR(60) NOT NULL DEFAULT '',
  note VARCHAR(300) NOT NULL DEFAULT '',
  kept_at DATETIME(3) NOT NULL,
  PRIMARY KEY (function_id, version),
  CONSTRAINT function_versions_function_fk FOREIGN KEY (function_id) REFERENCES functions (id) ON DELETE CASCADE
) ENGINE = InnoDB;

ALTER TABLE functions ADD COLUMN IF NOT EXISTS version INT UNSIGNED NOT NULL DEFAULT 1;

ALTER TABLE jobs ADD COLUMN IF NOT EXISTS function_version INT UNSIGNED NOT NULL DEFAULT 1;

INSERT IGNORE INTO function_versions (function_id, version, circuit, person, note, kept_at)
  SELECT id, 1, circuit, '', 'First drawing', UTC_TIMESTAMP(3) FROM functions;
