CREATE TABLE designs (
  id          TEXT PRIMARY KEY,
  name        TEXT NOT NULL,
  document    TEXT NOT NULL,
  headline    TEXT,
  summary     TEXT,
  summary_version INTEGER NOT NULL DEFAULT 0,
  revision    INTEGER NOT NULL DEFAULT 1,
  created_at  TEXT NOT NULL,
  updated_at  TEXT NOT NULL,
  deleted_at  TEXT
) STRICT;

CREATE INDEX designs_by_update ON designs (deleted_at, updated_at DESC);
