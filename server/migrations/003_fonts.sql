-- Fonts that a user has added for all documents; the bytes lie in the blob folder.
CREATE TABLE fonts (
  id text PRIMARY KEY,
  owner text NOT NULL REFERENCES owners (id),
  family text NOT NULL,
  weight integer NOT NULL,
  style text NOT NULL CHECK (style IN ('normal', 'italic')),
  full_name text NOT NULL,
  may_embed boolean NOT NULL,
  sha256 text NOT NULL,
  bytes bigint NOT NULL,
  added_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (owner, sha256)
);
