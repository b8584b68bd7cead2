-- +goose Up
-- Moves belong to the install they were made for, which outlives its plan. It is no reference: the
-- ledger keeps its lines when an install is deleted.
ALTER TABLE stash_move ADD COLUMN install_id TEXT NOT NULL DEFAULT '';
UPDATE stash_move SET install_id = coalesce((SELECT id FROM install WHERE install.plan_id = stash_move.plan_id), '')
    WHERE plan_id IS NOT NULL AND kind IN ('used', 'spoilt', 'saved');
CREATE INDEX stash_move_by_install ON stash_move (install_id) WHERE install_id != '';

-- What an install took by its events, by the keys of its needs and counted as sold, and how much of it the
-- stash did not hold. What is booked for the install is the rest.
CREATE TABLE install_bill (
    install_id    TEXT    NOT NULL REFERENCES install (id) ON DELETE CASCADE,
    key           TEXT    NOT NULL,
    name          TEXT    NOT NULL,
    item_id       TEXT    NOT NULL,
    colour        TEXT    NOT NULL,
    used          INTEGER NOT NULL,
    spoilt        INTEGER NOT NULL,
    used_beyond   INTEGER NOT NULL,
    spoilt_beyond INTEGER NOT NULL,
    PRIMARY KEY (install_id, key)
) STRICT, WITHOUT ROWID;
INSERT OR IGNORE INTO install_bill (install_id, key, name, item_id, colour, used, spoilt, used_beyond, spoilt_beyond)
    SELECT install.id, json_extract(p.value, '$.piece.key'), json_extract(b.value, '$.piece'), coalesce(json_extract(p.value, '$.piece.item'), ''),
        json_extract(p.value, '$.piece.colour'), json_extract(b.value, '$.used') + json_extract(b.value, '$.beyond'), json_extract(b.value, '$.spoilt'),
        json_extract(b.value, '$.beyond'), 0
    FROM install, json_each(install.log, '$.stash') b, json_each(install.log, '$.pieces') p
    WHERE install.closed_at != '' AND json_valid(install.log) AND json_extract(b.value, '$.piece') = json_extract(p.value, '$.piece.name') ||
        CASE json_extract(p.value, '$.piece.colour') WHEN '' THEN '' ELSE ', ' || json_extract(p.value, '$.piece.colour') END;

-- An end that no clock can have told is the time at which it was told.
UPDATE install SET closed_at = coalesce((SELECT max(received_at) FROM install_event WHERE install_id = install.id), started_at)
    WHERE closed_at != '' AND closed_at NOT GLOB '[12][0-9][0-9][0-9]-[01][0-9]-[0-3][0-9]T*Z';

-- quotes counts those that were ever given: a number is used once, though its quote is deleted.
ALTER TABLE studio ADD COLUMN quotes INTEGER NOT NULL DEFAULT 0;
UPDATE studio SET quotes = (SELECT coalesce(max(number), 0) FROM quote);

-- The address at which a person follows the calendar; it goes with the person. The one address that all
-- had in common ends: who left the studio may know it.
CREATE TABLE calendar_feed (
    person_id TEXT PRIMARY KEY REFERENCES person (id) ON DELETE CASCADE,
    secret    TEXT NOT NULL UNIQUE
) STRICT, WITHOUT ROWID;
ALTER TABLE studio DROP COLUMN feed_secret;

-- person is the id of who wrote an entry down; empty in those written before it was kept. What an entry was
-- before it was put right stays, and goes with it.
ALTER TABLE wear_entry ADD COLUMN person TEXT NOT NULL DEFAULT '';
CREATE TABLE wear_entry_past (
    seq         INTEGER PRIMARY KEY AUTOINCREMENT,
    install_id  TEXT NOT NULL REFERENCES install (id) ON DELETE CASCADE,
    id          TEXT NOT NULL,
    document    TEXT NOT NULL,
    replaced_by TEXT NOT NULL,
    replaced_at TEXT NOT NULL
) STRICT;
CREATE INDEX wear_entry_past_by_entry ON wear_entry_past (install_id, id);

-- What was asked about a head that no client's card speaks of, and which cautions were read for it; history
-- is a JSON list of what calls for caution.
CREATE TABLE plan_asked (
    plan_id TEXT PRIMARY KEY REFERENCES plan (id) ON DELETE CASCADE,
    history TEXT NOT NULL,
    person  TEXT NOT NULL,
    at      TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE TABLE plan_read (
    plan_id TEXT NOT NULL REFERENCES plan (id) ON DELETE CASCADE,
    caution TEXT NOT NULL,
    person  TEXT NOT NULL,
    at      TEXT NOT NULL,
    PRIMARY KEY (plan_id, caution)
) STRICT, WITHOUT ROWID;

-- Ids of these are used once, too.
-- +goose StatementBegin
CREATE TRIGGER install_gone AFTER DELETE ON install BEGIN INSERT OR IGNORE INTO gone VALUES (old.id); END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER quote_gone AFTER DELETE ON quote BEGIN INSERT OR IGNORE INTO gone VALUES (old.id); END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER booking_gone AFTER DELETE ON booking BEGIN INSERT OR IGNORE INTO gone VALUES (old.id); END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER message_gone AFTER DELETE ON message BEGIN INSERT OR IGNORE INTO gone VALUES (old.id); END;
-- +goose StatementEnd

-- +goose Down
DROP TABLE plan_read;
DROP TABLE plan_asked;
DROP TABLE wear_entry_past;
ALTER TABLE wear_entry DROP COLUMN person;
ALTER TABLE studio ADD COLUMN feed_secret TEXT NOT NULL DEFAULT '';
DROP TABLE calendar_feed;
DROP TRIGGER message_gone;
DROP TRIGGER booking_gone;
DROP TRIGGER quote_gone;
DROP TRIGGER install_gone;
ALTER TABLE studio DROP COLUMN quotes;
DROP TABLE install_bill;
DROP INDEX stash_move_by_install;
ALTER TABLE stash_move DROP COLUMN install_id;
