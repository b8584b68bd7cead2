-- +goose Up
-- The house rules, one document, with its own count of saves.
ALTER TABLE studio ADD COLUMN rules TEXT NOT NULL DEFAULT '{"schema":1,"currency":"USD"}';
ALTER TABLE studio ADD COLUMN rules_version INTEGER NOT NULL DEFAULT 1;

-- A hairline belongs to the person: that of the plan saved last moves to the card, which
-- says its version from now on.
UPDATE client SET document = json_set(document, '$.schema', 2, '$.hairline', json(coalesce(
    (SELECT json_extract(plan.document, '$.hairline') FROM plan
        WHERE plan.client_id = client.id ORDER BY plan.updated_at DESC, plan.id LIMIT 1), '{}')));

-- +goose Down
UPDATE client SET document = json_remove(document, '$.schema', '$.hairline');
ALTER TABLE studio DROP COLUMN rules_version;
ALTER TABLE studio DROP COLUMN rules;
