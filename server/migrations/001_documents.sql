-- Everything that belongs to somebody has an owner from the start; today there is one, the desk.
CREATE TABLE owners (
  id text PRIMARY KEY,
  name text NOT NULL
);
INSERT INTO owners (id, name) VALUES ('desk', 'Studio desk');

CREATE TABLE folios (
  id text PRIMARY KEY,
  owner text NOT NULL REFERENCES owners (id),
  title text NOT NULL,
  source_name text NOT NULL,
  seq integer NOT NULL DEFAULT 0,
  created_at timestamptz NOT NULL DEFAULT now(),
  changed_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX folios_owner ON folios (owner);

-- One row per part of a document, under its path in the package.
CREATE TABLE parts (
  folio text NOT NULL REFERENCES folios (id) ON DELETE CASCADE,
  path text NOT NULL,
  body jsonb NOT NULL,
  hash text NOT NULL,
  PRIMARY KEY (folio, path)
);

-- Pictures, fonts and sources: the bytes lie in the blob folder.
CREATE TABLE files (
  folio text NOT NULL REFERENCES folios (id) ON DELETE CASCADE,
  path text NOT NULL,
  sha256 text NOT NULL,
  bytes bigint NOT NULL,
  PRIMARY KEY (folio, path)
);
CREATE INDEX files_sha256 ON files (sha256);

CREATE TABLE edits (
  folio text NOT NULL REFERENCES folios (id) ON DELETE CASCADE,
  seq integer NOT NULL,
  base integer NOT NULL,
  owner text NOT NULL REFERENCES owners (id),
  actor text NOT NULL,
  at timestamptz NOT NULL DEFAULT now(),
  burst text NOT NULL,
  edit jsonb NOT NULL,
  patches jsonb NOT NULL,
  inverse jsonb NOT NULL,
  touched jsonb NOT NULL,
  PRIMARY KEY (folio, seq)
);
CREATE INDEX edits_actor ON edits (folio, actor, seq);
