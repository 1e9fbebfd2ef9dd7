-- What the list of homes says of each, worked out by a program of that build at that line; worked out anew where either is otherwise.
CREATE TABLE summaries (
    home TEXT PRIMARY KEY REFERENCES homes (id) ON DELETE CASCADE,
    seq INTEGER NOT NULL,
    build TEXT NOT NULL,
    body TEXT NOT NULL
) STRICT;

-- Where a home has gone: the address under which it is used from then on. It is kept here as it was when it went.
ALTER TABLE homes ADD COLUMN moved TEXT;
