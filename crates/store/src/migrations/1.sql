-- One row a line. Lines are only ever added; a line that was struck out stays, with the line that strikes it.
CREATE TABLE homes (
    id TEXT PRIMARY KEY
) STRICT, WITHOUT ROWID;

CREATE TABLE lines (
    home  TEXT    NOT NULL REFERENCES homes (id) ON DELETE CASCADE,
    seq   INTEGER NOT NULL CHECK (seq > 0),
    entry TEXT    NOT NULL,
    body  TEXT    NOT NULL,
    PRIMARY KEY (home, seq),
    UNIQUE (home, entry)
) STRICT, WITHOUT ROWID;
