-- +goose Up
-- Who read a grave caution of a client, and when; ended once the card no longer says it, so
-- that it is read anew should it come back.
CREATE TABLE acknowledgement (
    client_id TEXT NOT NULL REFERENCES client(id) ON DELETE CASCADE,
    caution   TEXT NOT NULL,
    person    TEXT NOT NULL,
    at        TEXT NOT NULL,
    ended     TEXT
) STRICT;
CREATE INDEX acknowledgement_client ON acknowledgement (client_id);

-- +goose Down
DROP TABLE acknowledgement;
