-- What belongs to this installation and to no home: the owner's passphrase, hashed.
CREATE TABLE settings (
    name  TEXT PRIMARY KEY,
    value TEXT NOT NULL
) STRICT, WITHOUT ROWID;
