-- The order of arrival over all jobs: the number within the job took its place.
ALTER TABLE entries DROP COLUMN IF EXISTS seq;
