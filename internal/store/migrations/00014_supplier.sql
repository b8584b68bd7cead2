-- +goose Up
-- Whom a studio orders from. An archived one is ordered from no more; what names it keeps its name.
CREATE TABLE supplier (
    key       TEXT    PRIMARY KEY,
    name      TEXT    NOT NULL,
    name_key  TEXT    NOT NULL UNIQUE,
    note      TEXT    NOT NULL,
    fee_minor INTEGER NOT NULL,
    days      INTEGER NOT NULL,
    practice  INTEGER NOT NULL,
    archived  INTEGER NOT NULL,
    version   INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

-- Every studio had the two simulated ones. They stay where something names them.
INSERT INTO supplier
    SELECT s.key, s.name, name_key(s.name), '', s.fee, s.days, 1, 0, 1 FROM (
        SELECT 'chandlery-row' AS key, 'Chandlery Row Hair' AS name, 550 AS fee, 2 AS days
        UNION ALL SELECT 'brackwater-post', 'Brackwater Fibre Post', 890, 6) s
    WHERE EXISTS (SELECT 1 FROM item WHERE instr(document, s.key) > 0)
        OR EXISTS (SELECT 1 FROM lot WHERE instr(document, s.key) > 0)
        OR EXISTS (SELECT 1 FROM purchase WHERE supplier = s.key)
        OR EXISTS (SELECT 1 FROM plan WHERE instr(document, s.key) > 0 OR instr(variants, s.key) > 0);
-- +goose StatementBegin
CREATE TRIGGER supplier_gone AFTER DELETE ON supplier WHEN old.practice = 0 BEGIN INSERT OR IGNORE INTO gone VALUES (old.key); END;
-- +goose StatementEnd

-- +goose Down
DROP TRIGGER supplier_gone;
DROP TABLE supplier;
