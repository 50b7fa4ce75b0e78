CREATE TABLE instruments (
  kind          TEXT PRIMARY KEY,
  host          TEXT NOT NULL,
  port          INTEGER NOT NULL,
  commands      TEXT NOT NULL,
  confirmed_at  TEXT NOT NULL
) STRICT;
