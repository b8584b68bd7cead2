-- +goose Up
-- An item is one line at one length; document is what is known of it, as JSON.
CREATE TABLE item (
    id         TEXT PRIMARY KEY,
    name       TEXT    NOT NULL,
    search_key TEXT    NOT NULL,
    kind       TEXT    NOT NULL,
    archived   INTEGER NOT NULL DEFAULT 0,
    version    INTEGER NOT NULL,
    document   TEXT    NOT NULL,
    created_at TEXT    NOT NULL,
    updated_at TEXT    NOT NULL
) STRICT;
CREATE INDEX item_by_key ON item (search_key, id);
-- +goose StatementBegin
CREATE TRIGGER item_gone AFTER DELETE ON item BEGIN INSERT OR IGNORE INTO gone VALUES (old.id); END;
-- +goose StatementEnd

-- An order of one supplier; lines is a JSON list.
CREATE TABLE purchase (
    id          TEXT PRIMARY KEY,
    supplier    TEXT    NOT NULL,
    plan_id     TEXT REFERENCES plan (id) ON DELETE SET NULL,
    state       TEXT    NOT NULL CHECK (state IN ('listed', 'ordered', 'arrived')),
    version     INTEGER NOT NULL,
    lines       TEXT    NOT NULL,
    fee_minor   INTEGER NOT NULL,
    ordered_on  TEXT    NOT NULL DEFAULT '',
    due_on      TEXT    NOT NULL DEFAULT '',
    arrived_on  TEXT    NOT NULL DEFAULT '',
    created_at  TEXT    NOT NULL
) STRICT;

-- A lot is what came together of one item and is alike.
CREATE TABLE lot (
    id          TEXT PRIMARY KEY,
    item_id     TEXT    NOT NULL REFERENCES item (id),
    colour      TEXT    NOT NULL,
    document    TEXT    NOT NULL,
    purchase_id TEXT REFERENCES purchase (id),
    created_at  TEXT    NOT NULL
) STRICT;
CREATE INDEX lot_by_item ON lot (item_id, colour);

-- The ledger: lines are added and never changed. What is left of a lot is their sum.
CREATE TABLE stash_move (
    seq     INTEGER PRIMARY KEY AUTOINCREMENT,
    -- id is made by who asks; the lines of one move have it in common.
    id      TEXT    NOT NULL,
    lot_id  TEXT    NOT NULL REFERENCES lot (id),
    kind    TEXT    NOT NULL,
    packs   INTEGER NOT NULL,
    pieces  INTEGER NOT NULL,
    person  TEXT    NOT NULL,
    reason  TEXT    NOT NULL,
    plan_id TEXT REFERENCES plan (id) ON DELETE SET NULL,
    at      TEXT    NOT NULL
) STRICT;
CREATE INDEX stash_move_by_lot ON stash_move (lot_id, seq);
CREATE INDEX stash_move_by_id ON stash_move (id);

-- What a plan in work holds of the stash; gone with the plan.
CREATE TABLE promise (
    plan_id TEXT    NOT NULL REFERENCES plan (id) ON DELETE CASCADE,
    lot_id  TEXT    NOT NULL REFERENCES lot (id),
    -- claim names what it is for inside the plan.
    claim   TEXT    NOT NULL,
    pieces  INTEGER NOT NULL CHECK (pieces > 0),
    PRIMARY KEY (plan_id, lot_id, claim)
) STRICT, WITHOUT ROWID;
CREATE INDEX promise_by_lot ON promise (lot_id);
ALTER TABLE plan ADD COLUMN holds INTEGER NOT NULL DEFAULT 0;

-- What was ticked off of the preparation of a plan.
CREATE TABLE prepared (
    plan_id TEXT    NOT NULL REFERENCES plan (id) ON DELETE CASCADE,
    task    TEXT    NOT NULL,
    done    INTEGER NOT NULL,
    person  TEXT    NOT NULL,
    at      TEXT    NOT NULL,
    PRIMARY KEY (plan_id, task)
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE prepared;
ALTER TABLE plan DROP COLUMN holds;
DROP TABLE promise;
DROP TABLE stash_move;
DROP TABLE lot;
DROP TABLE purchase;
DROP TRIGGER item_gone;
DROP TABLE item;
