-- Spares on the shelf, by what their labels say, every move of them, and what was asked for.
CREATE TABLE IF NOT EXISTS spares (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  number VARCHAR(60) NOT NULL,
  name VARCHAR(160) NOT NULL,
  kind VARCHAR(30) CHARACTER SET ascii NOT NULL,
  ratings JSON NOT NULL,
  fitting VARCHAR(200) NOT NULL DEFAULT '',
  place VARCHAR(120) NOT NULL DEFAULT '',
  stock INT NOT NULL DEFAULT 0,
  minimum INT UNSIGNED NOT NULL DEFAULT 0,
  price DECIMAL(12, 2) NULL,
  lead_days SMALLINT UNSIGNED NULL,
  supplier VARCHAR(160) NOT NULL DEFAULT '',
  UNIQUE KEY spares_number (number),
  KEY spares_kind (kind, number)
) ENGINE = InnoDB;

-- Rows are only ever added. A move that a job's entry made is made once, however often the entry is sent.
CREATE TABLE IF NOT EXISTS spare_moves (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  spare_id CHAR(36) CHARACTER SET ascii NOT NULL,
  job_id CHAR(36) CHARACTER SET ascii NULL,
  entry_id CHAR(36) CHARACTER SET ascii NULL,
  pieces INT NOT NULL,
  why VARCHAR(12) CHARACTER SET ascii NOT NULL,
  person VARCHAR(60) NOT NULL,
  moved_at DATETIME(3) NOT NULL,
  UNIQUE KEY spare_moves_entry (entry_id),
  KEY spare_moves_spare (spare_id, moved_at),
  CONSTRAINT spare_moves_spare_fk FOREIGN KEY (spare_id) REFERENCES spares (id)
) ENGINE = InnoDB;

CREATE TABLE IF NOT EXISTS requisitions (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  number INT UNSIGNED NOT NULL,
  spare_id CHAR(36) CHARACTER SET ascii NOT NULL,
  job_id CHAR(36) CHARACTER SET ascii NULL,
  pieces INT UNSIGNED NOT NULL,
  state VARCHAR(10) CHARACTER SET ascii NOT NULL,
  due_on DATE NULL,
  asked_at DATETIME(3) NOT NULL,
  UNIQUE KEY requisitions_number (number),
  KEY requisitions_state (state, asked_at, id),
  KEY requisitions_spare (spare_id, state),
  CONSTRAINT requisitions_spare_fk FOREIGN KEY (spare_id) REFERENCES spares (id)
) ENGINE = InnoDB;

-- Who took each step of one, and when; rows are only ever added.
CREATE TABLE IF NOT EXISTS requisition_steps (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  requisition_id CHAR(36) CHARACTER SET ascii NOT NULL,
  state VARCHAR(10) CHARACTER SET ascii NOT NULL,
  person VARCHAR(60) NOT NULL,
  note VARCHAR(300) NOT NULL DEFAULT '',
  taken_at DATETIME(3) NOT NULL,
  KEY requisition_steps_of (requisition_id, taken_at),
  CONSTRAINT requisition_steps_fk FOREIGN KEY (requisition_id) REFERENCES requisitions (id)
) ENGINE = InnoDB;
