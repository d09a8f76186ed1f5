-- Who works here. A name signs for good: it is never given to anybody else, and an account is closed, not deleted.
CREATE TABLE IF NOT EXISTS accounts (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  name VARCHAR(60) NOT NULL,
  role VARCHAR(12) CHARACTER SET ascii NOT NULL,
  licences JSON NOT NULL,
  -- argon2id; null while there is none.
  pin_hash VARCHAR(200) CHARACTER SET ascii NULL,
  password_hash VARCHAR(200) CHARACTER SET ascii NULL,
  -- The password was given by somebody else and is good for one sign-in.
  one_time TINYINT(1) NOT NULL DEFAULT 0,
  -- Until when a one-time word is good.
  one_time_until DATETIME(3) NULL,
  made_at DATETIME(3) NOT NULL,
  closed_at DATETIME(3) NULL,
  UNIQUE KEY accounts_name (name)
) ENGINE = InnoDB;

-- A browser, by a cookie of its own. A PIN is good only where somebody has signed in with a password before.
CREATE TABLE IF NOT EXISTS devices (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  key_hash CHAR(64) CHARACTER SET ascii NOT NULL,
  name VARCHAR(60) NOT NULL DEFAULT '',
  trusted TINYINT(1) NOT NULL DEFAULT 0,
  seen_at DATETIME(3) NOT NULL,
  UNIQUE KEY devices_key (key_hash)
) ENGINE = InnoDB;

-- What is kept of a session is the hash of its key: who reads this table can sign in as nobody.
CREATE TABLE IF NOT EXISTS sessions (
  key_hash CHAR(64) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  account_id CHAR(36) CHARACTER SET ascii NOT NULL,
  device_id CHAR(36) CHARACTER SET ascii NOT NULL,
  begun_at DATETIME(3) NOT NULL,
  seen_at DATETIME(3) NOT NULL,
  ended_at DATETIME(3) NULL,
  KEY sessions_account (account_id, ended_at),
  KEY sessions_begun (begun_at),
  CONSTRAINT sessions_account_fk FOREIGN KEY (account_id) REFERENCES accounts (id),
  CONSTRAINT sessions_device_fk FOREIGN KEY (device_id) REFERENCES devices (id)
) ENGINE = InnoDB;

-- A second person's PIN, given once for one entry of one writer.
CREATE TABLE IF NOT EXISTS witnesses (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  account_id CHAR(36) CHARACTER SET ascii NOT NULL,
  writer_id CHAR(36) CHARACTER SET ascii NOT NULL,
  made_at DATETIME(3) NOT NULL,
  entry_id CHAR(36) CHARACTER SET ascii NULL,
  CONSTRAINT witnesses_account_fk FOREIGN KEY (account_id) REFERENCES accounts (id)
) ENGINE = InnoDB;

-- A calendar program cannot sign in: it comes with a key of its owner's, which shows the calendar and nothing else.
CREATE TABLE IF NOT EXISTS feed_keys (
  account_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  key_hash CHAR(64) CHARACTER SET ascii NOT NULL,
  made_at DATETIME(3) NOT NULL,
  UNIQUE KEY feed_keys_key (key_hash),
  CONSTRAINT feed_keys_account_fk FOREIGN KEY (account_id) REFERENCES accounts (id)
) ENGINE = InnoDB;

-- Wrong tries, as the rate limiter keeps them.
CREATE TABLE IF NOT EXISTS tries (
  `key` VARCHAR(255) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  points INT NOT NULL DEFAULT 0,
  expire BIGINT UNSIGNED NULL
) ENGINE = InnoDB;

-- Who did what beside the logs of jobs. Rows are only ever added.
CREATE TABLE IF NOT EXISTS trail (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  what VARCHAR(20) CHARACTER SET ascii NOT NULL,
  person VARCHAR(60) NOT NULL,
  account_id CHAR(36) CHARACTER SET ascii NULL,
  device_id CHAR(36) CHARACTER SET ascii NULL,
  address VARCHAR(45) CHARACTER SET ascii NOT NULL,
  request_id VARCHAR(36) CHARACTER SET ascii NOT NULL,
  about VARCHAR(200) NOT NULL,
  at DATETIME(3) NOT NULL,
  KEY trail_at (at, id),
  KEY trail_person (person, at)
) ENGINE = InnoDB;

-- Who was signed in as an entry came, on which device, and who stood by; null for entries of before there were accounts.
ALTER TABLE entries
  ADD COLUMN account_id CHAR(36) CHARACTER SET ascii NULL,
  ADD COLUMN device_id CHAR(36) CHARACTER SET ascii NULL,
  ADD COLUMN witness_id CHAR(36) CHARACTER SET ascii NULL,
  ALGORITHM = INSTANT;
