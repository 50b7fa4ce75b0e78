-- A design as it stood at a moment somebody gave a name. Never changed, never removed with the design.
CREATE TABLE revisions (
  id         TEXT PRIMARY KEY,
  design_id  TEXT NOT NULL REFERENCES designs (id),
  name       TEXT NOT NULL,
  why        TEXT NOT NULL,
  document   TEXT NOT NULL,
  kept_at    TEXT NOT NULL
) STRICT;

CREATE INDEX revisions_by_design ON revisions (design_id, kept_at DESC);
