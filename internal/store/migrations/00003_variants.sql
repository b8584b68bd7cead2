-- +goose Up
-- variants are the states pinned beside the plan, as a JSON list of names and
-- input documents.
ALTER TABLE plan ADD COLUMN variants TEXT NOT NULL DEFAULT '[]';

-- +goose Down
ALTER TABLE plan DROP COLUMN variants;
