-- +goose Up
-- The print of the secret that servers of this database share, from the first start with one, so that no two servers seal with
-- different ones. It tells nothing of the secret.
CREATE TABLE sealing (
  id TINYINT NOT NULL PRIMARY KEY,
  print CHAR(64) CHARACTER SET ascii NOT NULL
);

-- Programs that know tables from a version on can serve these; a newer program says so when it starts.
CREATE TABLE serving (
  id TINYINT NOT NULL PRIMARY KEY,
  since INT NOT NULL
);

-- +goose Down
DROP TABLE serving;
DROP TABLE sealing;
