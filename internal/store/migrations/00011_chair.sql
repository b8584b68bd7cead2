-- +goose Up
-- A plan at the chair as it was when it began: brief is what those at the chair need of it, how the
-- steps in which it is done, head how it is drawn, input and places what they were worked out from,
-- all JSON, and both papers. closed_at and log are set once the last look is taken.
CREATE TABLE install (
    id          TEXT PRIMARY KEY,
    plan_id     TEXT REFERENCES plan (id) ON DELETE SET NULL,
    client_id   TEXT REFERENCES client (id) ON DELETE CASCADE,
    brief       TEXT NOT NULL,
    how         TEXT NOT NULL,
    head        TEXT NOT NULL,
    input       TEXT NOT NULL,
    places      TEXT NOT NULL,
    engine      TEXT NOT NULL,
    plan_sheet  BLOB NOT NULL,
    day_sheet   BLOB NOT NULL,
    started_by  TEXT NOT NULL,
    started_at  TEXT NOT NULL,
    closed_at   TEXT NOT NULL DEFAULT '',
    log         TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE UNIQUE INDEX install_by_plan ON install (plan_id);
CREATE INDEX install_by_end ON install (closed_at, id);

-- What happened at the chair, as the devices told it. Lines are added and never changed; seq is the
-- order of arrival, which says nothing about the order of events.
CREATE TABLE install_event (
    seq         INTEGER PRIMARY KEY AUTOINCREMENT,
    install_id  TEXT NOT NULL REFERENCES install (id) ON DELETE CASCADE,
    id          TEXT NOT NULL,
    document    TEXT NOT NULL,
    person      TEXT NOT NULL,
    received_at TEXT NOT NULL,
    UNIQUE (install_id, id)
) STRICT;

-- Pictures taken at the chair: small, without where they were taken, and who was asked.
CREATE TABLE install_photo (
    id          TEXT PRIMARY KEY,
    install_id  TEXT NOT NULL REFERENCES install (id) ON DELETE CASCADE,
    image       BLOB NOT NULL,
    asked_by    TEXT NOT NULL,
    received_at TEXT NOT NULL
) STRICT;
CREATE INDEX install_photo_by_install ON install_photo (install_id);

-- What finished installs say of the pace of the studio's people.
CREATE TABLE install_pace (
    install_id TEXT NOT NULL REFERENCES install (id) ON DELETE CASCADE,
    person_id  TEXT NOT NULL REFERENCES person (id) ON DELETE CASCADE,
    skill      TEXT NOT NULL,
    actual     REAL NOT NULL,
    rate       REAL NOT NULL,
    own        INTEGER NOT NULL,
    PRIMARY KEY (install_id, person_id, skill)
) STRICT;
CREATE INDEX install_pace_by_person ON install_pace (person_id);

-- +goose Down
DROP TABLE install_pace;
DROP TABLE install_photo;
DROP TABLE install_event;
DROP TABLE install;
