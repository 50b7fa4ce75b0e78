-- Pictures of a log, each under the name of its own bytes: the same picture is kept once.
CREATE TABLE photos (
  id       TEXT PRIMARY KEY,
  type     TEXT NOT NULL,
  width    INTEGER NOT NULL,
  height   INTEGER NOT NULL,
  bytes    BLOB NOT NULL,
  kept_at  TEXT NOT NULL
) STRICT;

-- How far a design is, beside its document: the shelf is sorted by it without opening one.
ALTER TABLE designs ADD COLUMN stage TEXT NOT NULL DEFAULT 'sketch';
UPDATE designs SET stage = 'measured'
WHERE json_valid(document)
  AND (json_array_length(document, '$.bench.readings') > 0 OR json_array_length(document, '$.bench.loadLine') > 0);

-- What the program itself remembers: when the last backup was made.
CREATE TABLE remembered (
  what   TEXT PRIMARY KEY,
  value  TEXT NOT NULL
) STRICT;
