-- +goose Up
-- A plan on the calendar as it was booked: document is the sittings, input and places what they
-- were worked out from, as JSON. One booking of a plan stands; a later one takes its place.
CREATE TABLE booking (
    id           TEXT PRIMARY KEY,
    plan_id      TEXT REFERENCES plan (id) ON DELETE SET NULL,
    client_id    TEXT REFERENCES client (id) ON DELETE CASCADE,
    document     TEXT NOT NULL,
    input        TEXT NOT NULL,
    places       TEXT NOT NULL,
    engine       TEXT NOT NULL,
    first_on     TEXT NOT NULL,
    last_on      TEXT NOT NULL,
    booked_by    TEXT NOT NULL,
    booked_at    TEXT NOT NULL,
    cancelled_at TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE INDEX booking_by_day ON booking (first_on) WHERE cancelled_at = '';
CREATE UNIQUE INDEX booking_by_plan ON booking (plan_id) WHERE cancelled_at = '';

-- Times at which people are busy, read in from calendars of their own.
CREATE TABLE busy (
    person_id TEXT NOT NULL REFERENCES person (id) ON DELETE CASCADE,
    title     TEXT NOT NULL,
    starts_at TEXT NOT NULL,
    ends_at   TEXT NOT NULL
) STRICT;
CREATE INDEX busy_by_time ON busy (starts_at);

-- The secret in the address at which the calendar can be followed; empty for none.
ALTER TABLE studio ADD COLUMN feed_secret TEXT NOT NULL DEFAULT '';

-- Messages to clients. Nothing leaves this machine: sent ones are kept here, as they were sent.
CREATE TABLE message (
    id        TEXT PRIMARY KEY,
    plan_id   TEXT REFERENCES plan (id) ON DELETE SET NULL,
    client_id TEXT REFERENCES client (id) ON DELETE CASCADE,
    kind      TEXT NOT NULL,
    recipient TEXT NOT NULL,
    subject   TEXT NOT NULL,
    body      TEXT NOT NULL,
    sent_by   TEXT NOT NULL,
    sent_at   TEXT NOT NULL
) STRICT;
CREATE INDEX message_by_plan ON message (plan_id, sent_at);

-- +goose Down
DROP TABLE message;
ALTER TABLE studio DROP COLUMN feed_secret;
DROP TABLE busy;
DROP TABLE booking;
