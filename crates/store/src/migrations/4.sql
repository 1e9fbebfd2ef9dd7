-- A home that is put away, or deleted and not gone yet: when, in milliseconds since 1970 UTC.
ALTER TABLE homes ADD COLUMN archived INTEGER NOT NULL DEFAULT 0 CHECK (archived IN (0, 1));
ALTER TABLE homes ADD COLUMN deleted INTEGER;
