-- +goose Up
-- The exercise that a material was made from, as "scale/apart/Db/major/-"; empty for a piece.
ALTER TABLE material ADD COLUMN exercise VARCHAR(120) CHARACTER SET ascii NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE material DROP COLUMN exercise;
