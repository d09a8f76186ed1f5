-- Lists of a shed with many years behind it: jobs that were handed over, the newest first; those whose digest is still to be made; and the
-- functions that anything is followed of.
ALTER TABLE jobs ADD KEY IF NOT EXISTS jobs_opened (opened_at, id);

ALTER TABLE jobs ADD KEY IF NOT EXISTS jobs_digest (digest_number, closed_at);

ALTER TABLE trends ADD KEY IF NOT EXISTS trends_function (function_id);
