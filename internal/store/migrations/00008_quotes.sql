-- +goose Up
-- A quote as it was given. Nothing of it changes but its state; plan and client may go.
-- document is what it says, input and places what it was made from, as JSON.
CREATE TABLE quote (
    id          TEXT PRIMARY KEY,
    number      INTEGER NOT NULL UNIQUE,
    plan_id     TEXT REFERENCES plan (id) ON DELETE SET NULL,
    client_id   TEXT REFERENCES client (id) ON DELETE CASCADE,
    state       TEXT    NOT NULL CHECK (state IN ('given', 'accepted', 'declined')),
    document    TEXT    NOT NULL,
    input       TEXT    NOT NULL,
    places      TEXT    NOT NULL,
    parted      BLOB    NOT NULL,
    draped      BLOB    NOT NULL,
    paper       BLOB    NOT NULL,
    given_at    TEXT    NOT NULL,
    answered_at TEXT    NOT NULL DEFAULT '',
    answered_by TEXT    NOT NULL DEFAULT ''
) STRICT;
CREATE INDEX quote_by_plan ON quote (plan_id, number);

-- +goose Down
DROP TABLE quote;
