-- What the shed as a whole has settled, by name.
CREATE TABLE IF NOT EXISTS settings (
  name VARCHAR(40) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  value JSON NOT NULL,
  person VARCHAR(60) NOT NULL,
  kept_at DATETIME(3) NOT NULL
) ENGINE = InnoDB;
