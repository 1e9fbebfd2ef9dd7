-- Photos of labels, doors and cards. A line of the logbook says what a photo shows; here are its bytes.
CREATE TABLE photos (
    home  TEXT NOT NULL REFERENCES homes (id) ON DELETE CASCADE,
    photo TEXT NOT NULL,
    media TEXT NOT NULL,
    bytes BLOB NOT NULL,
    PRIMARY KEY (home, photo)
) STRICT;
