-- +goose Up
-- How practised a person is, and how much longer their own head takes.
ALTER TABLE person ADD COLUMN hand TEXT NOT NULL DEFAULT 'practised' CHECK (hand IN ('beginner', 'used', 'practised', 'fast'));
ALTER TABLE person ADD COLUMN own_head REAL NOT NULL DEFAULT 1.25;

-- +goose Down
ALTER TABLE person DROP COLUMN own_head;
ALTER TABLE person DROP COLUMN hand;
