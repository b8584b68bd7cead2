-- +goose Up
CREATE TABLE plan (
    id         TEXT PRIMARY KEY,
    title      TEXT    NOT NULL,
    -- version counts saves; a save must name the one it started from.
    version    INTEGER NOT NULL,
    -- document is the plan's input as JSON, of the version schema_version.
    schema_version INTEGER NOT NULL,
    document   TEXT    NOT NULL,
    -- Summary of the result at the time of saving, for lists only.
    pattern    TEXT    NOT NULL,
    method     TEXT    NOT NULL,
    sections   INTEGER NOT NULL,
    pieces     INTEGER NOT NULL,
    packs      INTEGER NOT NULL,
    cost_minor INTEGER NOT NULL,
    minutes    REAL    NOT NULL,
    created_at TEXT    NOT NULL,
    updated_at TEXT    NOT NULL
) STRICT;
CREATE INDEX plan_by_update ON plan (updated_at DESC);

-- +goose Down
DROP TABLE plan;
