-- The weather a job's machine failed in, where somebody said: what breaks in frost is not what breaks in the wet.
ALTER TABLE outcomes ADD COLUMN IF NOT EXISTS weather VARCHAR(10) NULL;
