-- What sort of equipment a machine is, in the shop's own words: limits may be set for one class alone.
ALTER TABLE machines ADD COLUMN IF NOT EXISTS equipment VARCHAR(60) NULL;
