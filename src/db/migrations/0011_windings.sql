-- What good windings read in jobs that were handed over: a function's own past, and the shed's by the winding's type. Worked
-- out with the job's digest, and gone where the job was opened again.
CREATE TABLE IF NOT EXISTS proved_windings (
  job_id CHAR(36) CHARACTER SET ascii NOT NULL,
  part VARCHAR(60) NOT NULL,
  type VARCHAR(120) NOT NULL,
  ohms DOUBLE NOT NULL,
  at_reference TINYINT(1) NOT NULL,
  PRIMARY KEY (job_id, part),
  KEY proved_windings_type (type),
  CONSTRAINT proved_windings_job_fk FOREIGN KEY (job_id) REFERENCES jobs (id) ON DELETE CASCADE
) ENGINE = InnoDB;
