-- +goose Up
CREATE TABLE person (
    id            TEXT PRIMARY KEY,
    name          TEXT NOT NULL COLLATE NOCASE UNIQUE,
    role          TEXT NOT NULL CHECK (role IN ('owner', 'stylist', 'apprentice')),
    -- password_hash is an argon2id hash in PHC form.
    password_hash TEXT NOT NULL,
    -- epoch counts the times all her sessions were ended; one of another epoch is
    -- void.
    epoch         INTEGER NOT NULL DEFAULT 0,
    created_at    TEXT NOT NULL
) STRICT;

-- The table of the session library.
CREATE TABLE sessions (
    token  TEXT PRIMARY KEY,
    data   BLOB NOT NULL,
    expiry REAL NOT NULL
);
CREATE INDEX sessions_expiry_idx ON sessions (expiry);

CREATE TABLE client (
    id         TEXT PRIMARY KEY,
    name       TEXT    NOT NULL,
    archived   INTEGER NOT NULL DEFAULT 0,
    version    INTEGER NOT NULL,
    -- document is all that is known of her, as JSON.
    document   TEXT    NOT NULL,
    created_at TEXT    NOT NULL,
    updated_at TEXT    NOT NULL
) STRICT;
CREATE INDEX client_by_name ON client (name COLLATE NOCASE);

ALTER TABLE plan ADD COLUMN client_id TEXT REFERENCES client (id) ON DELETE CASCADE;
ALTER TABLE plan ADD COLUMN warnings INTEGER NOT NULL DEFAULT 0;
-- saved_by is the name of who saved last, as it was then.
ALTER TABLE plan ADD COLUMN saved_by TEXT NOT NULL DEFAULT '';
CREATE INDEX plan_by_client ON plan (client_id);

-- The history of a plan: its versions as they were saved, thinned out.
CREATE TABLE plan_version (
    plan_id  TEXT    NOT NULL REFERENCES plan (id) ON DELETE CASCADE,
    version  INTEGER NOT NULL,
    title    TEXT    NOT NULL,
    document TEXT    NOT NULL,
    sections INTEGER NOT NULL,
    saved_by TEXT    NOT NULL,
    saved_at TEXT    NOT NULL,
    PRIMARY KEY (plan_id, version)
) STRICT, WITHOUT ROWID;
INSERT INTO plan_version (plan_id, version, title, document, sections, saved_by, saved_at)
    SELECT id, version, title, document, sections, saved_by, updated_at FROM plan;

-- +goose Down
DROP TABLE plan_version;
DROP INDEX plan_by_client;
ALTER TABLE plan DROP COLUMN saved_by;
ALTER TABLE plan DROP COLUMN warnings;
ALTER TABLE plan DROP COLUMN client_id;
DROP TABLE client;
DROP TABLE sessions;
DROP TABLE person;
