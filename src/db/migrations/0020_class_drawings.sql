-- How functions are drawn, told apart by a digest: what a class of machines has drawn alike is counted off a key, no circuit is read for it.
ALTER TABLE functions ADD COLUMN IF NOT EXISTS drawn BINARY(32) AS (UNHEX(SHA2(circuit, 256))) STORED INVISIBLE;

ALTER TABLE functions ADD KEY IF NOT EXISTS functions_drawn (machine_id, name, drawn);

ALTER TABLE functions DROP KEY IF EXISTS functions_machine;

ALTER TABLE machines ADD KEY IF NOT EXISTS machines_class (equipment, code);

-- Jobs by what is typed to find one, the newest first, off one key: it holds all that is looked at, and takes the place of the shorter one.
ALTER TABLE jobs ADD KEY IF NOT EXISTS jobs_find (opened_at, id, closed_at, title, person, function_id, number);

ALTER TABLE jobs DROP KEY IF EXISTS jobs_opened;
