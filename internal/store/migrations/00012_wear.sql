-- +goose Up
-- worn is the head as it is worn afterwards, as JSON; empty for installs begun before there was any.
-- redoes is the install whose outer rows this one does again, down_on the day it was taken down.
ALTER TABLE install ADD COLUMN worn TEXT NOT NULL DEFAULT '';
ALTER TABLE install ADD COLUMN redoes TEXT NOT NULL DEFAULT '';
ALTER TABLE install ADD COLUMN down_on TEXT NOT NULL DEFAULT '';
CREATE INDEX install_by_client ON install (client_id, closed_at);

-- What was seen and done while a head was worn: health notes among it, so rows are deleted, not
-- struck out. document is the entry as JSON.
CREATE TABLE wear_entry (
    install_id TEXT NOT NULL REFERENCES install (id) ON DELETE CASCADE,
    id         TEXT NOT NULL,
    on_day     TEXT NOT NULL,
    kind       TEXT NOT NULL,
    document   TEXT NOT NULL,
    received_at TEXT NOT NULL,
    PRIMARY KEY (install_id, id)
) STRICT, WITHOUT ROWID;

-- The address under which a client reads the care of their head: one for each install, until a day.
CREATE TABLE care_link (
    install_id TEXT PRIMARY KEY REFERENCES install (id) ON DELETE CASCADE,
    secret     TEXT NOT NULL UNIQUE,
    until      TEXT NOT NULL,
    made_by    TEXT NOT NULL,
    made_at    TEXT NOT NULL
) STRICT, WITHOUT ROWID;

-- Who wore what lies in a lot: the id of a client. Hair goes back to the head it came from. It is no
-- reference: once the client is deleted nobody's plan matches it.
ALTER TABLE lot ADD COLUMN worn_by TEXT NOT NULL DEFAULT '';

-- What a move was for inside its plan: two pieces of a plan may share a line.
ALTER TABLE stash_move ADD COLUMN claim TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE stash_move DROP COLUMN claim;
ALTER TABLE lot DROP COLUMN worn_by;
DROP TABLE care_link;
DROP TABLE wear_entry;
DROP INDEX install_by_client;
ALTER TABLE install DROP COLUMN down_on;
ALTER TABLE install DROP COLUMN redoes;
ALTER TABLE install DROP COLUMN worn;
