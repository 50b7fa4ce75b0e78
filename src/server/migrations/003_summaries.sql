-- What a summary was made from, why there is none, and which save a revision came by: one repeated is no conflict.
ALTER TABLE designs ADD COLUMN summary_revision INTEGER NOT NULL DEFAULT 0;
ALTER TABLE designs ADD COLUMN fault TEXT;
ALTER TABLE designs ADD COLUMN save_id TEXT;
UPDATE designs SET summary_revision = revision;
