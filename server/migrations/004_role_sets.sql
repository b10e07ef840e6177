-- What styles mean, kept under a name for the next document with styles of the same names.
CREATE TABLE role_sets (
  id text PRIMARY KEY,
  owner text NOT NULL REFERENCES owners (id),
  name text NOT NULL,
  roles jsonb NOT NULL,
  kept_at timestamptz NOT NULL DEFAULT now()
);
