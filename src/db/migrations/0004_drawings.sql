-- Sheets of a machine's drawings as pictures, and pins on them that stand for parts.
CREATE TABLE IF NOT EXISTS drawings (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  machine_id CHAR(36) CHARACTER SET ascii NOT NULL,
  name VARCHAR(120) NOT NULL,
  photo CHAR(64) CHARACTER SET ascii NOT NULL,
  kept_at DATETIME(3) NOT NULL,
  KEY drawings_machine (machine_id, name, id),
  CONSTRAINT drawings_machine_fk FOREIGN KEY (machine_id) REFERENCES machines (id),
  CONSTRAINT drawings_photo_fk FOREIGN KEY (photo) REFERENCES photos (hash)
) ENGINE = InnoDB;

CREATE TABLE IF NOT EXISTS drawing_pins (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  drawing_id CHAR(36) CHARACTER SET ascii NOT NULL,
  part VARCHAR(60) NOT NULL,
  x FLOAT NOT NULL,
  y FLOAT NOT NULL,
  UNIQUE KEY drawing_pins_part (drawing_id, part),
  CONSTRAINT drawing_pins_drawing_fk FOREIGN KEY (drawing_id) REFERENCES drawings (id) ON DELETE CASCADE
) ENGINE = InnoDB;
