-- A code beside the password, of a program that counts time (RFC 6238). Its secret is sealed: who reads this table has none.
ALTER TABLE accounts
  ADD COLUMN IF NOT EXISTS code_secret VARCHAR(400) CHARACTER SET ascii NULL,
  -- Since when it is asked for; null while the first one was not typed.
  ADD COLUMN IF NOT EXISTS code_since DATETIME(3) NULL,
  -- The last interval of which a code was taken: each is good once.
  ADD COLUMN IF NOT EXISTS code_step BIGINT NULL,
  -- Hashes of the words that are left for when the program is not at hand.
  ADD COLUMN IF NOT EXISTS code_words JSON NULL;

-- Begun with password and code.
ALTER TABLE sessions ADD COLUMN IF NOT EXISTS twice TINYINT(1) NOT NULL DEFAULT 0;
