CREATE TABLE parts (
  id          TEXT PRIMARY KEY,
  kind        TEXT NOT NULL,
  name        TEXT NOT NULL,
  ratings     TEXT NOT NULL,
  known       TEXT NOT NULL,
  condition   TEXT NOT NULL,
  count       INTEGER NOT NULL,
  price_eur   REAL,
  place       TEXT NOT NULL DEFAULT '',
  note        TEXT NOT NULL DEFAULT '',
  updated_at  TEXT NOT NULL
) STRICT;

CREATE INDEX parts_by_kind ON parts (kind, name);
