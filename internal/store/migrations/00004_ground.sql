-- +goose Up
-- One row: what is true of the file as a whole.
CREATE TABLE studio (
    one           INTEGER PRIMARY KEY CHECK (one = 1),
    -- id tells studios on one host apart, in the names of their cookies.
    id            TEXT    NOT NULL,
    -- demo is 1 for a studio that opens to anyone.
    demo          INTEGER NOT NULL DEFAULT 0,
    -- version_floor is what every version number of a save must exceed. Putting a
    -- copy back raises it, so that no number is ever used twice.
    version_floor INTEGER NOT NULL DEFAULT 0
) STRICT;
INSERT INTO studio (one, id) VALUES (1, lower(hex(randomblob(8))));

-- gone holds the ids of what was deleted, and nothing else of it: a request that is
-- repeated late must not bring it back.
CREATE TABLE gone (id TEXT PRIMARY KEY) STRICT, WITHOUT ROWID;
-- +goose StatementBegin
CREATE TRIGGER plan_gone AFTER DELETE ON plan BEGIN INSERT OR IGNORE INTO gone VALUES (old.id); END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER client_gone AFTER DELETE ON client BEGIN INSERT OR IGNORE INTO gone VALUES (old.id); END;
-- +goose StatementEnd

-- Keys by which names are found and told apart, made by the functions of the same
-- names: letters of any script in one case, for a search also without their marks.
ALTER TABLE client ADD COLUMN search_key TEXT NOT NULL DEFAULT '';
UPDATE client SET search_key = search_key(name);
DROP INDEX client_by_name;
CREATE INDEX client_by_key ON client (search_key, id);
ALTER TABLE person ADD COLUMN name_key TEXT NOT NULL DEFAULT '';
UPDATE person SET name_key = name_key(name);

-- Lists are read a page at a time.
DROP INDEX plan_by_update;
CREATE INDEX plan_by_update ON plan (updated_at DESC, id);
DROP INDEX plan_by_client;
CREATE INDEX plan_by_client ON plan (client_id, updated_at DESC, id);

PRAGMA application_id = 0x4b6c7478;

-- +goose Down
PRAGMA application_id = 0;
DROP INDEX plan_by_client;
CREATE INDEX plan_by_client ON plan (client_id);
DROP INDEX plan_by_update;
CREATE INDEX plan_by_update ON plan (updated_at DESC);
ALTER TABLE person DROP COLUMN name_key;
DROP INDEX client_by_key;
ALTER TABLE client DROP COLUMN search_key;
CREATE INDEX client_by_name ON client (name COLLATE NOCASE);
DROP TRIGGER client_gone;
DROP TRIGGER plan_gone;
DROP TABLE gone;
DROP TABLE studio;
