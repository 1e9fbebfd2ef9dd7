-- The chain: every line carries the SHA-256 of the link before it, its number and its text; the home says how many lines it has and
-- which link is the last. So a line that is missing or was altered is found, at the end too.
ALTER TABLE lines ADD COLUMN link BLOB;
ALTER TABLE homes ADD COLUMN lines INTEGER NOT NULL DEFAULT 0;
ALTER TABLE homes ADD COLUMN link BLOB;
